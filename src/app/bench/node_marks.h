#pragma once

#include <QPainterPath>
#include <vector>

#include "app/bench/viewport.h"
#include "core/geometry/path.h"

namespace rim::app {

/// A node as it is marked on the bench, upright px.
struct NodeMark {
  Point place;
  Point in;   ///< unit tangent arriving; (0, 0) at the start of an open outline
  Point out;  ///< unit tangent leaving; (0, 0) at the end of an open outline
  bool start = false;
};

/// The nodes of a path, in order; of an open one its end is the last.
std::vector<NodeMark> nodeMarksOf(const Path& path);

/// Adds a node's mark, in screen pixels: a chevron along both sides of a corner, a bar along the tangent of a smooth
/// node, a tick across where an outline starts.
void addMark(QPainterPath& marks, const NodeMark& node, const Viewport& viewport);

}  // namespace rim::app
