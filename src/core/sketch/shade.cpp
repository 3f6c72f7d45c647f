#include "core/sketch/shade.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rim::sketch {
namespace {

/// On the screen: x to the right, y down, z towards the eye.
Point3 seen(const Point3& p, const Sight& sight) {
  const double x = p.x * std::cos(sight.turn) - p.y * std::sin(sight.turn);
  const double y = p.x * std::sin(sight.turn) + p.y * std::cos(sight.turn);
  const double c = std::cos(sight.tilt);
  const double s = std::sin(sight.tilt);
  return {x, -(y * c + p.z * s), p.z * c - y * s};
}

/// All points on the screen, in px.
std::vector<Point3> onScreen(const Solid& solid, const Sight& sight, cv::Size size) {
  std::vector<Point3> points;
  points.reserve(solid.points.size());
  Box box;
  for (const Point3& p : solid.points) {
    points.push_back(seen(p, sight));
    box.include(Point{points.back().x, points.back().y});
  }
  constexpr double kShare = 0.86;
  const double scale =
      kShare * std::min(size.width / std::max(box.width(), 1e-9), size.height / std::max(box.height(), 1e-9));
  const Point middle = lerp(box.low, box.high, 0.5);
  for (Point3& p : points)
    p = {size.width / 2.0 + (p.x - middle.x) * scale, size.height / 2.0 + (p.y - middle.y) * scale, p.z * scale};
  return points;
}

std::uint8_t lightOn(const Point3& a, const Point3& b, const Point3& c) {
  const Point3 u{b.x - a.x, b.y - a.y, b.z - a.z};
  const Point3 v{c.x - a.x, c.y - a.y, c.z - a.z};
  const Point3 n{u.y * v.z - u.z * v.y, u.z * v.x - u.x * v.z, u.x * v.y - u.y * v.x};
  const double size = std::sqrt(n.x * n.x + n.y * n.y + n.z * n.z);
  if (size <= 0) return 1;
  const Point3 light{-0.37, -0.56, 0.74};
  const double cosine = (n.x * light.x + n.y * light.y + n.z * light.z) / size;
  constexpr double kAround = 0.3;
  return static_cast<std::uint8_t>(std::clamp(255 * (kAround + (1 - kAround) * std::abs(cosine)), 1.0, 255.0));
}

void fill(cv::Mat1b& light, cv::Mat1f& depth, const Point3& a, const Point3& b, const Point3& c) {
  const double area = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
  if (std::abs(area) < 1e-9) return;
  const std::uint8_t value = lightOn(a, b, c);
  const auto first = [](double x) { return std::max(0, static_cast<int>(std::ceil(x - 0.5))); };
  const int top = first(std::min({a.y, b.y, c.y}));
  const int bottom = std::min(light.rows - 1, static_cast<int>(std::floor(std::max({a.y, b.y, c.y}) - 0.5)));
  const int left = first(std::min({a.x, b.x, c.x}));
  const int right = std::min(light.cols - 1, static_cast<int>(std::floor(std::max({a.x, b.x, c.x}) - 0.5)));
  for (int row = top; row <= bottom; ++row) {
    for (int column = left; column <= right; ++column) {
      const double x = column + 0.5;
      const double y = row + 0.5;
      // Barycentric coordinates: shares of the three corners.
      const double wb = ((x - a.x) * (c.y - a.y) - (y - a.y) * (c.x - a.x)) / area;
      const double wc = ((b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x)) / area;
      const double wa = 1 - wb - wc;
      if (wa < 0 || wb < 0 || wc < 0) continue;
      const auto z = static_cast<float>(wa * a.z + wb * b.z + wc * c.z);
      if (z <= depth(row, column)) continue;
      depth(row, column) = z;
      light(row, column) = value;
    }
  }
}

}  // namespace

cv::Mat1b shaded(const Solid& solid, const Sight& sight, cv::Size size) {
  cv::Mat1b light(size, std::uint8_t{0});
  if (solid.points.empty() || size.empty()) return light;
  cv::Mat1f depth(size, -std::numeric_limits<float>::infinity());
  const std::vector<Point3> points = onScreen(solid, sight, size);
  for (const auto& t : solid.triangles) fill(light, depth, points[t[0]], points[t[1]], points[t[2]]);
  return light;
}

}  // namespace rim::sketch
