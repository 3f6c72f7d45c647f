#include "core/geometry/affine.h"

#include "core/geometry/arc.h"
#include "core/geometry/segment.h"

namespace rim {

Affine shift(Point by) { return {1, 0, 0, 1, by.x, by.y}; }

Affine scale(double x, double y) { return {x, 0, 0, y, 0, 0}; }

Affine rotation(double radians) {
  const double cosine = std::cos(radians);
  const double sine = std::sin(radians);
  return {cosine, sine, -sine, cosine, 0, 0};
}

Affine about(Point centre, const Affine& map) { return shift(centre) * map * shift(-centre); }

Affine mirrorAbout(Point place, double angle) {
  return about(place, rotation(angle) * scale(1, -1) * rotation(-angle));
}

Affine operator*(const Affine& outer, const Affine& inner) {
  const Point x = outer.turned({inner.a, inner.b});
  const Point y = outer.turned({inner.c, inner.d});
  const Point origin = outer({inner.e, inner.f});
  return {x.x, x.y, y.x, y.y, origin.x, origin.y};
}

bool isSimilarity(const Affine& map) {
  const Point x{map.a, map.b};
  const Point y{map.c, map.d};
  const double size = dot(x, x) + dot(y, y);
  constexpr double kRelative = 1e-9;
  return std::abs(dot(x, y)) <= kRelative * size && std::abs(dot(x, x) - dot(y, y)) <= kRelative * size;
}

Affine inverse(const Affine& map) {
  const double k = 1 / map.determinant();
  return {map.d * k,
          -map.b * k,
          -map.c * k,
          map.a * k,
          (map.c * map.f - map.d * map.e) * k,
          (map.b * map.e - map.a * map.f) * k};
}

Path transformed(const Path& path, const Affine& map, double tolerance) {
  const bool keepsArcs = isSimilarity(map);
  const double sign = map.determinant() < 0 ? -1 : 1;
  const double growth = std::max(length({map.a, map.b}), length({map.c, map.d}));
  Path out{map(path.start), {}, path.closed};
  const auto addCubic = [&](const Segment& s) {
    out.segments.push_back(Segment::cubic(map(s.handle1), map(s.handle2), map(s.end)));
  };
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    if (s.kind == SegmentKind::Cubic) {
      addCubic(s);
    } else if (!isArc(s)) {
      out.segments.push_back(Segment::line(map(s.end)));
    } else if (keepsArcs) {
      out.segments.push_back(Segment::arc(map(s.end), sign * s.bulge));
    } else {
      for (const Segment& part : cubicsFromArc(segmentStart(path, i), s, tolerance / std::max(growth, 1e-12)))
        addCubic(part);
    }
  }
  return out;
}

}  // namespace rim
