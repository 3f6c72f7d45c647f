#pragma once

#include <optional>
#include <vector>

#include "core/geometry/paths.h"

namespace rim {

/// What lies directly round each path.
struct Nesting {
  std::vector<std::optional<std::size_t>> parent;  ///< index of the closed path directly around; none: outermost
  std::vector<int> depth;                          ///< how many closed paths are around
};

/// The nesting of paths that do not cross; open paths have no parent and hold nothing. A path lies in another when a
/// place halfway along its first segment does, or, where that lies on the other's border, most of three such places.
Nesting nestingOf(const Paths& paths);

}  // namespace rim
