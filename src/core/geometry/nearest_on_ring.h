#pragma once

#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/geometry/point.h"

namespace rim {

/// A closed polyline, asked for how near it comes to places: by the cells of a grid, so that asking for all places
/// along a line beside it takes a time that grows linearly with them.
class NearestOnRing {
 public:
  struct Nearest {
    std::size_t index = 0;  ///< of the point that the nearest edge begins or ends with
    double off = 0;         ///< distance, in the points' unit
  };

  /// The points are looked at, not copied: they must outlive this. Needs one or more, no farther apart than a few
  /// `cell` (> 0), the width of a cell; cells are wider where points are few for the room they take.
  NearestOnRing(const std::vector<Point>& ring, double cell);

  Nearest nearest(Point p) const;

  /// Whether the ring comes within `reach` of p. Asked in running order for places along a line beside the ring, it
  /// finds the answer near where it found the last one, which `hint` keeps: an index, begun with any.
  bool comesWithin(Point p, double reach, std::size_t& hint) const;

 private:
  /// A point of an edge that comes within `reach` of p.
  std::optional<std::size_t> firstWithin(Point p, double reach) const;
  int column(Point p) const;
  int row(Point p) const;
  std::size_t cellAt(int x, int y) const;
  void lookAt(std::uint32_t i, Point p, Nearest& best) const;

  const std::vector<Point>& ring_;
  Box box_;
  double cell_;
  double longestEdge_ = 0;
  int columns_ = 1;
  int rows_ = 1;
  std::vector<std::uint32_t> begin_;  ///< where each cell's points begin in `held_`, and the end
  std::vector<std::uint32_t> held_;
};

}  // namespace rim
