#pragma once

#include <cstddef>
#include <set>

#include "core/geometry/path.h"

namespace rim::refine {

/// A path with fewer nodes, and by how much it left what it was.
struct FittedAgain {
  Path path;
  double off = 0;  ///< the farthest that the one lies from the other, in the path's unit
  Point at;        ///< where that is
};

/// The path without some of its nodes (numbered as in refine/edit/nodes.h): what lies between two that stay becomes one
/// line, arc or cubic, the simplest that keeps the shape. Corners between straight lines cannot be kept; there the line
/// runs straight on. Of an open path's ends, what lay before or behind goes. Throws InputError when fewer nodes than
/// two (of a closed path: of lines three) would be left.
FittedAgain withoutNodes(const Path& path, const std::set<std::size_t>& nodes);

}  // namespace rim::refine
