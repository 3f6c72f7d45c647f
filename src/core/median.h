#pragma once

#include <algorithm>
#include <cstddef>
#include <vector>

namespace rim {

/// Half of a normal distribution lies within so many standard deviations.
inline constexpr double kMedianDeviation = 0.6745;

/// The median of one value or more; of an even number the upper one of the two in the middle.
template <typename Number>
Number medianOf(std::vector<Number> values) {
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

}  // namespace rim
