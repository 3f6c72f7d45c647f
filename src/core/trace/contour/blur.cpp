#include "core/trace/contour/blur.h"

#include <algorithm>
#include <cmath>

#include "core/median.h"
#include "core/trace/contour/grey_level.h"

namespace rim::trace::contour {
namespace {

constexpr double kLeastContrast = 24;
constexpr double kMostBlurPx = 6;
/// So many places, spread evenly, show a median well enough.
constexpr std::size_t kPlaces = 4000;

/// The difference between the usual levels of ink and paper.
double contrastOf(const cv::Mat& grey, TwoTone tone) {
  std::vector<float> dark;
  std::vector<float> light;
  const int stride = std::max(1, static_cast<int>(std::sqrt(static_cast<double>(grey.total()) / 100'000)));
  for (int y = 0; y < grey.rows; y += stride) {
    for (int x = 0; x < grey.cols; x += stride) {
      const std::uint8_t level = grey.at<std::uint8_t>(y, x);
      (level < tone.threshold ? dark : light).push_back(level);
    }
  }
  return dark.empty() || light.empty() ? 0 : medianOf(std::move(light)) - medianOf(std::move(dark));
}

/// The blur under which an edge rises by `slope` of its height a px, on average from 1 px before its middle to 1 px
/// behind: half the error function of 1 / (sqrt(2) blur).
double blurFor(double slope) {
  double low = 0.05;
  double high = kMostBlurPx;
  constexpr int kHalvings = 40;
  for (int k = 0; k < kHalvings; ++k) {
    const double middle = (low + high) / 2;
    (std::erf(1 / (std::sqrt(2.0) * middle)) / 2 > slope ? low : high) = middle;
  }
  return low;
}

}  // namespace

double turningOf(const std::vector<Border>& borders) {
  constexpr double kChordPx = 3;
  constexpr double kSlight = 0.2;  // radians: what pixels make of a slanting edge
  double turning = 0;
  for (const Border& border : borders) {
    std::vector<Point> places;
    for (const Point p : border) {
      if (places.empty() || distance(places.back(), p) >= kChordPx) places.push_back(p);
    }
    const std::size_t n = places.size();
    for (std::size_t i = 0; n > 2 && i < n; ++i) {
      const Point before = places[(i + 1) % n] - places[i];
      const Point after = places[(i + 2) % n] - places[(i + 1) % n];
      if (length(before) > 0 && length(after) > 0)
        turning += std::max(0.0, std::abs(angleBetween(before, after)) - kSlight);
    }
  }
  return turning;
}

double blurOf(const cv::Mat& grey, TwoTone tone, const std::vector<Border>& borders) {
  const double contrast = contrastOf(grey, tone);
  if (contrast < kLeastContrast) return 0;
  std::size_t all = 0;
  for (const Border& border : borders) all += border.size();
  const std::size_t step = 1 + all / kPlaces;
  std::vector<float> slopes;
  std::size_t next = 0;  // of all points the one to look at
  std::size_t passed = 0;
  for (const Border& border : borders) {
    for (; next < passed + border.size(); next += step) {
      const std::size_t i = next - passed;
      const std::size_t n = border.size();
      const Point along = border[(i + 2) % n] - border[(i + n - 2) % n];
      if (length(along) <= 0) continue;
      const Point out = leftNormal(unit(along));
      const auto beyond = levelAt(grey, border[i] + out);
      const auto within = levelAt(grey, border[i] - out);
      if (beyond && within) slopes.push_back(static_cast<float>(std::abs(*beyond - *within) / 2 / contrast));
    }
    passed += border.size();
  }
  return slopes.empty() ? 0 : blurFor(medianOf(std::move(slopes)));
}

}  // namespace rim::trace::contour
