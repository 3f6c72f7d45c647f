#pragma once

#include <optional>
#include <vector>

#include "core/geometry/box_index.h"
#include "core/geometry/paths.h"
#include "core/geometry/segment.h"

namespace rim {

/// Finds the place of some paths that is nearest to another one. n log n to build; a copy of their segments is kept.
class NearestOnPaths {
 public:
  explicit NearestOnPaths(const Paths& paths) : index_(gathered(paths, pieces_)) {}

  const std::vector<Piece>& pieces() const { return pieces_; }

  /// The nearest place within `reach` (>= 0) of p; none: there is nothing.
  std::optional<Point> within(Point p, double reach) const;

  /// How far the nearest place is; infinite when there are no segments.
  double distanceTo(Point p) const;

 private:
  static std::vector<Box> gathered(const Paths& paths, std::vector<Piece>& pieces);

  std::vector<Piece> pieces_;
  BoxIndex index_;
};

}  // namespace rim
