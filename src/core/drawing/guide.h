#pragma once

#include <cstddef>

namespace rim {

/// A straight line across everything that places are brought to. It is no part of a drawing and is never cut.
struct Guide {
  bool upright = false;  ///< else level
  double at = 0;         ///< its x, or its y when it is level; in the frame of what it lies over

  friend bool operator==(const Guide&, const Guide&) = default;
};

/// So many guides a job has at most.
inline constexpr std::size_t kMostGuides = 200;

}  // namespace rim
