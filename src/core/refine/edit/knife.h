#pragma once

#include <vector>

#include "core/drawing/drawing.h"

/// Cutting outlines in two along a straight line.
namespace rim::refine {

/// What an outline (by its place in the drawing) became; nothing where it is now a part of another one that was cut.
struct CutUp {
  std::size_t outline = 0;
  std::vector<Path> parts;
};

/// The outlines that a straight line from one place to another cuts. An area that it crosses from border to border
/// becomes two closed ones with the cut as a side of both; a hole that it crosses becomes a part of their borders.
/// Where it ends inside an area, or would only slit it, nothing is cut there. Open outlines are parted. Closed outlines
/// bound areas by the even-odd rule, each layer by itself. Lines, arcs and curves stay what they are. A cut that passes
/// a node by less than a millionth of its length goes through it. The cut has a length.
std::vector<CutUp> cutAlong(const Drawing& drawing, Point from, Point to);

}  // namespace rim::refine
