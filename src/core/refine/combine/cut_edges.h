#pragma once

#include <array>
#include <stop_token>
#include <vector>

#include "core/geometry/segment.h"
#include "core/refine/combine/arrangement.h"

namespace rim::refine {

/// A part of a ring's segment between two places where rings meet: monotone along x and y, crossing no other edge.
struct CutEdge {
  Piece piece;
  std::size_t from = 0;        ///< node that it starts at
  std::size_t to = 0;          ///< node that it ends at
  std::array<int, 2> turns{};  ///< how often A and B run along it, this way less the other way
  std::size_t ring = 0;        ///< what it is a part of
  std::size_t segment = 0;
  double begin = 0;  ///< share of that segment
  double end = 1;
};

struct CutRings {
  std::vector<Point> nodes;
  std::vector<CutEdge> edges;  ///< no two of them run along one line
};

/// Cuts rings where they meet themselves and each other. Parameters as in areaOutlines(). Throws Cancelled.
CutRings cutRings(const std::vector<Ring>& rings, double snap, const std::stop_token& stop);

}  // namespace rim::refine
