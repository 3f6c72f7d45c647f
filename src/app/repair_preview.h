#pragma once

#include <optional>
#include <vector>

#include "core/geometry/path.h"

namespace rim::app {

/// What a repair would change, in upright pixels.
struct RepairPreview {
  std::vector<Path> comes;
  std::vector<Path> goes;
  std::optional<Point> most;  ///< where most would move

  bool empty() const { return comes.empty() && goes.empty(); }
};

}  // namespace rim::app
