#pragma once

#include <cstddef>
#include <set>
#include <vector>

#include "core/geometry/path_place.h"

/// What is done by hand to the ends of paths: opened, closed, parted, joined, turned round. Nodes and segments are
/// numbered as in refine/edit/nodes.h; all lengths in the paths' own unit.
namespace rim::refine {

/// A closed path opened at a node; an open one parted there. At the end of an open path it stays as it is.
std::vector<Path> partedAt(const Path& path, std::size_t node);

/// What is left of the path without some of its segments, open paths in order along it; a closed one is open there.
std::vector<Path> withoutSegments(const Path& path, const std::set<std::size_t>& segments);

/// An end of an open path.
enum class PathEnd { Start, End };
Point placeOf(const Path& path, PathEnd end);

/// Two open paths made one: where these ends lie apart by more than `closeBy` a line goes between, else both come to
/// the place between them. It runs as the first one does.
Path joined(const Path& first, PathEnd ofFirst, const Path& second, PathEnd ofSecond, double closeBy);

/// An open path closed in the same way.
Path closedUp(const Path& path, double closeBy);

/// Two ends led on until they meet: lines along themselves, arcs along their circles, cubics along their last way;
/// where both go on into each other without a corner, a bridge of one cubic. It runs as the first one does.
Path met(const Path& first, PathEnd ofFirst, const Path& second, PathEnd ofSecond);

/// The same with both ends of one open path, which is closed by it.
Path metItself(const Path& path);

/// A closed path that begins at another of its nodes; an open one stays as it is.
Path startingAt(const Path& path, std::size_t node);

}  // namespace rim::refine
