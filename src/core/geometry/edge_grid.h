#pragma once

#include <cstddef>
#include <cstdint>
#include <span>
#include <stop_token>
#include <vector>

#include "core/error.h"
#include "core/geometry/point.h"

namespace rim {

using Polyline = std::vector<Point>;

/// An edge of a closed polyline.
struct Edge {
  Point a, b;
  std::uint32_t polyline = 0;  ///< index
  std::uint32_t index = 0;     ///< of the edge, in its polyline; from its point to the next
};

/// Whether `q` is the edge after `p` in a polyline of `count` edges.
inline bool follows(const Edge& q, const Edge& p, std::size_t count) {
  return p.polyline == q.polyline && (p.index + 1 < count ? p.index + 1 == q.index : q.index == 0);
}

/// Whether two edges cross or have a point in common.
bool touch(const Edge& p, const Edge& q);

/// The edges of closed polylines sorted into cells about as wide as an edge is long, so that those near each other are
/// found in a time that grows linearly with their number as long as they are spread out.
class EdgeGrid {
 public:
  /// `margin` (>= 0): edges are also held by the cells that lie this far beside them.
  EdgeGrid(const std::vector<Polyline>& closed, double margin);

  /// Calls visit(p, q) for all pairs of edges that share a cell, more than once when they share several. Edges whose
  /// boxes lie more than twice the margin apart may be among them. Throws Cancelled when `stop` is requested.
  template <typename Visit>
  void forEachPair(const std::stop_token& stop, Visit visit) const {
    for (std::size_t cell = 0; cell + 1 < begin_.size(); ++cell) {
      if (cell % 4096 == 0 && stop.stop_requested()) throw Cancelled();
      const std::span<const std::uint32_t> held(held_.data() + begin_[cell], begin_[cell + 1] - begin_[cell]);
      for (std::size_t i = 0; i < held.size(); ++i) {
        for (std::size_t j = i + 1; j < held.size(); ++j) {
          if (held[i] != held[j]) visit(edges_[held[i]], edges_[held[j]]);
        }
      }
    }
  }

  /// Calls visit(edge) for all edges that share the cell of a point: at least those within the margin of it.
  template <typename Visit>
  void forEachNear(Point p, Visit visit) const {
    if (begin_.empty()) return;
    const std::size_t cell = cellAt(p);
    for (std::uint32_t i = begin_[cell]; i < begin_[cell + 1]; ++i) visit(edges_[held_[i]]);
  }

 private:
  std::size_t cellAt(Point p) const;

  Point origin_;
  double perCell_ = 1;
  std::size_t columns_ = 1;
  std::size_t rows_ = 1;
  std::vector<Edge> edges_;
  std::vector<std::uint32_t> begin_;  ///< where each cell's edges begin in `held_`, and the end
  std::vector<std::uint32_t> held_;
};

}  // namespace rim
