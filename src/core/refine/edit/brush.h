#pragma once

#include <optional>
#include <vector>

#include "core/refine/edit/without_nodes.h"

/// What a sweep of the pointer does to a path. A sweep is the places that the brush passed and its radius, in the
/// path's unit.
namespace rim::refine {

struct Sweep {
  std::vector<Point> places;
  double radius = 0;
};

/// The path where a sweep passed it rebuilt from its sides outside the sweep: both are led on, lines straight and arcs
/// along their circles, until they meet. None when the sweep passed nothing of it, or so much that no sides are left.
std::optional<FittedAgain> corneredUnder(const Path& path, const Sweep& sweep);

/// The path where a sweep passed it made smooth: waves shorter than the brush go, and cubics follow what is left. It
/// leaves and meets the rest the way that this runs. None as above.
std::optional<FittedAgain> smoothedUnder(const Path& path, const Sweep& sweep);

}  // namespace rim::refine
