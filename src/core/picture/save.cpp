#include "core/picture/save.h"

#include <opencv2/imgproc.hpp>
#include <vips/vips8>

#include "core/error.h"
#include "core/picture/vips_library.h"

namespace rim::picture {

namespace {

/// Rows one after the other: grey levels, or red, green and blue.
cv::Mat samplesOf(const Picture& picture) {
  if (picture.bgr.areGreys()) return picture.grey->isContinuous() ? *picture.grey : picture.grey->clone();
  cv::Mat rgb;
  cv::cvtColor(*picture.bgr, rgb, cv::COLOR_BGR2RGB);
  return rgb;
}

std::vector<std::byte> packed(const Picture& picture) {
  startVips();
  const cv::Mat samples = samplesOf(picture);
  try {
    const auto image = vips::VImage::new_from_memory(samples.data, samples.total() * samples.elemSize(), samples.cols,
                                                     samples.rows, samples.channels(), VIPS_FORMAT_UCHAR);
    // Quick rather than small: a job is saved often.
    constexpr int kQuickly = 3;
    VipsBlob* blob = image.pngsave_buffer(vips::VImage::option()->set("compression", kQuickly));
    std::size_t size = 0;
    const auto* data = static_cast<const std::byte*>(vips_blob_get(blob, &size));
    std::vector<std::byte> bytes(data, data + size);
    vips_area_unref(reinterpret_cast<VipsArea*>(blob));
    return bytes;
  } catch (const vips::VError&) {
    vips_error_clear();
    throw WriteError("the picture could not be packed: there may not be enough memory.");
  }
}

}  // namespace

const std::vector<std::byte>& pngOf(const Picture& picture) {
  return picture.packed.bytes([&picture] { return packed(picture); });
}

}  // namespace rim::picture
