#include "core/picture/picture.h"

#include <opencv2/imgproc.hpp>

#include "core/picture/tone.h"

namespace rim {

Picture makePicture(cv::Mat bgr, double dotsPerInch, std::string name) {
  Picture picture;
  picture.grey = std::make_shared<const cv::Mat>(greyOf(bgr));
  picture.bgr = std::make_shared<const cv::Mat>(std::move(bgr));
  picture.histogram = histogramOf(*picture.grey);
  picture.dotsPerInch = dotsPerInch;
  picture.name = std::move(name);
  return picture;
}

Picture withPixels(const Picture& picture, const cv::Mat& pixels) {
  cv::Mat bgr = pixels;
  if (pixels.channels() == 1) cv::cvtColor(pixels, bgr, cv::COLOR_GRAY2BGR);
  return makePicture(bgr, picture.dotsPerInch, picture.name);
}

}  // namespace rim
