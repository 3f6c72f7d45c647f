#include "core/geometry/cubic.h"

#include <array>

namespace rim {

Point tangent(const Cubic& c, double t) {
  const Point d = derivative(c, t);
  const double scale = length(c.p1 - c.p0) + length(c.p2 - c.p1) + length(c.p3 - c.p2);
  if (length(d) > 1e-9 * scale) return unit(d);
  // With a handle of length 0 the curve leaves towards the next handle.
  const Point next = t < 0.5 ? c.p2 - c.p0 : c.p3 - c.p1;
  return unit(length(next) > 1e-9 * scale ? next : c.p3 - c.p0);
}

std::pair<Cubic, Cubic> split(const Cubic& c, double t) {
  const Point a = lerp(c.p0, c.p1, t);
  const Point b = lerp(c.p1, c.p2, t);
  const Point d = lerp(c.p2, c.p3, t);
  const Point ab = lerp(a, b, t);
  const Point bd = lerp(b, d, t);
  const Point middle = lerp(ab, bd, t);
  return {{c.p0, a, ab, middle}, {middle, bd, d, c.p3}};
}

namespace {

void addRoots(double a, double b, double c, std::vector<double>& roots) {
  const auto keep = [&roots](double t) {
    if (t > 1e-9 && t < 1 - 1e-9) roots.push_back(t);
  };
  if (std::abs(a) < 1e-12 * (std::abs(b) + std::abs(c))) {
    if (b != 0) keep(-c / b);
    return;
  }
  const double under = b * b - 4 * a * c;
  if (under < 0) return;
  // The form that does not cancel; Numerical Recipes 5.6.
  const double q = -0.5 * (b + std::copysign(std::sqrt(under), b));
  keep(q / a);
  if (q != 0) keep(c / q);
}

/// The length from parameter a to b by Gauss and Legendre's rule with 8 places.
/// Source: M. Abramowitz and I. Stegun, Handbook of Mathematical Functions, table 25.4, n = 8.
double gaussLength(const Cubic& c, double a, double b) {
  constexpr std::array<std::pair<double, double>, 4> kRule{{{0.1834346424956498, 0.3626837833783620},
                                                            {0.5255324099163290, 0.3137066458778873},
                                                            {0.7966664774136267, 0.2223810344533745},
                                                            {0.9602898564975363, 0.1012285362903763}}};
  const double middle = (a + b) / 2;
  const double half = (b - a) / 2;
  double sum = 0;
  for (const auto& [x, w] : kRule) {
    sum += w * (length(derivative(c, middle - half * x)) + length(derivative(c, middle + half * x)));
  }
  return sum * half;
}

double lengthBetween(const Cubic& c, double a, double b, double whole, double error, int depth) {
  const double middle = (a + b) / 2;
  const double first = gaussLength(c, a, middle);
  const double second = gaussLength(c, middle, b);
  if (depth == 0 || std::abs(first + second - whole) <= error) return first + second;
  return lengthBetween(c, a, middle, first, error / 2, depth - 1) +
         lengthBetween(c, middle, b, second, error / 2, depth - 1);
}

}  // namespace

std::vector<double> extremes(const Cubic& c) {
  std::vector<double> roots;
  const Point a = c.p3 - c.p2 * 3 + c.p1 * 3 - c.p0;
  const Point b = (c.p2 - c.p1 * 2 + c.p0) * 2;
  const Point d = c.p1 - c.p0;
  addRoots(a.x, b.x, d.x, roots);
  addRoots(a.y, b.y, d.y, roots);
  std::sort(roots.begin(), roots.end());
  return roots;
}

double lengthOf(const Cubic& c, double relativeError) {
  constexpr int kDeepest = 16;
  const double polygon = distance(c.p0, c.p1) + distance(c.p1, c.p2) + distance(c.p2, c.p3);
  return lengthBetween(c, 0, 1, gaussLength(c, 0, 1), relativeError * polygon, kDeepest);
}

double turningOf(const Cubic& c) {
  constexpr int kSteps = 16;
  double turning = 0;
  Point before = tangent(c, 0);
  for (int i = 1; i <= kSteps; ++i) {
    const Point now = tangent(c, static_cast<double>(i) / kSteps);
    turning += std::abs(angleBetween(before, now));
    before = now;
  }
  return turning;
}

int chordSteps(const Cubic& c, double chordError) {
  const double bend = std::max(length(c.p2 - c.p1 * 2 + c.p0), length(c.p3 - c.p2 * 2 + c.p1));
  const double steps = std::ceil(std::sqrt(6 * bend / (8 * chordError)));
  return static_cast<int>(std::clamp(steps, 1.0, 10000.0));
}

}  // namespace rim
