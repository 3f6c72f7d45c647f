#pragma once

#include <vector>

#include "core/drawing/drawing.h"
#include "core/geometry/path_place.h"

/// Taking away what runs on between two crossings.
namespace rim::refine {

/// Where an outline (by its place in the drawing) meets others or itself, in order along it, each place once. Nodes
/// where it only goes on do not count.
std::vector<PathPlace> meetingPlaces(const Drawing& drawing, std::size_t outline);

/// An outline with a stretch of it taken out.
struct Trimmed {
  Path taken;              ///< the stretch; closed when it is all of a closed outline
  std::vector<Path> left;  ///< what stays, open, in order along it
};

/// The stretch that a place of the path lies on, between the nearest of some other places of it (as meetingPlaces()
/// gives them) to either side, or its end; all of it where there is nothing to end at.
Trimmed trimmedAt(const Path& path, const std::vector<PathPlace>& meetings, const PathPlace& at);

}  // namespace rim::refine
