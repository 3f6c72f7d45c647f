#include "support/pen_ways.h"

#include <cmath>
#include <numbers>

namespace rim::test {
namespace {

constexpr double kPi = std::numbers::pi;

}  // namespace

Point onCircle(Point centre, double radius, double angle) {
  return centre + Point{std::cos(angle), std::sin(angle)} * radius;
}

PenStroke arc(Point centre, double radius, double from, double to) {
  return along([=](double t) { return onCircle(centre, radius, from + (to - from) * t); });
}
PenStroke circle(Point centre, double radius) {
  return along([=](double t) { return onCircle(centre, radius, 2 * kPi * t); }, true);
}
PenStroke bezier(Point a, Point b, Point c, Point d) {
  return along([=](double t) {
    const double s = 1 - t;
    return a * (s * s * s) + b * (3 * s * s * t) + c * (3 * s * t * t) + d * (t * t * t);
  });
}

PenStroke bow(Point low, Point high, double radius) {
  PenStroke stroke = straight({{high.x, low.y}});
  const auto turn = [&](Point centre, double from, double to) {
    constexpr int kSteps = 24;
    for (int k = 0; k <= kSteps; ++k) stroke.way.push_back(onCircle(centre, radius, from + (to - from) * k / kSteps));
  };
  stroke.way.clear();
  turn({high.x - radius, high.y - radius}, 0, kPi / 2);
  turn({low.x + radius, high.y - radius}, kPi / 2, kPi);
  turn({low.x + radius, low.y + radius}, kPi, 3 * kPi / 2);
  turn({high.x - radius, low.y + radius}, 3 * kPi / 2, 2 * kPi);
  return stroke;
}

std::vector<PenStroke> drum(Point middle, double a, double b, double high) {
  const auto lid = [=](double angle) { return middle + Point{a * std::cos(angle), b * std::sin(angle)}; };
  PenStroke side = straight({lid(kPi)});
  constexpr int kSteps = 60;
  for (int k = 0; k <= kSteps; ++k) side.way.push_back(lid(kPi + kPi * k / kSteps) - Point{0, high});
  side.way.push_back(lid(0));
  return {along([=](double t) { return lid(2 * kPi * t); }, true), side};
}

PenStroke hollowStar(Point middle, double size) {
  // Where the straight edge of a tip ends, and the control point beyond it, as shares of the size.
  std::vector<Point> quarter{{0, 1}, {0.1205, 0.5783}, {0.1838, 0.3568}, {0.3568, 0.1838}, {0.5783, 0.1205}};
  PenStroke star{{}, true};
  for (int k = 0; k < 4; ++k) {
    const auto at = [&](std::size_t i) { return middle + quarter[i] * size; };
    star.way.push_back(at(0));
    const PenStroke hollow = bezier(at(1), at(2), at(3), at(4));
    star.way.insert(star.way.end(), hollow.way.begin(), hollow.way.end());
    for (Point& p : quarter) p = {p.y, -p.x};
  }
  return star;
}

}  // namespace rim::test
