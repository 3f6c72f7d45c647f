#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "core/geometry/path.h"

namespace rim::app {

/// What a repair would change, in upright pixels.
struct RepairPreview {
  std::vector<Path> comes;
  std::vector<Path> goes;
  std::optional<Point> most;  ///< where most would move
  /// Axes of a symmetry, each by two places; the turns round a centre as arms from it.
  std::vector<std::pair<Point, Point>> axes{};

  /// Whether no outline would change.
  bool empty() const { return comes.empty() && goes.empty(); }
  /// Whether there is nothing to be painted at all.
  bool showsNothing() const { return empty() && !most && axes.empty(); }
};

}  // namespace rim::app
