#pragma once

#include <algorithm>
#include <cstddef>
#include <vector>

namespace rim {

/// Half of a normal distribution lies within so many standard deviations.
inline constexpr double kMedianDeviation = 0.6745;

/// Of one value or more the one below which this share (0..1) of the others lies.
template <typename Number>
Number quantileOf(std::vector<Number> values, double share) {
  const auto at = values.begin() + static_cast<std::ptrdiff_t>(share * static_cast<double>(values.size()));
  const auto place = std::min(at, values.end() - 1);
  std::nth_element(values.begin(), place, values.end());
  return *place;
}

/// The median of one value or more; of an even number the upper one of the two in the middle.
template <typename Number>
Number medianOf(std::vector<Number> values) {
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

}  // namespace rim
