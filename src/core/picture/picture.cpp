#include "core/picture/picture.h"

#include <opencv2/imgproc.hpp>

#include "core/picture/tone.h"

namespace rim {

Picture makePicture(cv::Mat pixels, double dotsPerInch, std::string name) {
  Picture picture;
  cv::Mat other;
  if (pixels.channels() == 1) {
    cv::cvtColor(pixels, other, cv::COLOR_GRAY2BGR);
    std::swap(pixels, other);
  } else {
    other = greyOf(pixels);
  }
  picture.grey = std::make_shared<const cv::Mat>(std::move(other));
  picture.bgr = std::make_shared<const cv::Mat>(std::move(pixels));
  picture.histogram = histogramOf(*picture.grey);
  picture.dotsPerInch = dotsPerInch;
  picture.name = std::move(name);
  return picture;
}

Picture withPixels(const Picture& picture, const cv::Mat& pixels) {
  return makePicture(pixels, picture.dotsPerInch, picture.name);
}

}  // namespace rim
