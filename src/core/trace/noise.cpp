#include "core/trace/noise.h"

#include <span>

#include "core/trace/moments.h"

namespace rim {
namespace {

constexpr std::size_t kWindow = 16;
constexpr std::size_t kMostWindows = 500;
constexpr double kParameters = 3;  // of a circle

}  // namespace

double noiseOf(const Border& border) {
  const std::size_t n = border.size();
  const std::size_t window = std::min(kWindow, n);
  if (window < 6) return 0;
  const std::size_t step = std::max<std::size_t>(1, n / kMostWindows);
  std::vector<double> variances;
  for (std::size_t i = 0; i < n; i += step) {
    MomentSums sums(border[i]);
    for (std::size_t k = 0; k < window; ++k) sums.add(border[(i + k) % n]);
    const Moments m = sums.central();
    const auto circle = circleFrom(m);
    const double left = circle ? std::min(circle->meanSquare, lineMeanSquare(m)) : lineMeanSquare(m);
    variances.push_back(left * m.count / (m.count - kParameters));
  }
  const auto middle = variances.begin() + static_cast<std::ptrdiff_t>(variances.size() / 2);
  std::nth_element(variances.begin(), middle, variances.end());
  return std::sqrt(*middle);
}

}  // namespace rim
