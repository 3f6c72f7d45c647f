#pragma once

#include "core/geometry/cubic.h"
#include "core/geometry/path.h"

namespace rim {

/// A segment with its start. Places along it are told by t, 0..1: of a line's length, of an arc's sweep, a cubic's
/// parameter.
struct Piece {
  Point start;
  Segment segment;
};

/// Segment `i` of the path with its start.
Piece pieceOf(const Path& path, std::size_t i);

bool isArc(const Segment& segment);
inline bool isLine(const Segment& segment) { return segment.kind == SegmentKind::Line; }
Cubic cubicOf(Point start, const Segment& segment);

Point pointAt(Point start, const Segment& segment, double t);

/// The unit tangent at t, in running direction.
Point tangentAt(Point start, const Segment& segment, double t);

/// The t of the place nearest to p; of cubics to about 1e-9 of their size.
double nearestOn(Point start, const Segment& segment, Point p);

/// The part of a segment from t = a to t = b, 0 <= a < b <= 1; it starts at pointAt(a).
Segment partOf(Point start, const Segment& segment, double a, double b);

/// The length along the segment. Lines and arcs exactly, cubics to a relative 1e-6 or better.
double lengthOf(Point start, const Segment& segment);

/// The tight box of the segment.
Box boxOf(Point start, const Segment& segment);

/// The segment run the other way; it starts at the old end.
Piece reversed(const Piece& piece);

inline Point pointAt(const Piece& piece, double t) { return pointAt(piece.start, piece.segment, t); }
inline Point tangentAt(const Piece& piece, double t) { return tangentAt(piece.start, piece.segment, t); }
inline double nearestOn(const Piece& piece, Point p) { return nearestOn(piece.start, piece.segment, p); }
inline double distanceTo(const Piece& piece, Point p) { return distance(pointAt(piece, nearestOn(piece, p)), p); }
inline double lengthOf(const Piece& piece) { return lengthOf(piece.start, piece.segment); }
inline Box boxOf(const Piece& piece) { return boxOf(piece.start, piece.segment); }

}  // namespace rim
