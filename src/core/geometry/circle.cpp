#include "core/geometry/circle.h"

#include <cmath>
#include <numbers>

#include "core/geometry/arc.h"
#include "core/geometry/segment.h"

namespace rim {

Path circlePathOf(Point centre, double radius, double turn) {
  const Point right = centre + Point{radius, 0};
  return {right, {Segment::arc(centre - Point{radius, 0}, turn), Segment::arc(right, turn)}, true};
}

std::optional<CircleOf> circleOf(const Path& closed) {
  if (!closed.closed || closed.segments.empty()) return {};
  std::optional<CircleOf> circle;
  double swept = 0;
  for (std::size_t i = 0; i < closed.segments.size(); ++i) {
    const Piece piece = pieceOf(closed, i);
    if (!isArc(piece.segment)) return {};
    const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
    if (!circle) circle = CircleOf{arc.centre, arc.radius};
    constexpr double kSame = 1e-6;
    const double near = kSame * std::max(1.0, arc.radius);
    if (distance(arc.centre, circle->centre) > near || std::abs(arc.radius - circle->radius) > near) return {};
    swept += arc.sweep;
  }
  constexpr double kWhole = 1e-6;
  return std::abs(std::abs(swept) - 2 * std::numbers::pi) < kWhole ? circle : std::nullopt;
}

}  // namespace rim
