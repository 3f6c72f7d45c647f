#include "core/picture/stroke.h"

#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/depth.h"
#include "core/picture/tone.h"

namespace rim::picture {
namespace {

constexpr double kWhite = 255;

cv::Mat depthOrThrow(const Picture& picture, double reachPx) {
  cv::Mat depth = depthNearBorder(*picture.grey, reachPx);
  if (depth.empty()) throw InputError("the picture has one tone only: there is no ink in it.");
  return depth;
}

/// Mask of the ink, half covered pixels included.
cv::Mat inkOrThrow(const Picture& picture) {
  const auto levels = inkLevelsOf(*picture.grey);
  if (!levels) throw InputError("the picture has one tone only: there is no ink in it.");
  return *picture.grey <= levels->middle();
}

/// The picture's mean colour where a mask lies, away from its rim.
cv::Scalar colourWithin(const Picture& picture, const cv::Mat& mask) {
  cv::Mat inner;
  cv::erode(mask, inner, cv::getStructuringElement(cv::MORPH_RECT, {3, 3}));
  return cv::mean(*picture.bgr, cv::countNonZero(inner) > 0 ? inner : mask);
}

/// Half a pixel beyond the new border a pixel is all ink or all paper.
double reachFor(double px) { return std::abs(px) / 2 + 1; }

/// The picture with all connected parts of `mask` below the area painted over with `colour`, the
/// edge pixels round them too.
Picture paintedOver(const Picture& picture, const cv::Mat& mask, int connectivity, double areaPx2,
                    const cv::Scalar& colour) {
  cv::Mat labels;
  cv::Mat facts;
  cv::Mat centres;
  const int count = cv::connectedComponentsWithStats(mask, labels, facts, centres, connectivity, CV_32S);
  cv::Mat small = cv::Mat::zeros(mask.size(), CV_8UC1);
  for (int y = 0; y < mask.rows; ++y) {
    for (int x = 0; x < mask.cols; ++x) {
      const int label = labels.at<int>(y, x);
      if (label > 0 && label < count && facts.at<int>(label, cv::CC_STAT_AREA) < areaPx2)
        small.at<std::uint8_t>(y, x) = 255;
    }
  }
  cv::Mat grown;
  cv::dilate(small, grown, cv::getStructuringElement(cv::MORPH_RECT, {5, 5}));
  // Not what belongs to larger parts, nor the edge pixels of those.
  cv::Mat keep;
  cv::dilate(mask & ~small, keep, cv::getStructuringElement(cv::MORPH_RECT, {3, 3}));
  cv::Mat bgr = picture.bgr->clone();
  bgr.setTo(colour, grown & (~keep | small));
  return withPixels(picture, bgr);
}

/// The connected parts of a mask with a larger area. Closing also rounds inner corners out, by less
/// than the square of its radius; a bridged gap is larger.
cv::Mat partsLargerThan(const cv::Mat& mask, double areaPx2) {
  cv::Mat labels;
  cv::Mat facts;
  cv::Mat centres;
  cv::connectedComponentsWithStats(mask, labels, facts, centres, 8, CV_32S);
  cv::Mat large = cv::Mat::zeros(mask.size(), CV_8UC1);
  for (int y = 0; y < mask.rows; ++y) {
    for (int x = 0; x < mask.cols; ++x) {
      const int label = labels.at<int>(y, x);
      if (label > 0 && facts.at<int>(label, cv::CC_STAT_AREA) > areaPx2) large.at<std::uint8_t>(y, x) = 255;
    }
  }
  return large;
}

}  // namespace

Picture thickened(const Picture& picture, double px) {
  return withPixels(picture, inkAtDepth(depthOrThrow(picture, reachFor(px)), px / 2));
}

Picture withGapsFilled(const Picture& picture, double px) {
  const cv::Mat grown = inkAtDepth(depthOrThrow(picture, reachFor(px)), px / 2);
  const cv::Mat grownDepth = depthNearBorder(grown, reachFor(px));
  if (grownDepth.empty()) return picture;
  const cv::Mat closed = inkAtDepth(grownDepth, -px / 2);
  // Only what is paper now and ink after closing is taken over: true borders keep their places.
  const auto threshold = otsuThreshold(picture.histogram);
  const cv::Mat bridges = partsLargerThan((closed < kWhite / 2) & (*picture.grey >= *threshold), px * px / 4);
  cv::Mat around;
  cv::dilate(bridges, around, cv::getStructuringElement(cv::MORPH_RECT, {3, 3}));
  cv::Mat grey = picture.grey->clone();
  cv::Mat(cv::min(grey, closed)).copyTo(grey, around);
  return withPixels(picture, grey);
}

Picture withPinholesFilled(const Picture& picture, double areaPx2) {
  const cv::Mat ink = inkOrThrow(picture);
  return paintedOver(picture, ~ink, 4, areaPx2, colourWithin(picture, ink));
}

Picture withoutSpecks(const Picture& picture, double areaPx2) {
  const cv::Mat ink = inkOrThrow(picture);
  return paintedOver(picture, ink, 8, areaPx2, colourWithin(picture, ~ink));
}

namespace {

/// Half the width of the widest strokes that there can be many of: where every third pixel is an edge, as
/// in noise or screen tone, strokes are narrow, and looking farther only takes long.
double widestLikely(const cv::Mat& grey) {
  const auto levels = inkLevelsOf(grey);
  if (!levels || grey.cols < 2) return 3;
  const cv::Mat ink = grey <= levels->middle();
  const cv::Mat changes = ink.colRange(1, ink.cols) != ink.colRange(0, ink.cols - 1);
  const double share = static_cast<double>(cv::countNonZero(changes)) / static_cast<double>(changes.total());
  return std::max(3.0, 3 / std::max(share, 1e-3));
}

}  // namespace

StrokeWidths strokeWidths(const cv::Mat& grey) {
  // Small pictures are enlarged: a middle line between two pixels would else be measured too thin.
  constexpr double kSmallPixels = 1.5e6;
  const double scale = static_cast<double>(grey.total()) < kSmallPixels ? 3 : 1;
  cv::Mat large = grey;
  if (scale > 1) cv::resize(grey, large, {}, scale, scale, cv::INTER_CUBIC);
  const double reach = std::min(scale > 1 ? 36.0 : 16.0, widestLikely(large));
  const cv::Mat depth = depthNearBorder(large, reach);
  if (depth.empty()) return {};
  cv::Mat highest;
  cv::dilate(depth, highest, cv::getStructuringElement(cv::MORPH_RECT, {3, 3}));
  std::vector<float> widths;
  for (int y = 1; y + 1 < depth.rows; ++y) {
    for (int x = 1; x + 1 < depth.cols; ++x) {
      const float d = depth.at<float>(y, x);
      // A ridge: no neighbour is deeper. Shallow ridges are the corners of pixels.
      // What lies beyond the reach is no stroke but an area.
      if (d > 0.4F * static_cast<float>(scale) && d < static_cast<float>(reach) && d >= highest.at<float>(y, x))
        widths.push_back(2 * d);
    }
  }
  if (widths.empty()) widths.push_back(static_cast<float>(2 * reach));
  std::sort(widths.begin(), widths.end());
  const auto at = [&widths, scale](double share) {
    return widths[static_cast<std::size_t>(share * static_cast<double>(widths.size() - 1))] / scale;
  };
  return {at(0.5), at(0.05)};
}

}  // namespace rim::picture
