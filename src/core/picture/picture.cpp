#include "core/picture/picture.h"

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

}  // namespace rim
