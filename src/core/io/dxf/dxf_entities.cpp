#include "core/io/dxf/dxf_entities.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

#include "core/geometry/arc.h"
#include "core/geometry/circle.h"
#include "core/geometry/cubic.h"
#include "core/geometry/segment.h"
#include "core/trace/fit/ellipse.h"

namespace rim::io::dxf {
namespace {

constexpr int kClosed = 1;        // polyline and spline flag
constexpr int kPlanarSpline = 8;  // spline flag
constexpr int kDegree = 3;

void begin(DxfTags& tags, const char* type, const DxfPlace& place, const char* subclass) {
  tags.text(0, type);
  if (!place.r12) {
    tags.handle(5, tags.mint());
    tags.handle(330, place.owner);
    tags.text(100, "AcDbEntity");
  }
  tags.text(8, place.layer);
  if (!place.r12) tags.text(100, subclass);
}

struct Vertex {
  Point at;
  double bulge;
};

std::vector<Vertex> verticesOf(const Path& path) {
  std::vector<Vertex> vertices;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    vertices.push_back({segmentStart(path, i), s.kind == SegmentKind::Arc ? s.bulge : 0});
  }
  if (!path.closed) vertices.push_back({endOf(path), 0});
  return vertices;
}

void addPolyline(DxfTags& tags, const Path& path, const DxfPlace& place) {
  const std::vector<Vertex> vertices = verticesOf(path);
  begin(tags, "LWPOLYLINE", place, "AcDbPolyline");
  tags.integer(90, static_cast<long>(vertices.size()));
  tags.integer(70, path.closed ? kClosed : 0);
  tags.real(43, 0);
  for (const Vertex& vertex : vertices) {
    tags.point(10, vertex.at, true);
    if (vertex.bulge != 0) tags.ratio(42, vertex.bulge);
  }
}

void addPolylineOfR12(DxfTags& tags, const Path& path, const DxfPlace& place) {
  begin(tags, "POLYLINE", place, nullptr);
  tags.integer(66, 1);  // vertices follow
  tags.point(10, {0, 0});
  tags.integer(70, path.closed ? kClosed : 0);
  for (const Vertex& vertex : verticesOf(path)) {
    begin(tags, "VERTEX", place, nullptr);
    tags.point(10, vertex.at);
    if (vertex.bulge != 0) tags.ratio(42, vertex.bulge);
  }
  begin(tags, "SEQEND", place, nullptr);
}

void addCircle(DxfTags& tags, const CircleOf& circle, const DxfPlace& place) {
  begin(tags, "CIRCLE", place, "AcDbCircle");
  tags.point(10, circle.centre);
  tags.real(40, circle.radius);
}

void addEllipse(DxfTags& tags, const EllipticArc& ellipse, const DxfPlace& place) {
  begin(tags, "ELLIPSE", place, "AcDbEllipse");
  tags.point(10, ellipse.centre);
  tags.point(11, ellipse.major);
  tags.ratio(40, length(ellipse.minor) / length(ellipse.major));
  tags.ratio(41, 0);
  tags.ratio(42, 2 * std::numbers::pi);
}

std::vector<Point> controlPoints(const Path& path) {
  std::vector<Point> control{path.start};
  Point from = path.start;
  for (const Segment& s : path.segments) {
    if (s.kind == SegmentKind::Arc) {
      constexpr double kArcErrorMm = 1e-3;
      for (const Segment& c : cubicsFromArc(from, s, kArcErrorMm))
        control.insert(control.end(), {c.handle1, c.handle2, c.end});
    } else if (s.kind == SegmentKind::Cubic) {
      control.insert(control.end(), {s.handle1, s.handle2, s.end});
    } else {
      control.insert(control.end(), {lerp(from, s.end, 1.0 / 3), lerp(from, s.end, 2.0 / 3), s.end});
    }
    from = s.end;
  }
  return control;
}

/// All segments as one B-spline: knots of multiplicity 3 keep every node a node.
void addSpline(DxfTags& tags, const Path& path, const DxfPlace& place) {
  const std::vector<Point> control = controlPoints(path);
  const auto pieces = (control.size() - 1) / kDegree;
  const auto knots = kDegree * (pieces + 1) + 2;
  begin(tags, "SPLINE", place, "AcDbSpline");
  tags.integer(70, (path.closed ? kClosed : 0) | kPlanarSpline);
  tags.integer(71, kDegree);
  tags.integer(72, static_cast<long>(knots));
  tags.integer(73, static_cast<long>(control.size()));
  tags.integer(74, 0);
  for (std::size_t i = 0; i < knots; ++i) {
    const std::size_t piece = i == 0 ? 0 : std::min((i - 1) / kDegree, pieces);
    tags.ratio(40, static_cast<double>(piece));
  }
  for (const Point p : control) tags.point(10, p);
}

/// The ellipse about as it was fitted, but exactly as wide and high as the box: with half axes a, b turned by w it is
/// 2 sqrt(a^2 cos^2 w + b^2 sin^2 w) wide, and high with sine and cosine changed.
trace::fit::Ellipse inBox(trace::fit::Ellipse ellipse, const Box& box) {
  const double w2 = box.width() * box.width() / 4;
  const double h2 = box.height() * box.height() / 4;
  const double slant = ellipse.axis.x * ellipse.axis.x - ellipse.axis.y * ellipse.axis.y;
  const double a2 = ellipse.along * ellipse.along;
  const double b2 = ellipse.across * ellipse.across;
  constexpr double kLevelEnough = 0.05;  // near 45 degrees width and height do not tell the axes apart
  const double difference = std::abs(slant) > kLevelEnough ? (w2 - h2) / slant : (a2 - b2) * (w2 + h2) / (a2 + b2);
  ellipse.centre = lerp(box.low, box.high, 0.5);
  ellipse.along = std::sqrt(std::max(0.0, (w2 + h2 + difference) / 2));
  ellipse.across = std::sqrt(std::max(0.0, (w2 + h2 - difference) / 2));
  return ellipse;
}

bool isCubic(const Segment& s) { return s.kind == SegmentKind::Cubic; }

}  // namespace

std::optional<EllipticArc> ellipseOf(const Path& path, double within) {
  constexpr std::size_t kFewest = 4;
  constexpr std::size_t kMost = 16;
  const auto& segments = path.segments;
  if (!path.closed || segments.size() < kFewest || segments.size() > kMost) return {};
  if (!std::all_of(segments.begin(), segments.end(), isCubic)) return {};
  constexpr int kPlaces = 8;
  std::vector<Point> places;
  for (std::size_t i = 0; i < segments.size(); ++i) {
    for (int k = 0; k < kPlaces; ++k) places.push_back(pointAt(pieceOf(path, i), (k + 0.5) / kPlaces));
  }
  const auto fitted = trace::fit::fitEllipse(places);
  if (!fitted) return {};
  const trace::fit::Ellipse ellipse = inBox(*fitted, boxOf(path));
  const double larger = std::max(ellipse.along, ellipse.across);
  const double smaller = std::min(ellipse.along, ellipse.across);
  constexpr double kOff = 3e-4;
  constexpr double kFlattest = 0.01;
  const bool fits = smaller > kFlattest * larger && std::all_of(places.begin(), places.end(), [&](Point p) {
                      return std::abs(trace::fit::distanceFrom(ellipse, p)) <= std::min(within, kOff * larger);
                    });
  if (!fits) return {};
  const Point along = ellipse.axis * ellipse.along;
  const Point across = Point{-ellipse.axis.y, ellipse.axis.x} * ellipse.across;
  const bool firstIsLonger = ellipse.along >= ellipse.across;
  return EllipticArc{ellipse.centre, firstIsLonger ? along : across, firstIsLonger ? across : -along, 0,
                     2 * std::numbers::pi};
}

void addEntity(DxfTags& tags, const Path& path, const DxfPlace& place) {
  const bool holdsCubic = std::any_of(path.segments.begin(), path.segments.end(), isCubic);
  if (const auto circle = circleOf(path)) {
    addCircle(tags, *circle, place);
  } else if (const auto ellipse = ellipseOf(path, place.within)) {
    const double longer = length(ellipse->major);
    constexpr double kRound = 1e-4;
    if (longer - length(ellipse->minor) < kRound * longer) {
      addCircle(tags, {ellipse->centre, (longer + length(ellipse->minor)) / 2}, place);
    } else {
      addEllipse(tags, *ellipse, place);
    }
  } else if (holdsCubic) {
    addSpline(tags, path, place);
  } else if (place.r12) {
    addPolylineOfR12(tags, path, place);
  } else {
    addPolyline(tags, path, place);
  }
}

}  // namespace rim::io::dxf
