#pragma once

#include <optional>
#include <span>

#include "core/geometry/point.h"

namespace rim::trace::fit {

/// A straight line or a circle, both without ends, with the direction in which a border runs
/// along it. Upright pixels.
struct Primitive {
  enum class Kind { Line, Circle };
  Kind kind = Kind::Line;
  Point place;        ///< Line: a point on it. Circle: its centre.
  Point direction;    ///< Line: unit vector along it.
  double radius = 0;  ///< Circle: positive when run counter-clockwise, negative clockwise.
};

/// Whether it is a line, not a circle.
inline bool isLine(const Primitive& primitive) { return primitive.kind == Primitive::Kind::Line; }

/// The line with the least squared distances (principal axis of the points), along the way from
/// the first to the last. Needs two different points.
Primitive fitLine(std::span<const Point> points);

/// The circle that fits the points (trace/fit/moments.h), or nothing when there is none.
std::optional<Primitive> fitCircle(std::span<const Point> points);

/// The nearest point of the primitive.
Point project(const Primitive& primitive, Point p);

/// Unit tangent, in running direction, at the primitive's point nearest to p.
Point tangentAt(const Primitive& primitive, Point p);

/// Of the points that both have in common the one nearest to `near`; nothing if they do not meet.
std::optional<Point> meetingPoint(const Primitive& a, const Primitive& b, Point near);

}  // namespace rim::trace::fit
