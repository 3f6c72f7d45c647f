#include "core/picture/touch_up.h"

#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/depth.h"

namespace rim::picture {
namespace {

const cv::Scalar kPaper(255, 255, 255);
const cv::Scalar kInk(0, 0, 0);

/// In CIE L*a*b*, CV_32FC3, with L* from 0 to 100.
cv::Mat labOf(const cv::Mat& bgr) {
  cv::Mat scaled;
  cv::Mat lab;
  bgr.convertTo(scaled, CV_32FC3, 1.0 / 255);
  cv::cvtColor(scaled, lab, cv::COLOR_BGR2Lab);
  return lab;
}

/// Of a mask the part that hangs together with one place of it.
cv::Mat partAt(const cv::Mat& mask, cv::Point place) {
  cv::Mat labels;
  cv::connectedComponents(mask, labels, 4, CV_32S);
  return labels == labels.at<int>(place);
}

/// Everything within the brush's radius of the way from a to b; a pixel on its rim in part.
void paintSweep(cv::Mat& bgr, Point a, Point b, const BrushStroke& stroke) {
  const double radius = stroke.diameterPx / 2;
  const auto index = [](double place, int count) { return std::clamp(static_cast<int>(std::floor(place)), 0, count); };
  const Point way = b - a;
  const double square = dot(way, way);
  const double colour = stroke.ink ? 0 : 255;
  for (int y = index(std::min(a.y, b.y) - radius - 1, bgr.rows); y < index(std::max(a.y, b.y) + radius + 2, bgr.rows);
       ++y) {
    for (int x = index(std::min(a.x, b.x) - radius - 1, bgr.cols); x < index(std::max(a.x, b.x) + radius + 2, bgr.cols);
         ++x) {
      const Point p{x + 0.5, y + 0.5};
      const double t = square > 0 ? std::clamp(dot(p - a, way) / square, 0.0, 1.0) : 0;
      const double covered = std::clamp(radius - distance(p, a + way * t) + 0.5, 0.0, 1.0);
      if (covered <= 0) continue;
      auto& pixel = bgr.at<cv::Vec3b>(y, x);
      for (int c = 0; c < 3; ++c) pixel[c] = cv::saturate_cast<std::uint8_t>(pixel[c] + (colour - pixel[c]) * covered);
    }
  }
}

}  // namespace

Picture withLocalThreshold(const Picture& picture, const LocalThreshold& what) {
  // The window is odd, and no wider than what it can be compared with.
  const int size = std::clamp(static_cast<int>(what.sizePx), 3, 999) | 1;
  cv::Mat mean;
  cv::blur(*picture.grey, mean, {size, size}, {-1, -1}, cv::BORDER_REPLICATE);
  // Two grey levels either side of the threshold would alias; this ramp is as steep as an edge.
  constexpr double kRampLevels = 24;
  cv::Mat difference;
  cv::subtract(*picture.grey, mean, difference, cv::noArray(), CV_32F);
  cv::Mat grey;
  constexpr double kWhiteLevel = 255;
  difference.convertTo(grey, CV_8UC1, kWhiteLevel / kRampLevels, kWhiteLevel * (0.5 + what.bias / kRampLevels));
  return withPixels(picture, grey);
}

Picture withSmoothEdges(const Picture& picture, double px) {
  const cv::Mat depth = depthNearBorder(*picture.grey, 3 * px);
  if (depth.empty()) throw InputError("the picture has one tone only: there are no edges to smooth.");
  // Far from the border the depth says nothing about it.
  cv::Mat near = cv::min(cv::max(depth, -3 * px), 3 * px);
  cv::GaussianBlur(near, near, {0, 0}, px, px, cv::BORDER_REPLICATE);
  return withPixels(picture, inkAtDepth(near, 0));
}

Picture touchedUp(const Picture& picture, const TouchUp& what) {
  cv::Mat bgr = picture.bgr->clone();
  for (const BrushStroke& stroke : what.strokes) {
    for (std::size_t i = 0; i < stroke.places.size(); ++i) {
      paintSweep(bgr, stroke.places[i > 0 ? i - 1 : 0], stroke.places[i], stroke);
    }
  }
  return withPixels(picture, bgr);
}

Picture cleared(const Picture& picture, const ClearFrame& what) {
  const Crop& f = what.frame;
  const cv::Rect frame = cv::Rect(f.x, f.y, f.width, f.height) & cv::Rect(0, 0, picture.width(), picture.height());
  cv::Mat bgr(picture.bgr->size(), CV_8UC3, kPaper);
  if (what.inside) picture.bgr->copyTo(bgr);
  if (frame.empty()) return withPixels(picture, bgr);
  if (what.inside) {
    bgr(frame).setTo(kPaper);
  } else {
    (*picture.bgr)(frame).copyTo(bgr(frame));
  }
  return withPixels(picture, bgr);
}

Picture withColourPicked(const Picture& picture, const PickColour& what) {
  const cv::Point place(static_cast<int>(std::floor(what.place.x)), static_cast<int>(std::floor(what.place.y)));
  if (!cv::Rect(0, 0, picture.width(), picture.height()).contains(place)) {
    throw InputError("the picked place lies outside the picture.");
  }
  cv::Mat lab = labOf(*picture.bgr);
  const cv::Vec3f wanted = lab.at<cv::Vec3f>(place);
  lab -= cv::Scalar(wanted[0], wanted[1], wanted[2]);
  cv::Mat square;
  cv::transform(lab.mul(lab), square, cv::Matx13f(1, 1, 1));
  cv::Mat meant = square <= what.tolerance * what.tolerance;
  if (what.connected) meant = partAt(meant, place);
  cv::Mat bgr = picture.bgr->clone();
  bgr.setTo(what.ink ? kInk : kPaper, meant);
  if (what.rest) bgr.setTo(what.ink ? kPaper : kInk, ~meant);
  return withPixels(picture, bgr);
}

}  // namespace rim::picture
