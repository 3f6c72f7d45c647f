#include "core/trace/lines/areas.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace rim::trace::lines {
namespace {

/// The pixel that holds a place.
cv::Point pixelAt(const cv::Mat& grey, Point p) {
  return {std::clamp(static_cast<int>(p.x), 0, grey.cols - 1),
          std::clamp(grey.rows - 1 - static_cast<int>(p.y), 0, grey.rows - 1)};
}

/// Which pixels lie on the middle of what is an area, and which on that of a stroke; those of strokes that are areas
/// because somebody said so, and of areas that are strokes for that reason.
struct Middles {
  std::vector<cv::Point> wide;
  std::vector<cv::Point> narrow;
  std::vector<cv::Point> madeNarrow;
  std::vector<cv::Point> madeWide;
};

Middles middlesOf(const cv::Mat& grey, const std::vector<StrokeNet>& nets) {
  Middles middles;
  const auto add = [&](const std::vector<Point>& points, bool area, bool switched) {
    for (const Point p : points) {
      const cv::Point pixel = pixelAt(grey, p);
      (!area ? middles.narrow : switched ? middles.madeWide : middles.wide).push_back(pixel);
      if (!area && switched) middles.madeNarrow.push_back(pixel);
    }
  };
  for (const StrokeNet& net : nets) {
    if (net.dot) add({lerp(net.dot->points.front(), net.dot->points.back(), 0.5)}, net.dotIsArea, net.dotIsSwitched);
    for (const StrokeTrack& track : net.tracks) add(track.points, track.area, track.switched);
  }
  return middles;
}

/// The connected parts of a mask that hold one of these pixels.
cv::Mat partsWith(const cv::Mat& mask, const std::vector<cv::Point>& pixels) {
  cv::Mat labels;
  const int count = cv::connectedComponents(mask, labels, 8, CV_32S);
  std::vector<std::uint8_t> kept(static_cast<std::size_t>(count));
  for (const cv::Point p : pixels) kept[static_cast<std::size_t>(labels.at<int>(p))] = 255;
  kept[0] = 0;
  cv::Mat parts(mask.size(), CV_8UC1);
  for (int y = 0; y < mask.rows; ++y) {
    for (int x = 0; x < mask.cols; ++x)
      parts.at<std::uint8_t>(y, x) = kept[static_cast<std::size_t>(labels.at<int>(y, x))];
  }
  return parts;
}

cv::Mat distanceFrom(const cv::Mat& mask) {
  cv::Mat away;
  cv::distanceTransform(~mask, away, cv::DIST_L2, cv::DIST_MASK_PRECISE);
  return away;
}

/// Those parts of what opening took off that no stroke runs through and that touch what is left.
cv::Mat cornersOf(const cv::Mat& takenOff, const cv::Mat& opened, const std::vector<cv::Point>& narrow) {
  const cv::Mat strokes = partsWith(takenOff, narrow);
  cv::Mat beside;
  cv::dilate(opened, beside, cv::Mat());
  std::vector<cv::Point> touching;
  cv::findNonZero(beside & takenOff & ~strokes, touching);
  return partsWith(takenOff & ~strokes, touching);
}

/// How far each pixel is from the nearest of these.
cv::Mat distanceFrom(const cv::Mat& like, const std::vector<cv::Point>& pixels) {
  cv::Mat mask(like.size(), CV_8UC1, cv::Scalar(0));
  for (const cv::Point p : pixels) mask.at<std::uint8_t>(p) = 255;
  return distanceFrom(mask);
}

/// The ink of strokes that are to be areas: what lies nearer to their middles than to any other.
cv::Mat madeWide(const cv::Mat& ink, const Middles& middles) {
  if (middles.madeWide.empty()) return cv::Mat(ink.size(), CV_8UC1, cv::Scalar(0));
  std::vector<cv::Point> others = middles.wide;
  others.insert(others.end(), middles.narrow.begin(), middles.narrow.end());
  if (others.empty()) return ink;
  return ink & (distanceFrom(ink, middles.madeWide) < distanceFrom(ink, others));
}

/// What is deeper than a stroke's half width, round the middles of areas; without what lies nearer to the middle of an
/// area that is to be a stroke.
cv::Mat coreOf(const cv::Mat& depth, const Middles& middles, double radius) {
  if (middles.wide.empty()) return cv::Mat(depth.size(), CV_8UC1, cv::Scalar(0));
  const cv::Mat core = partsWith(depth > radius, middles.wide);
  if (middles.madeNarrow.empty()) return core;
  return core & (distanceFrom(depth, middles.wide) < distanceFrom(depth, middles.madeNarrow));
}

}  // namespace

cv::Mat areasOnly(const cv::Mat& grey, contour::TwoTone tone, const std::vector<StrokeNet>& nets, double limitPx) {
  constexpr double kFringePx = 3;    // greys beside the ink that belong to its border
  constexpr double kCutPx = 1.6;     // from a stroke to what it was cut off from
  constexpr double kInsidePx = 0.1;  // discs reach a little into a stroke's mouth (measured on discs and rectangles)
  constexpr double kSlackPx = 0.2;   // pixels' middles lie beside a slanting border
  const double radius = limitPx / 2;
  const auto paper = static_cast<std::uint8_t>(tone.lightIsInk ? 0 : 255);
  const Middles middles = middlesOf(grey, nets);
  cv::Mat ink;
  cv::compare(grey, tone.threshold, ink, tone.lightIsInk ? cv::CMP_GE : cv::CMP_LT);
  cv::Mat depth;
  cv::distanceTransform(ink, depth, cv::DIST_L2, cv::DIST_MASK_PRECISE);
  const cv::Mat core = coreOf(depth, middles, radius);
  const cv::Mat wide = madeWide(ink, middles);
  cv::Mat left(grey.size(), CV_8UC1, cv::Scalar(paper));
  if (cv::countNonZero(core | wide) == 0) return left;
  // Pixels' middles count: the border lies half a pixel beyond the outermost, as far from the core as that is deep.
  double reach = 0;
  if (cv::countNonZero(core) != 0) cv::minMaxLoc(depth, &reach, nullptr, nullptr, nullptr, core);
  const cv::Mat fromCore = distanceFrom(core);
  const cv::Mat opened = ink & (fromCore <= reach - kSlackPx);
  const cv::Mat takenOff = ink & ~opened & ~wide;
  const cv::Mat kept = opened | wide | cornersOf(takenOff, opened, middles.narrow);
  const cv::Mat fromStrokes = distanceFrom(partsWith(takenOff, middles.narrow));
  const cv::Mat fromKept = distanceFrom(kept);
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      const bool isInk = ink.at<std::uint8_t>(y, x) != 0;
      const std::uint8_t level = grey.at<std::uint8_t>(y, x);
      std::uint8_t& result = left.at<std::uint8_t>(y, x);
      if (isInk && wide.at<std::uint8_t>(y, x) == 0 && fromStrokes.at<float>(y, x) < kCutPx) {
        // Where a stroke was cut off the disc's edge passes through pixels: as much of them stays as it covers.
        const double share = std::clamp(reach - kInsidePx - fromCore.at<float>(y, x), 0.0, 1.0);
        result = static_cast<std::uint8_t>(std::lround(paper + share * (level - paper)));
      } else if (kept.at<std::uint8_t>(y, x) != 0 || (!isInk && fromKept.at<float>(y, x) < kFringePx)) {
        result = level;
      }
    }
  }
  return left;
}

}  // namespace rim::trace::lines
