#pragma once

#include <cstddef>
#include <span>
#include <utility>
#include <vector>

#include "core/trace/contour/border.h"

namespace rim::trace::split {

/// A border with the arc length to each of its points. A closed one starts wherever it is
/// told to; its last point is its first once more, so ranges never have to wrap round.
class Track {
 public:
  /// `border` needs three points or more; `start` is the index that becomes 0.
  Track(const contour::Border& border, std::size_t start);

  /// A border that does not close: two points or more, from one end to the other.
  static Track open(std::vector<Point> points);

  bool closed() const { return closed_; }

  /// The index of the last point, which equals point 0.
  std::size_t last() const { return points_.size() - 1; }
  Point point(std::size_t i) const { return points_[i]; }

  /// The arc length from point 0 to point i, px.
  double arcLength(std::size_t i) const { return arcLengths_[i]; }
  double length() const { return arcLengths_.back(); }

  /// The first index at least `way` pixels along; last() when there is none.
  std::size_t indexAt(double way) const;

  /// The first index, `i` or a later one, at least `px` along from i; last() when there is none. For short stretches:
  /// it is looked for point by point.
  std::size_t indexBeyond(std::size_t i, double px) const;

  /// The points from index `from` up to, not including, `end`.
  std::span<const Point> points(std::size_t from, std::size_t end) const { return {&points_[from], end - from}; }

  /// The range of indexes, its end not included, of the points from i to j that lie `trimPx` of
  /// the way or more from both; at least two points, if need be i and j themselves.
  std::pair<std::size_t, std::size_t> within(std::size_t i, std::size_t j, double trimPx) const;

  /// The least distance from p to the border, taken straight from point to point, at most `reachPx` of the way off
  /// index i.
  double distanceNear(std::size_t i, double reachPx, Point p) const;

  /// At most `most` points spread evenly over the points from index i to j, both included where
  /// possible, after leaving out the trims at both ends, in px of the way. When less than two points
  /// are left, the trims are given up bit by bit. `out` is overwritten.
  void sample(std::size_t i, std::size_t j, double trimStart, double trimEnd, std::size_t most,
              std::vector<Point>& out) const;

 private:
  Track() = default;

  std::vector<Point> points_;
  std::vector<double> arcLengths_;
  bool closed_ = true;
};

}  // namespace rim::trace::split
