#include "core/picture/picture.h"

#include <future>
#include <opencv2/imgproc.hpp>

#include "core/picture/tone.h"

namespace rim {

Picture makePicture(cv::Mat pixels, double dotsPerInch, std::string name) {
  Picture picture;
  const bool colour = pixels.channels() > 1;
  const cv::Mat grey = colour ? greyOf(pixels) : pixels;
  auto histogram = std::async(std::launch::async, [&grey] { return histogramOf(grey); });
  if (!colour) {
    pixels = cv::Mat();
    cv::cvtColor(grey, pixels, cv::COLOR_GRAY2BGR);
  }
  picture.grey = std::make_shared<const cv::Mat>(grey);
  picture.bgr = std::make_shared<const cv::Mat>(std::move(pixels));
  picture.histogram = histogram.get();
  picture.dotsPerInch = dotsPerInch;
  picture.name = std::move(name);
  return picture;
}

Picture withPixels(const Picture& picture, const cv::Mat& pixels) {
  return makePicture(pixels, picture.dotsPerInch, picture.name);
}

}  // namespace rim
