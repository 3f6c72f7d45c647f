#include "core/picture/picture.h"

#include <opencv2/imgproc.hpp>

#include "core/picture/tone.h"

namespace rim::picture {

Colours::Colours(cv::Mat pixels) : held_(std::make_shared<Held>()) {
  held_->greys = pixels.channels() == 1;
  held_->pixels = std::move(pixels);
}

const cv::Mat& Colours::operator*() const {
  std::call_once(held_->asked, [this] {
    if (held_->pixels.channels() > 1) return;
    cv::Mat bgr;
    cv::cvtColor(held_->pixels, bgr, cv::COLOR_GRAY2BGR);
    held_->pixels = bgr;
  });
  return held_->pixels;
}

Picture makePicture(cv::Mat pixels, double dotsPerInch, std::string name) {
  static std::atomic<std::uint64_t> minted = 0;
  Picture picture;
  picture.id = static_cast<PictureId>(++minted);
  picture.grey = std::make_shared<const cv::Mat>(pixels.channels() > 1 ? greyOf(pixels) : pixels);
  picture.bgr = Colours(std::move(pixels));
  picture.histogram = histogramOf(*picture.grey);
  picture.dotsPerInch = dotsPerInch;
  picture.name = std::move(name);
  return picture;
}

Picture withPixels(const Picture& picture, const cv::Mat& pixels) {
  return makePicture(pixels, picture.dotsPerInch, picture.name);
}

}  // namespace rim::picture
