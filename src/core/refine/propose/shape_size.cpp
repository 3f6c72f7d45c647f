#include "core/refine/propose/shape_size.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/error.h"
#include "core/geometry/affine.h"
#include "core/geometry/arc.h"
#include "core/geometry/circle.h"
#include "core/geometry/segment.h"
#include "core/refine/edit/shapes.h"

namespace rim::refine {
namespace {

constexpr double kSimilarMm = 1e-9;  // similarities approximate nothing

/// A shape in the frame of its own axes, its middle at 0, 0.
struct InFrame {
  Path path;
  Affine back;  ///< to where it was
  Box box;
};

bool isOneNumber(TrueUpKind kind) { return kind == TrueUpKind::Circle || kind == TrueUpKind::Polygon; }

bool isShape(TrueUpKind kind) {
  return isOneNumber(kind) || kind == TrueUpKind::Ellipse || kind == TrueUpKind::Rectangle ||
         kind == TrueUpKind::RoundedRectangle || kind == TrueUpKind::Slot;
}

Point middleOfNodes(const Path& path) {
  Point sum;
  for (const Segment& s : path.segments) sum = sum + s.end;
  return sum * (1 / static_cast<double>(path.segments.size()));
}

/// The direction of one of the two axes: that of the longest side; of an ellipse that from its middle to a node.
Point axisOf(const Path& path) {
  Point axis{1, 0};
  double longest = 0;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Piece piece = pieceOf(path, i);
    if (piece.segment.kind != SegmentKind::Line || lengthOf(piece) <= longest) continue;
    longest = lengthOf(piece);
    axis = unit(piece.segment.end - piece.start);
  }
  if (longest > 0) return axis;
  const Box box = boxOf(path);
  return unit(path.start - lerp(box.low, box.high, 0.5));
}

InFrame inFrame(const Path& path) {
  const Point axis = axisOf(path);
  const double quarter = std::numbers::pi / 2;
  const double angle = std::remainder(std::atan2(axis.y, axis.x), quarter);
  Path level = transformed(path, rotation(-angle), kSimilarMm);
  const Box box = boxOf(level);
  const Point middle = lerp(box.low, box.high, 0.5);
  level = scaled(level, 1, {-middle.x, -middle.y});
  return {level, rotation(angle) * shift(middle), boxOf(level)};
}

/// The radius of the round corners of a rectangle.
double roundingOf(const Path& path) {
  double radius = 0;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Piece piece = pieceOf(path, i);
    if (piece.segment.kind == SegmentKind::Arc)
      radius = std::max(radius, arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge).radius);
  }
  return radius;
}

/// A box with round corners about 0, 0 that runs the way of the old one.
Path roundAbout(const Path& old, double wide, double high, double radius) {
  if (2 * radius > std::min(wide, high)) throw InputError("that is less than the round corners need.");
  const Path made = roundedBox({{-wide / 2, -high / 2}, {wide / 2, high / 2}}, radius);
  return signedArea(made) * signedArea(old) < 0 ? reversed(made) : made;
}

/// A slot keeps its direction, and half circles for ends.
Path slotOf(const InFrame& slot, double wide, double high) {
  if (wide == high || (wide > high) != (slot.box.width() > slot.box.height()))
    throw InputError("a slot is longer than it is wide.");
  return roundAbout(slot.path, wide, high, std::min(wide, high) / 2);
}

}  // namespace

std::optional<ShapeSize> sizeOf(TrueUpKind kind, const Path& exact) {
  if (!isShape(kind) || exact.segments.empty()) return {};
  if (kind == TrueUpKind::Circle) {
    const auto circle = circleOf(exact);
    if (!circle) return {};
    return ShapeSize{2 * circle->radius, 2 * circle->radius, true};
  }
  if (kind == TrueUpKind::Polygon) {
    const double across = 2 * distance(middleOfNodes(exact), exact.start);
    return ShapeSize{across, across, true};
  }
  const Box box = inFrame(exact).box;
  return ShapeSize{box.width(), box.height(), false};
}

Path withSize(TrueUpKind kind, const Path& exact, ShapeSize size) {
  const auto now = sizeOf(kind, exact);
  if (!now) return exact;
  if (now->one) size.high = size.wide;
  if (!(size.wide > 0) || !(size.high > 0)) throw InputError("a size is more than 0.");
  if (now->one) {
    const Point middle = kind == TrueUpKind::Circle ? circleOf(exact)->centre : middleOfNodes(exact);
    const double factor = size.wide / now->wide;
    return transformed(exact, about(middle, scale(factor, factor)), kSimilarMm);
  }
  const InFrame own = inFrame(exact);
  Path made;
  if (kind == TrueUpKind::Slot) {
    made = slotOf(own, size.wide, size.high);
  } else if (kind == TrueUpKind::RoundedRectangle) {
    made = roundAbout(own.path, size.wide, size.high, roundingOf(own.path));
  } else {
    made = transformed(own.path, scale(size.wide / now->wide, size.high / now->high), kSimilarMm);
  }
  return transformed(made, own.back, kSimilarMm);
}

bool nearlyOneSize(const ShapeSize& a, const ShapeSize& b) {
  constexpr double kShare = 0.1;
  const auto near = [](double x, double y) { return std::abs(x - y) <= kShare * std::max(x, y); };
  return a.one == b.one && near(a.wide, b.wide) && near(a.high, b.high);
}

}  // namespace rim::refine
