#pragma once

#include <optional>
#include <vector>

#include "core/geometry/box_index.h"
#include "core/geometry/paths.h"
#include "core/geometry/point_in_polygon.h"

namespace rim {

/// The closed paths round others, worked out one by one. A path lies in another when a place halfway along its first
/// segment does, or, where that lies on the other's border, most of three such places; of two in one place the later
/// one lies in the other.
class Surroundings {
 public:
  /// The paths are kept by reference; the boxes are theirs.
  explicit Surroundings(const Paths& paths);
  Surroundings(const Paths& paths, std::vector<Box> boxes);

  /// The closed paths (indices) whose box covers that of a closed path; no place is looked at. In any order.
  std::vector<std::size_t> mayBeRound(std::size_t path) const;
  /// The closed paths round a closed path; none round an open one. In any order.
  std::vector<std::size_t> of(std::size_t path);
  /// That directly round it: the smallest.
  std::optional<std::size_t> parentAmong(const std::vector<std::size_t>& round);

 private:
  Surroundings(Paths&&) = delete;
  Surroundings(Paths&&, std::vector<Box>) = delete;
  double areaOf(std::size_t path);

  const Paths& paths_;
  std::vector<Box> boxes_;
  std::vector<std::size_t> closed_;
  BoxIndex index_;  // of the closed ones
  std::vector<std::optional<PointInPolygon>> insides_;
  std::vector<std::optional<double>> areas_;
};

/// What lies directly round each path.
struct Nesting {
  std::vector<std::optional<std::size_t>> parent;  ///< index of the closed path directly around; none: outermost
  std::vector<int> depth;                          ///< how many closed paths are around
};

/// The nesting of paths that do not cross; open paths have no parent and hold nothing.
Nesting nestingOf(const Paths& paths);

/// The outermost path round one, or that itself.
std::size_t outermostRound(const Nesting& nesting, std::size_t path);

}  // namespace rim
