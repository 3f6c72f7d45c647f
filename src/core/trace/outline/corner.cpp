#include "core/trace/outline/corner.h"

namespace rim::trace::outline {
namespace {

/// One side as a function of one number: a cubic's parameter, or px along a line or circle.
class Way {
 public:
  Way(const CornerSide& side, bool before, Point near)
      : side_(side), origin_(side.cubic ? (before ? 1.0 : 0.0) : 0.0), anchor_(fit::project(side.primitive, near)) {}

  double begin() const { return origin_; }

  Point at(double t) const {
    if (side_.cubic) return pointOn(*side_.cubic, t);
    if (side_.primitive.kind == fit::Primitive::Kind::Line) return anchor_ + side_.primitive.direction * t;
    return fit::project(side_.primitive, anchor_ + fit::tangentAt(side_.primitive, anchor_) * t);
  }

  Point slope(double t) const {
    return side_.cubic ? derivative(*side_.cubic, t) : fit::tangentAt(side_.primitive, at(t));
  }

  bool tooFar(double t) const {
    constexpr double kMostOfCubic = 0.25;
    constexpr double kMostPx = 20;
    return std::abs(t - origin_) > (side_.cubic ? kMostOfCubic : kMostPx);
  }

 private:
  const CornerSide& side_;
  double origin_;
  Point anchor_;
};

}  // namespace

std::optional<CornerPlace> meetSides(const CornerSide& before, const CornerSide& after, Point near) {
  const Way a(before, true, near);
  const Way b(after, false, near);
  double s = a.begin();
  double t = b.begin();
  constexpr int kRounds = 12;
  constexpr double kMeetPx = 1e-6;
  for (int round = 0; round < kRounds; ++round) {
    const Point gap = b.at(t) - a.at(s);
    if (length(gap) < kMeetPx) {
      const double turn = angleBetween(a.slope(s), b.slope(t));
      return CornerPlace{lerp(a.at(s), b.at(t), 0.5), s, t, turn};
    }
    const Point u = a.slope(s);
    const Point v = b.slope(t);
    const double bend = cross(u, v);
    if (std::abs(bend) < 1e-6 * length(u) * length(v)) return std::nullopt;
    s += cross(gap, v) / bend;
    t += cross(gap, u) / bend;
    if (a.tooFar(s) || b.tooFar(t)) return std::nullopt;
  }
  return std::nullopt;
}

}  // namespace rim::trace::outline
