#pragma once

#include <functional>
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

  /// Calls `visit` with the index into pieces() of every one whose box comes within `reach` (>= 0) of `box`.
  void near(const Box& box, double reach, const std::function<void(std::size_t)>& visit) const {
    index_.near(box, reach, visit);
  }

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
