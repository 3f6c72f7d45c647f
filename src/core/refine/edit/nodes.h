#pragma once

#include <cstddef>
#include <set>

#include "core/geometry/path_place.h"

/// What is done by hand to the nodes of one path. Node `i` is where segment `i` starts; an open path has one more, its
/// end. All lengths in the path's own unit. Numbers of nodes and segments that the path does not have are an
/// std::out_of_range.
namespace rim::refine {

Point nodeAt(const Path& path, std::size_t node);

/// The node nearest to a place.
std::size_t nearestNode(const Path& path, Point place);

/// The segments that end and start at a node; nothing at the ends of an open path.
std::optional<std::size_t> segmentBefore(const Path& path, std::size_t node);
std::optional<std::size_t> segmentAfter(const Path& path, std::size_t node);

/// Whether the path goes on at the node without a turn of more than a degree; the ends of an open path do not.
bool isSmooth(const Path& path, std::size_t node);

/// Some nodes moved: lines follow, arcs keep their sweep, cubics the handles beside what moves.
Path withNodesMoved(const Path& path, const std::set<std::size_t>& nodes, Point by);

/// A segment taken hold of at a place and pulled to another: a line moves with both its nodes, an arc bends through the
/// place, a cubic bends by both handles, each as much as it weighs there.
Path withSegmentPulled(const Path& path, const PathPlace& held, Point to);

/// The first or second handle of a cubic put somewhere else. With `keepSmooth` the other side of a smooth node turns
/// with it where that is a cubic.
Path withHandleAt(const Path& path, std::size_t segment, bool first, Point to, bool keepSmooth);

/// A node more, where the path is now; none where there is one already.
Path withNodeAt(const Path& path, const PathPlace& place);

/// Some segments made lines, arcs through their middles (a line becomes one of a sixth of a turn) or cubics of the same
/// course: an arc of more than 95 degrees becomes several, with nodes between.
Path withSegmentsAs(const Path& path, const std::set<std::size_t>& segments, SegmentKind kind);

/// The path without a turn at some nodes: beside a line the other side goes on along it; two others, which become
/// cubics, meet along the mean of both ways. Two lines become cubics, too. An end of an open path stays as it is.
Path smoothedAt(const Path& path, const std::set<std::size_t>& nodes);

/// The path with a corner at some nodes: the cubics beside them come straight from their other ends. Where none are
/// beside one, it stays as it is.
Path corneredAt(const Path& path, const std::set<std::size_t>& nodes);

/// How nodes are brought to one line.
enum class LineUp { Level, Upright, Slanting };

/// Some nodes (two or more) on one line: level or upright through the mean of all, or along the line from the first to
/// the last of them.
Path linedUp(const Path& path, const std::set<std::size_t>& nodes, LineUp how);

/// Some nodes (three or more) at even distances between the first and the last of them, in order along the path.
Path spreadEvenly(const Path& path, const std::set<std::size_t>& nodes);

}  // namespace rim::refine
