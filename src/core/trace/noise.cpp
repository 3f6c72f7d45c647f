#include "core/trace/noise.h"

#include "core/trace/moments.h"

namespace rim {
namespace {

constexpr std::size_t kLongWindow = 16;
constexpr std::size_t kShortWindow = 8;
/// So many windows, spread evenly, show a median well enough.
constexpr std::size_t kEnoughWindows = 40;
constexpr double kParameters = 3;  // of a circle
/// Slow waves make long windows see more than short ones, but hardly more than this many times.
constexpr double kMostWaves = 2;

/// Of so many points of the closed border, from index `first`; no more than it has.
Moments momentsOfWindow(const Border& border, std::size_t first, std::size_t window) {
  MomentSums sums(border[first]);
  const std::size_t end = std::min(first + window, border.size());
  for (std::size_t i = first; i < end; ++i) sums.add(border[i]);
  for (std::size_t i = 0; i < first + window - end; ++i) sums.add(border[i]);
  return sums.central();
}

/// The mean square that the best line or circle of points with these moments leaves over.
double leftOver(const Moments& m) {
  const double line = lineMeanSquare(m);
  return std::min(line, circleMeanSquare(m, line));
}

/// What the best circles or lines of all windows leave over, at its median.
double medianLeftOver(const Border& border, std::size_t window) {
  const std::size_t n = border.size();
  const std::size_t step = 1 + (n - 1) / kEnoughWindows;
  std::vector<double> variances;
  for (std::size_t i = 0; i < n; i += step) {
    const Moments m = momentsOfWindow(border, i, window);
    variances.push_back(leftOver(m) * m.count / (m.count - kParameters));
  }
  const auto middle = variances.begin() + static_cast<std::ptrdiff_t>(variances.size() / 2);
  std::nth_element(variances.begin(), middle, variances.end());
  return std::sqrt(*middle);
}

/// The median of what circles leave over long windows that are nearly straight; 0 when less than a
/// quarter of all are. Blocks of a JPEG move straight edges slowly, which short windows do not see.
double slowWaves(const Border& border) {
  constexpr std::size_t kWindow = 56;
  constexpr double kNearlyStraightPx = 0.15;
  const std::size_t n = border.size();
  if (n < 2 * kWindow) return 0;
  const std::size_t step = 1 + (n - 1) / kEnoughWindows;
  std::vector<double> variances;
  std::size_t windows = 0;
  for (std::size_t i = 0; i < n; i += step) {
    ++windows;
    const Moments m = momentsOfWindow(border, i, kWindow);
    if (lineMeanSquare(m) <= kNearlyStraightPx * kNearlyStraightPx) variances.push_back(leftOver(m));
  }
  if (4 * variances.size() < windows) return 0;
  const auto middle = variances.begin() + static_cast<std::ptrdiff_t>(variances.size() / 2);
  std::nth_element(variances.begin(), middle, variances.end());
  return std::sqrt(*middle);
}

}  // namespace

double noiseOf(const Border& border) {
  if (border.size() < kShortWindow) return 0;
  const double seenShort = kMostWaves * medianLeftOver(border, kShortWindow);
  if (border.size() < kLongWindow) return seenShort;
  return std::max(std::min(seenShort, medianLeftOver(border, kLongWindow)), slowWaves(border));
}

}  // namespace rim
