#pragma once

#include <functional>
#include <stop_token>
#include <vector>

#include "core/geometry/path.h"

namespace rim::refine {

/// A closed path that bounds areas by how often it winds round them, on one of two sides (0: A, 1: B).
struct Ring {
  Path path;
  int side = 0;
  std::size_t source = 0;  ///< the caller's number for it
};

/// An outline of an area, which lies at its left: outer borders run counter-clockwise, holes clockwise.
struct AreaOutline {
  Path path;
  std::size_t source = 0;  ///< of the ring that most of its length came from
};

/// Whether a place belongs to the area, by how often the rings of A and of B wind round it (counter-clockwise
/// positive).
using Holds = std::function<bool(int windingA, int windingB)>;

/// The outlines of the area that rings bound, for any boolean of areas and for offsets.
///
/// All segments are cut where they meet and put together again along what bounds the area: an arrangement of curves,
/// whose faces are told by winding numbers (the published way of E. Berberich, E. Fogel, D. Halperin, K. Mehlhorn and
/// R. Wein, "Arrangements on parametric surfaces I", Mathematics in Computer Science 4 (2010), 45-66; here every edge
/// asks for its own winding number along a ray, so that one wrong answer spoils one edge). Lines stay lines, arcs arcs
/// and cubics parts of the same cubics; what was cut and is not needed cut becomes one segment again. Nodes nearer than
/// `snap` (> 0, in the paths' unit) are one; edges nearer than twenty of it all along are one line. Outlines that meet
/// in a node only are apart. Throws Cancelled.
std::vector<AreaOutline> areaOutlines(const std::vector<Ring>& rings, const Holds& holds, double snap = 1e-6,
                                      const std::stop_token& stop = {});

}  // namespace rim::refine
