#include "core/trace/inks/ink_shares.h"

#include <algorithm>
#include <bit>
#include <optional>

#include "core/colour/mixture.h"

namespace rim::trace::inks {
namespace {

/// Pixels are mixed with inks that come so near to them.
constexpr int kReachPx = 2;
/// What a pure pixel may seem to be off by.
constexpr double kMostWaver = 0.15;

std::uint64_t inksWithin(const cv::Mat& labels, int x, int y, int reach) {
  std::uint64_t inks = 0;
  for (int row = std::max(0, y - reach); row <= std::min(labels.rows - 1, y + reach); ++row) {
    const auto* own = labels.ptr<std::uint8_t>(row);
    for (int column = std::max(0, x - reach); column <= std::min(labels.cols - 1, x + reach); ++column)
      inks |= std::uint64_t{1} << own[column];
  }
  return inks;
}

/// The grey level of a pixel for one ink: by what it covers more or less than the other one that covers most.
std::uint8_t levelOf(std::uint8_t ink, const cv::Vec3b& inks, const cv::Vec3f& covered) {
  constexpr float kScale = 90;
  float own = 0;
  std::optional<float> most;
  for (int k = 0; k < 3; ++k) {
    // The same ink again covers nothing.
    if (k > 0 && inks[k] == inks[0]) continue;
    if (inks[k] == ink) {
      own = covered[k];
    } else {
      most = std::max(most.value_or(covered[k]), covered[k]);
    }
  }
  const float level = static_cast<float>(InkShares::kEvenShares) - 0.5F - kScale * (own - most.value_or(0));
  return cv::saturate_cast<std::uint8_t>(level);
}

}  // namespace

InkShares::InkShares(const cv::Mat& bgr, const colour::InkMap& map)
    : inks_(bgr.size(), CV_8UC3), covered_(bgr.size(), CV_32FC3, cv::Scalar(1, 0, 0)) {
  const cv::Mat& labels = *map.labels;
  cv::merge(std::vector<cv::Mat>(3, labels), inks_);
  std::vector<colour::Rgb> colours;
  for (const colour::Ink& ink : map.inks) colours.push_back(ink.colour);
  const colour::Mixtures mixtures(colours);
  cv::parallel_for_({0, bgr.rows}, [&](const cv::Range& rows) {
    for (int y = rows.start; y < rows.end; ++y) {
      for (int x = 0; x < bgr.cols; ++x) {
        const std::uint64_t near = inksWithin(labels, x, y, kReachPx);
        if (std::popcount(near) == 1) continue;
        const std::uint64_t beside = inksWithin(labels, x, y, 1);
        const bool atBorder = std::popcount(beside) > 1;
        const colour::Blend blend =
            mixtures.blendOf(bgr.at<cv::Vec3b>(y, x), labels.at<std::uint8_t>(y, x), atBorder ? beside : near);
        // Away from its borders the pixel has the ink that was decided, whatever its colour is.
        const double least = atBorder ? -kMostWaver : 1 - kMostWaver;
        cv::Vec3b& inks = inks_.at<cv::Vec3b>(y, x);
        cv::Vec3f& covered = covered_.at<cv::Vec3f>(y, x);
        for (int k = 0; k < 3; ++k) {
          const auto at = static_cast<std::size_t>(k);
          inks[k] = static_cast<std::uint8_t>(blend.inks[at]);
          covered[k] = static_cast<float>(blend.covered[at]);
        }
        covered[0] = std::clamp(covered[0], static_cast<float>(least), static_cast<float>(1 + kMostWaver));
        if (blend.inks[2] == blend.inks[0]) covered[1] = 1 - covered[0];
      }
    }
  });
}

cv::Mat InkShares::levelsOf(std::uint8_t ink) const {
  cv::Mat levels(inks_.size(), CV_8U);
  for (int y = 0; y < levels.rows; ++y) {
    const auto* inks = inks_.ptr<cv::Vec3b>(y);
    const auto* covered = covered_.ptr<cv::Vec3f>(y);
    auto* level = levels.ptr<std::uint8_t>(y);
    for (int x = 0; x < levels.cols; ++x) {
      level[x] = levelOf(ink, inks[x], covered[x]);
    }
  }
  return levels;
}

}  // namespace rim::trace::inks
