#include "core/trace/contour/noise.h"

#include "core/median.h"
#include "core/trace/fit/moments.h"

namespace rim::trace::contour {
namespace {

constexpr std::size_t kLongWindow = 16;
constexpr std::size_t kShortWindow = 8;
constexpr std::size_t kLongestWindow = 56;
constexpr double kNearlyStraightPx = 0.15;
/// So many windows, spread evenly, show a median well enough.
constexpr std::size_t kEnoughWindows = 40;
constexpr double kParameters = 3;  // of a circle
/// Slow waves make long windows see more than short ones, but hardly more than this many times.
constexpr double kMostWaves = 2;

/// The mean square that the best line or circle of points with these moments leaves over.
double leftOver(const fit::Moments& m) {
  const double line = fit::lineMeanSquare(m);
  return std::min(line, fit::circleMeanSquare(m, line));
}

/// Points of the closed border that begin at one of them and become more.
class Window {
 public:
  Window(const Border& border, std::size_t first) : border_(border), next_(first), sums_(border[first]) {}

  /// The moments of `count` points, no fewer than before and no more than the border has.
  fit::Moments of(std::size_t count) {
    const std::size_t n = border_.size();
    for (; held_ < count; ++held_) {
      sums_.add(border_[next_]);
      next_ = next_ + 1 < n ? next_ + 1 : 0;
    }
    return sums_.central();
  }

 private:
  const Border& border_;
  std::size_t next_;
  std::size_t held_ = 0;
  fit::MomentSums sums_;
};

/// What lines and circles leave over of windows all round a border: mean squares.
struct LeftOvers {
  std::vector<double> shorter, longer;  ///< as variances
  std::vector<double> straight;         ///< of the longest windows, those that are nearly straight
  std::size_t windows = 0;
};

LeftOvers leftOversOf(const Border& border) {
  const auto variance = [](const fit::Moments& m) { return leftOver(m) * m.count / (m.count - kParameters); };
  const std::size_t n = border.size();
  const std::size_t step = 1 + (n - 1) / kEnoughWindows;
  LeftOvers all;
  for (std::size_t i = 0; i < n; i += step) {
    ++all.windows;
    Window window(border, i);
    all.shorter.push_back(variance(window.of(kShortWindow)));
    if (n >= kLongWindow) all.longer.push_back(variance(window.of(kLongWindow)));
    if (n < 2 * kLongestWindow) continue;
    const fit::Moments longest = window.of(kLongestWindow);
    if (fit::lineMeanSquare(longest) <= kNearlyStraightPx * kNearlyStraightPx)
      all.straight.push_back(leftOver(longest));
  }
  return all;
}

/// The median of what circles leave over of the longest windows that are nearly straight; 0 when less than a
/// quarter of all are. Blocks of a JPEG move straight edges slowly, which short windows do not see.
double slowWaves(const LeftOvers& all) {
  if (all.straight.empty() || 4 * all.straight.size() < all.windows) return 0;
  return std::sqrt(medianOf(all.straight));
}

}  // namespace

double noiseOf(const Border& border) {
  if (border.size() < kShortWindow) return 0;
  const LeftOvers all = leftOversOf(border);
  const double seenShort = kMostWaves * std::sqrt(medianOf(all.shorter));
  if (border.size() < kLongWindow) return seenShort;
  return std::max(std::min(seenShort, std::sqrt(medianOf(all.longer))), slowWaves(all));
}

}  // namespace rim::trace::contour
