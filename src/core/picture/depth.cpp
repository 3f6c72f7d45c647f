#include "core/picture/depth.h"

#include <opencv2/imgproc.hpp>

#include "core/picture/tone.h"

namespace rim::picture {
namespace {

/// How much of a pixel is ink, less a half, for every grey level.
using Offsets = std::array<float, 256>;

Offsets offsetsFor(const InkLevels& levels) {
  Offsets offsets{};
  for (std::size_t level = 0; level < offsets.size(); ++level) {
    const double covered = (levels.light - static_cast<double>(level)) / (levels.light - levels.dark);
    offsets[level] = static_cast<float>(std::clamp(covered, 0.0, 1.0) - 0.5);
  }
  return offsets;
}

/// Distances from a pixel's middle to the middles round it, in a square of 2 `reach` + 1.
cv::Mat distancesAround(int reach) {
  cv::Mat distances(2 * reach + 1, 2 * reach + 1, CV_32FC1);
  for (int y = 0; y < distances.rows; ++y) {
    for (int x = 0; x < distances.cols; ++x)
      distances.at<float>(y, x) = static_cast<float>(std::hypot(x - reach, y - reach));
  }
  return distances;
}

/// What a strip of rows needs for finding the distances from all edge pixels near it.
struct Strip {
  const cv::Mat& grey;
  const Offsets& offsets;
  int inkLevel;           ///< the lightest grey level that is ink
  const cv::Mat& around;  ///< as distancesAround() gives
  cv::Range rows;
  cv::Mat toInk;    ///< of the rows only, CV_32FC1: how far the border of the ink is from a pixel in paper
  cv::Mat toPaper;  ///< and from a pixel in ink

  bool isInk(int y, int x) const { return grey.ptr<std::uint8_t>(y)[x] <= inkLevel; }

  bool isEdge(int y, int x) const {
    const bool ink = isInk(y, x);
    return (x > 0 && isInk(y, x - 1) != ink) || (x + 1 < grey.cols && isInk(y, x + 1) != ink) ||
           (y > 0 && isInk(y - 1, x) != ink) || (y + 1 < grey.rows && isInk(y + 1, x) != ink);
  }

  /// A pixel's coverage less a half; beyond the picture it goes on as at its edge.
  float offsetAt(int y, int x) const {
    return offsets[grey.at<std::uint8_t>(std::clamp(y, 0, grey.rows - 1), std::clamp(x, 0, grey.cols - 1))];
  }

  /// How deep an edge pixel's middle lies in the ink. Across a border, three pixels hold as much ink as
  /// lies within a px and a half on either side: that places it along the row or column, whichever
  /// crosses it more squarely, and its direction gives the distance.
  float middleInInk(int y, int x) const {
    const float here = offsetAt(y, x);
    const float left = offsetAt(y, x - 1);
    const float right = offsetAt(y, x + 1);
    const float above = offsetAt(y - 1, x);
    const float below = offsetAt(y + 1, x);
    const float dx = std::abs(right - left);
    const float dy = std::abs(below - above);
    if (dx + dy <= 0) return here;
    const float before = dx >= dy ? left : above;
    const float after = dx >= dy ? right : below;
    // Where both neighbours differ to one side it is a thin stroke with two borders.
    const bool crossed = (before - here) * (after - here) <= 0;
    return (crossed ? before + here + after : here) * std::max(dx, dy) / std::hypot(dx, dy);
  }

  /// Nothing round an edge pixel is farther from the border than it is from this pixel's part of it.
  void spread(int y, int x) {
    const int reach = around.rows / 2;
    const float offset = middleInInk(y, x);
    const int left = std::max(0, x - reach);
    const int count = std::min(grey.cols, x + reach + 1) - left;
    for (int to = std::max(rows.start, y - reach); to < std::min(rows.end, y + reach + 1); ++to) {
      const float* from = around.ptr<float>(to - y + reach) + (left - x + reach);
      float* ink = toInk.ptr<float>(to - rows.start) + left;
      float* paper = toPaper.ptr<float>(to - rows.start) + left;
      for (int i = 0; i < count; ++i) {
        ink[i] = std::min(ink[i], from[i] - offset);
        paper[i] = std::min(paper[i], from[i] + offset);
      }
    }
  }

  void spreadAll() {
    const int reach = around.rows / 2;
    for (int y = std::max(0, rows.start - reach); y < std::min(grey.rows, rows.end + reach); ++y) {
      for (int x = 0; x < grey.cols; ++x) {
        if (isEdge(y, x)) spread(y, x);
      }
    }
  }
};

}  // namespace

std::optional<InkLevels> inkLevelsOf(const cv::Mat& grey) {
  const auto threshold = otsuThreshold(histogramOf(grey));
  if (!threshold) return std::nullopt;
  const cv::Mat ink = grey < *threshold;
  return InkLevels{cv::mean(grey, ink)[0], cv::mean(grey, ~ink)[0]};
}

cv::Mat depthNearBorder(const cv::Mat& grey, double reachPx) {
  const auto levels = inkLevelsOf(grey);
  if (!levels) return {};
  const Offsets offsets = offsetsFor(*levels);
  // An edge pixel's middle is up to half a pixel from the border, its neighbours' up to one more.
  const int reach = static_cast<int>(std::ceil(std::clamp(reachPx, 0.0, 60.0))) + 1;
  const cv::Mat around = distancesAround(reach);
  const int inkLevel = static_cast<int>(std::floor(levels->middle()));
  const auto beyond = static_cast<float>(reach + 1);
  cv::Mat depth(grey.size(), CV_32FC1);
  constexpr int kRows = 64;
  cv::parallel_for_(cv::Range(0, (grey.rows + kRows - 1) / kRows), [&](const cv::Range& strips) {
    for (int s = strips.start; s < strips.end; ++s) {
      const cv::Range rows(s * kRows, std::min(grey.rows, (s + 1) * kRows));
      const cv::Mat far(rows.size(), grey.cols, CV_32FC1, cv::Scalar(beyond));
      Strip strip{grey, offsets, inkLevel, around, rows, far, far.clone()};
      strip.spreadAll();
      for (int y = rows.start; y < rows.end; ++y) {
        const float* toInk = strip.toInk.ptr<float>(y - rows.start);
        const float* toPaper = strip.toPaper.ptr<float>(y - rows.start);
        float* to = depth.ptr<float>(y);
        for (int x = 0; x < grey.cols; ++x) to[x] = strip.isInk(y, x) ? toPaper[x] : -toInk[x];
      }
    }
  });
  return depth;
}

cv::Mat inkAtDepth(const cv::Mat& depth, double px) {
  constexpr double kWhite = 255;
  cv::Mat grey;
  // Half a pixel beyond the border on either side a pixel is all ink or all paper.
  depth.convertTo(grey, CV_8UC1, -kWhite, kWhite * (0.5 - px));
  return grey;
}

}  // namespace rim::picture
