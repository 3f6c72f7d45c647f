#pragma once

#include <algorithm>
#include <cmath>
#include <limits>

namespace rim {

/// A place or a vector in the plane, y pointing up.
///
/// Two frames use it, and the name of a function says which one it means:
///  - *drawing*: millimetres, the origin at the lower left corner of the picture (or at the
///    origin of the drawing that was read);
///  - *upright pixels*: picture pixels, the origin at the picture's lower left corner. In a
///    picture 300 pixels high, the pixel in column 0 of the topmost row covers the square from
///    (0, 299) to (1, 300).
/// A picture's own rows count downwards; that frame is left behind when a border is followed
/// (trace/contour/border.h) and is never stored in a Point.
struct Point {
  double x = 0;
  double y = 0;

  friend constexpr Point operator+(Point a, Point b) { return {a.x + b.x, a.y + b.y}; }
  friend constexpr Point operator-(Point a, Point b) { return {a.x - b.x, a.y - b.y}; }
  friend constexpr Point operator-(Point a) { return {-a.x, -a.y}; }
  friend constexpr Point operator*(Point a, double k) { return {a.x * k, a.y * k}; }
  friend constexpr Point operator*(double k, Point a) { return a * k; }
  friend constexpr bool operator==(Point a, Point b) = default;
};

constexpr double dot(Point a, Point b) { return a.x * b.x + a.y * b.y; }

/// The z part of the cross product: positive when b lies counter-clockwise of a.
constexpr double cross(Point a, Point b) { return a.x * b.y - a.y * b.x; }

/// Not std::hypot: coordinates are far from where their squares overflow, and it takes much longer.
inline double length(Point a) { return std::sqrt(dot(a, a)); }
inline double distance(Point a, Point b) { return length(b - a); }

/// a turned by +90 degrees.
constexpr Point leftNormal(Point a) { return {-a.y, a.x}; }

/// a scaled to length 1; (1, 0) for a vector of length 0.
inline Point unit(Point a) {
  const double l = length(a);
  return l > 0 ? a * (1 / l) : Point{1, 0};
}

constexpr Point lerp(Point a, Point b, double t) { return a + (b - a) * t; }

/// The signed angle from a to b in radians, -pi to pi, counter-clockwise positive.
inline double angleBetween(Point a, Point b) { return std::atan2(cross(a, b), dot(a, b)); }

/// An upright rectangle. A new Box is empty; include() makes it grow.
struct Box {
  Point low{std::numeric_limits<double>::infinity(), std::numeric_limits<double>::infinity()};
  Point high{-std::numeric_limits<double>::infinity(), -std::numeric_limits<double>::infinity()};

  bool empty() const { return low.x > high.x || low.y > high.y; }
  bool contains(Point p) const { return p.x >= low.x && p.x <= high.x && p.y >= low.y && p.y <= high.y; }
  double width() const { return empty() ? 0 : high.x - low.x; }
  double height() const { return empty() ? 0 : high.y - low.y; }
  void include(Point p) {
    low = {std::min(low.x, p.x), std::min(low.y, p.y)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y)};
  }
  void include(const Box& other) {
    if (other.empty()) return;
    include(other.low);
    include(other.high);
  }
};

/// Whether more than `reach` (>= 0) lies between two boxes, to the side or up.
inline bool apart(const Box& a, const Box& b, double reach) {
  return a.low.x > b.high.x + reach || b.low.x > a.high.x + reach || a.low.y > b.high.y + reach ||
         b.low.y > a.high.y + reach;
}

}  // namespace rim
