#pragma once

#include <cstddef>
#include <functional>
#include <memory>
#include <vector>

#include "core/geometry/point.h"

namespace rim {

/// Boxes by place, in an R-tree (Boost.Geometry, packed when it is built: n log n).
class BoxIndex {
 public:
  explicit BoxIndex(const std::vector<Box>& boxes);
  ~BoxIndex();
  BoxIndex(BoxIndex&&) noexcept;

  /// Calls `visit` with the index of every box that comes within `reach` (>= 0) of `box`.
  void near(const Box& box, double reach, const std::function<void(std::size_t)>& visit) const;

  /// Calls `visit` with the index of every box that covers `box`.
  void covering(const Box& box, const std::function<void(std::size_t)>& visit) const;

  /// The indices of the `count` boxes nearest to p, nearest first.
  std::vector<std::size_t> nearest(Point p, std::size_t count) const;

 private:
  struct Tree;
  std::unique_ptr<Tree> tree_;
};

}  // namespace rim
