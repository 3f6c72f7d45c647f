#include "core/picture/reshape.h"

#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/assess.h"
#include "core/picture/load.h"
#include "core/picture/tone.h"

namespace rim::picture {
namespace {

void expectAllowed(double pixels) {
  if (pixels > static_cast<double>(kMostPixels)) {
    throw InputError("the picture would have more than " + std::to_string(kMostPixels / 1'000'000) + " megapixels.");
  }
}

}  // namespace

Picture cropped(const Picture& picture, const Crop& crop) {
  const bool fits = crop.x >= 0 && crop.y >= 0 && crop.width > 0 && crop.height > 0 &&
                    crop.width <= picture.width() - crop.x && crop.height <= picture.height() - crop.y;
  if (!fits) {
    throw InputError("the crop " + std::to_string(crop.x) + "," + std::to_string(crop.y) + "," +
                     std::to_string(crop.width) + "," + std::to_string(crop.height) + " leaves the picture of " +
                     std::to_string(picture.width()) + " x " + std::to_string(picture.height()) + " px.");
  }
  return withPixels(picture, (*picture.bgr)(cv::Rect(crop.x, crop.y, crop.width, crop.height)).clone());
}

Crop cropToInk(const Picture& picture, int marginPx) {
  const auto threshold = otsuThreshold(picture.histogram);
  if (!threshold) throw InputError("the picture has one tone only: there is no ink to crop to.");
  cv::Mat labels;
  cv::Mat facts;
  cv::Mat centres;
  const int count = cv::connectedComponentsWithStats(*picture.grey < *threshold, labels, facts, centres, 8, CV_32S);
  constexpr int kSpeckPx2 = 4;
  cv::Rect box;
  for (int i = 1; i < count; ++i) {
    if (facts.at<int>(i, cv::CC_STAT_AREA) < kSpeckPx2) continue;
    const cv::Rect part(facts.at<int>(i, cv::CC_STAT_LEFT), facts.at<int>(i, cv::CC_STAT_TOP),
                        facts.at<int>(i, cv::CC_STAT_WIDTH), facts.at<int>(i, cv::CC_STAT_HEIGHT));
    box = box.empty() ? part : box | part;
  }
  if (box.empty()) throw InputError("there is no ink to crop to.");
  box = cv::Rect(box.x - marginPx, box.y - marginPx, box.width + 2 * marginPx, box.height + 2 * marginPx) &
        cv::Rect(0, 0, picture.width(), picture.height());
  return {box.x, box.y, box.width, box.height};
}

Picture turned(const Picture& picture, double degrees) {
  const double quarters = degrees / 90;
  cv::Mat out;
  if (quarters == std::round(quarters)) {
    const int turns = ((static_cast<int>(quarters) % 4) + 4) % 4;
    if (turns == 0) return picture;
    const int codes[] = {cv::ROTATE_90_COUNTERCLOCKWISE, cv::ROTATE_180, cv::ROTATE_90_CLOCKWISE};
    cv::rotate(*picture.bgr, out, codes[turns - 1]);
    return withPixels(picture, out);
  }
  const cv::Point2f middle(static_cast<float>(picture.width() - 1) / 2, static_cast<float>(picture.height() - 1) / 2);
  cv::Mat map = cv::getRotationMatrix2D(middle, degrees, 1);
  const double c = std::abs(map.at<double>(0, 0));
  const double s = std::abs(map.at<double>(0, 1));
  const double width = std::ceil(picture.width() * c + picture.height() * s);
  const double height = std::ceil(picture.width() * s + picture.height() * c);
  expectAllowed(width * height);
  map.at<double>(0, 2) += (width - picture.width()) / 2;
  map.at<double>(1, 2) += (height - picture.height()) / 2;
  cv::warpAffine(*picture.bgr, out, map, {static_cast<int>(width), static_cast<int>(height)}, cv::INTER_CUBIC,
                 cv::BORDER_REPLICATE);
  return withPixels(picture, out);
}

Picture mirrored(const Picture& picture) {
  cv::Mat out;
  constexpr int kLeftRight = 1;
  cv::flip(*picture.bgr, out, kLeftRight);
  return withPixels(picture, out);
}

Picture enlarged(const Picture& picture, double factor) {
  expectAllowed(picture.width() * factor * picture.height() * factor);
  cv::Mat out;
  cv::resize(*picture.bgr, out, {}, factor, factor, cv::INTER_LANCZOS4);
  // Without a resolution of its own a picture has the usual one: its size stays, too.
  const double own = picture.dotsPerInch > 0 ? picture.dotsPerInch : kDefaultDotsPerInch;
  return makePicture(out, own * factor, picture.name);
}

Picture denoised(const Picture& picture, double strength) {
  const double noise = strength * std::max(1.0, noiseLevel(*picture.grey));
  cv::Mat out;
  constexpr int kDiameter = 5;
  cv::medianBlur(*picture.bgr, out, 3);
  cv::Mat smooth;
  cv::bilateralFilter(out, smooth, kDiameter, 4 * noise, 2);
  return withPixels(picture, smooth);
}

}  // namespace rim::picture
