#include "core/trace/contour/wanted_coverage.h"

#include <opencv2/imgproc.hpp>

#include "core/median.h"

namespace rim::trace::contour {
namespace {

/// A level farther off than this is no neighbour's.
constexpr float kReachPx = 6;
constexpr std::size_t kLeastPixels = 6;
constexpr double kLeastRange = 24;
constexpr double kMostNoise = 0.2;

std::vector<float> levelsIn(const cv::Mat& grey, const cv::Mat& part) {
  std::vector<float> levels;
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      if (part.at<std::uint8_t>(y, x) != 0) levels.push_back(grey.at<std::uint8_t>(y, x));
    }
  }
  return levels;
}

/// One side of the threshold.
struct Side {
  cv::Mat even;         ///< 255 where all neighbours are of this side, too
  cv::Mat1f levels;     ///< of the nearest even pixel
  double ofAll = 0;     ///< the level where none is near
  double wavering = 0;  ///< standard deviation of even pixels from their neighbourhood, grey levels
};

/// The level of the nearest even pixel, as its even neighbourhood has it on average. `mask` is all of the side.
void spreadLevels(const cv::Mat& grey, const cv::Mat& mask, Side& side) {
  // What a JPEG or a bad enlargement leaves wavers near edges.
  constexpr float kNearEdgePx = 5;
  cv::Mat1f toEdge;
  cv::distanceTransform(mask, toEdge, cv::DIST_L2, cv::DIST_MASK_5);
  cv::Mat1f sums;
  cv::Mat1f counts;
  cv::Mat1f within(grey.size(), 0.F);
  grey.convertTo(within, CV_32F);
  within.setTo(0, ~side.even);
  constexpr int kAround = 5;
  cv::boxFilter(within, sums, CV_32F, {kAround, kAround}, {-1, -1}, false, cv::BORDER_REPLICATE);
  cv::boxFilter(side.even, counts, CV_32F, {kAround, kAround}, {-1, -1}, false, cv::BORDER_REPLICATE);
  cv::Mat1f distances;
  cv::Mat1i labels;
  cv::distanceTransform(~side.even, distances, labels, cv::DIST_L2, cv::DIST_MASK_5, cv::DIST_LABEL_PIXEL);
  std::vector<float> levelOf(1);
  std::vector<float> squares;
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      if (side.even.at<std::uint8_t>(y, x) == 0) continue;
      const auto label = static_cast<std::size_t>(labels(y, x));
      if (label >= levelOf.size()) levelOf.resize(label + 1);
      levelOf[label] = sums(y, x) * 255 / counts(y, x);
      if (toEdge(y, x) > kNearEdgePx) continue;
      const float off = static_cast<float>(grey.at<std::uint8_t>(y, x)) - levelOf[label];
      squares.push_back(off * off);
    }
  }
  if (!squares.empty()) side.wavering = std::sqrt(medianOf(squares)) / kMedianDeviation;
  side.levels = cv::Mat1f(grey.size(), static_cast<float>(side.ofAll));
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      if (distances(y, x) <= kReachPx) side.levels(y, x) = levelOf[static_cast<std::size_t>(labels(y, x))];
    }
  }
}

/// `dark`: the side is the dark one.
std::optional<Side> sideOf(const cv::Mat& grey, const cv::Mat& mask, bool dark) {
  Side side;
  cv::erode(mask, side.even, cv::getStructuringElement(cv::MORPH_RECT, {3, 3}), {-1, -1}, 1, cv::BORDER_REPLICATE);
  std::vector<float> levels = levelsIn(grey, side.even);
  if (levels.size() < kLeastPixels) {
    levels = levelsIn(grey, mask);
    if (levels.empty()) return std::nullopt;
    std::sort(levels.begin(), levels.end());
    if (!dark) std::reverse(levels.begin(), levels.end());
    levels.resize(std::min(levels.size(), kLeastPixels));
    side.even = 0;
  }
  side.ofAll = medianOf(levels);
  if (cv::countNonZero(side.even) > 0) {
    spreadLevels(grey, mask, side);
  } else {
    side.levels = cv::Mat1f(grey.size(), static_cast<float>(side.ofAll));
  }
  return side;
}

double steepnessOf(const cv::Mat1f& shares) {
  std::vector<float> steps;
  const auto look = [&steps](float a, float b) {
    constexpr float kHalf = 0.5F;
    if ((a < kHalf) != (b < kHalf)) steps.push_back(std::abs(a - b));
  };
  for (int y = 0; y < shares.rows; ++y) {
    for (int x = 0; x < shares.cols; ++x) {
      if (x + 1 < shares.cols) look(shares(y, x), shares(y, x + 1));
      if (y + 1 < shares.rows) look(shares(y, x), shares(y + 1, x));
    }
  }
  if (steps.empty()) return 0;
  const auto place = steps.begin() + static_cast<std::ptrdiff_t>(steps.size() * 3 / 4);
  std::nth_element(steps.begin(), place, steps.end());
  return *place;
}

}  // namespace

std::optional<WantedCoverage> wantedCoverage(const cv::Mat& grey, TwoTone tone) {
  const cv::Mat dark = grey < tone.threshold;
  const cv::Mat light = ~dark;
  const auto ink = sideOf(grey, tone.lightIsInk ? light : dark, !tone.lightIsInk);
  const auto paper = sideOf(grey, tone.lightIsInk ? dark : light, tone.lightIsInk);
  if (!ink || !paper) return std::nullopt;
  // Where next to nothing is even there is no level to compare greys with: that is noise.
  constexpr double kLeastEven = 0.02;
  const int even = cv::countNonZero(ink->even) + cv::countNonZero(paper->even);
  if (even < kLeastEven * static_cast<double>(grey.total())) return std::nullopt;
  const double contrast = std::abs(paper->ofAll - ink->ofAll);
  if (contrast < kLeastRange) return std::nullopt;
  WantedCoverage wanted{cv::Mat1f(grey.size()), 0,
                        std::hypot(ink->wavering, paper->wavering) / std::sqrt(2) / contrast};
  if (wanted.noise > kMostNoise) return std::nullopt;
  const float least = static_cast<float>(kLeastRange) * (tone.lightIsInk ? -1 : 1);
  constexpr float kBeyond = 0.3F;
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      const float pale = paper->levels(y, x);
      float range = pale - ink->levels(y, x);
      if (std::abs(range) < std::abs(least) || (range > 0) != (least > 0)) range = least;
      const float share = (pale - static_cast<float>(grey.at<std::uint8_t>(y, x))) / range;
      wanted.shares(y, x) = std::clamp(share, -kBeyond, 1 + kBeyond);
    }
  }
  wanted.steepness = steepnessOf(wanted.shares);
  return wanted;
}

}  // namespace rim::trace::contour
