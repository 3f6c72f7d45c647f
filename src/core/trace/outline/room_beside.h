#pragma once

#include <vector>

#include "core/geometry/edge_grid.h"
#include "core/trace/contour/border.h"

namespace rim::trace::outline {

/// How much room borders have beside them: what lines that stay within 0.4 of it leave apart, since no two of them can
/// come as near to each other as their borders are.
class RoomBeside {
 public:
  /// The borders are looked at, not copied: they must outlive this. n in the number of points.
  explicit RoomBeside(const std::vector<contour::Border>& borders);

  /// For each point of border i how far a line may leave it there, px: 0.4 of the distance to the nearest strand that
  /// is another's or another stretch of its own, at most `mostPx`.
  std::vector<double> of(std::size_t i, double mostPx) const;

 private:
  const std::vector<contour::Border>& borders_;
  EdgeGrid grid_;
};

}  // namespace rim::trace::outline
