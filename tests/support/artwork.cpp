#include "support/artwork.h"

#include <vips/vips8>

#include "core/picture/load.h"

namespace rim::test {

picture::Picture artwork(int width, int height, const std::vector<colour::Rgb>& colours, const Area& area) {
  constexpr int kPlaces = 8;
  cv::Mat bgr(height, width, CV_8UC3);
  for (int y = 0; y < height; ++y) {
    for (int x = 0; x < width; ++x) {
      cv::Vec3d sum(0, 0, 0);
      for (int i = 0; i < kPlaces * kPlaces; ++i) {
        const double px = x + (i % kPlaces + 0.5) / kPlaces;
        const double py = y + (i / kPlaces + 0.5) / kPlaces;
        const colour::Rgb c = colours[area(px, py)];
        sum += cv::Vec3d(c.b, c.g, c.r);
      }
      for (int k = 0; k < 3; ++k)
        bgr.at<cv::Vec3b>(y, x)[k] = cv::saturate_cast<std::uint8_t>(sum[k] / (kPlaces * kPlaces));
    }
  }
  return picture::makePicture(bgr, 0, "artwork");
}

picture::Picture asJpeg(const picture::Picture& picture, int quality) {
  cv::Mat rgb;
  const int fromTo[] = {0, 2, 1, 1, 2, 0};
  rgb.create(picture.bgr->size(), CV_8UC3);
  cv::mixChannels(&*picture.bgr, 1, &rgb, 1, fromTo, 3);
  const auto image = vips::VImage::new_from_memory(rgb.data, rgb.total() * 3, rgb.cols, rgb.rows, 3, VIPS_FORMAT_UCHAR)
                         .copy(vips::VImage::option()->set("interpretation", VIPS_INTERPRETATION_sRGB));
  VipsBlob* blob = image.jpegsave_buffer(
      vips::VImage::option()->set("Q", quality)->set("subsample_mode", VIPS_FOREIGN_SUBSAMPLE_ON));
  std::size_t size = 0;
  const void* data = vips_blob_get(blob, &size);
  const picture::Picture loaded =
      picture::loadPicture(std::span(static_cast<const std::byte*>(data), size), "artwork.jpg");
  vips_area_unref(VIPS_AREA(blob));
  return loaded;
}

}  // namespace rim::test
