#pragma once

#include <cstddef>
#include <vector>

#include "core/geometry/point.h"

namespace rim {

enum class SegmentKind { Line, Arc, Cubic };

/// One piece of a path. It starts where the piece before it ends.
struct Segment {
  SegmentKind kind = SegmentKind::Line;
  Point end;
  /// Arc only: tan of a quarter of the swept angle, positive counter-clockwise, as group code 42
  /// of a DXF polyline. A half circle has bulge 1; the magnitude is kStraightBulge or more, and below 1000.
  double bulge = 0;
  /// Cubic only: the two Bezier handles.
  Point handle1;
  Point handle2;

  /// What bulges less leaves its chord by less than a ten-millionth of it; it has no centre that could be told.
  static constexpr double kStraightBulge = 1e-7;

  static Segment line(Point end) { return {SegmentKind::Line, end, 0, {}, {}}; }
  /// An arc; a line when it is straight.
  static Segment arc(Point end, double bulge) {
    if (bulge > -kStraightBulge && bulge < kStraightBulge) return line(end);
    return {SegmentKind::Arc, end, bulge, {}, {}};
  }
  static Segment cubic(Point handle1, Point handle2, Point end) {
    return {SegmentKind::Cubic, end, 0, handle1, handle2};
  }
  friend bool operator==(const Segment&, const Segment&) = default;
};

/// A start point and segments. `closed` is a fact of the path, never guessed from coordinates;
/// the last segment of a closed path ends exactly at `start`.
struct Path {
  Point start;
  std::vector<Segment> segments;
  bool closed = false;

  friend bool operator==(const Path&, const Path&) = default;
};

/// The start point of segment `i` of the path.
Point segmentStart(const Path& path, std::size_t i);

/// Where the path ends: its start, when it has no segment.
Point endOf(const Path& path);

/// Goes on by a line from where the path ends to a place, unless that is there already (within 1e-9).
void lineOnTo(Path& path, Point to);

/// Unit tangents where the segment, coming from `start`, begins and ends.
Point startTangent(Point start, const Segment& segment);
Point endTangent(Point start, const Segment& segment);

/// The number of nodes: as many as segments on a closed path, one more on an open one.
std::size_t nodeCount(const Path& path);

/// The area inside a closed path, in squared units, positive when it runs counter-clockwise.
/// Exact for lines, arcs and cubics (Green's theorem). An open path is taken as closed by a line.
double signedArea(const Path& path);

/// The length along the path. Lines and arcs exactly, cubics to a relative 1e-6 or better.
double pathLength(const Path& path);

/// The tight box of the path: extremes of arcs and cubics are found exactly.
Box boxOf(const Path& path);

/// Puts the segments of `more` behind those of `path`, which must end where `more` starts.
void append(Path& path, const Path& more);

/// The same path run the other way round.
Path reversed(const Path& path);

/// A closed path begun at another of its nodes, the start of segment `node`.
Path begunAt(Path closed, std::size_t node);

/// The closed path of lines through some corners (one or more).
Path polygonThrough(const std::vector<Point>& corners);

/// Every coordinate times `factor` (> 0), then moved by `offset`.
Path scaled(const Path& path, double factor, Point offset = {});

}  // namespace rim
