// The medial axis against its formulas: a rectangle's lies on its middle line and the bisectors of its corners; an
// ellipse's (half axes a > b) is the stretch up to (a^2 - b^2) / a from its centre, where the circle of least curvature
// radius b^2 / a still lies inside (elementary differential geometry, derived here); an L's is bisectors and the
// parabola between its inner corner and the far side. And orders of lines, breaks, widths.

#include <QTest>
#include <numbers>
#include <numeric>
#include <set>

#include "core/trace/lines/draw_order.h"
#include "core/trace/lines/medial_axis.h"
#include "core/trace/lines/stroke_limit.h"
#include "core/trace/lines/stroke_width.h"
#include "support/test_list.h"

using namespace rim;

namespace {

/// A polygon's sides in points, counter-clockwise.
trace::contour::Border sidesOf(const std::vector<Point>& corners) {
  trace::contour::Border border;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Point a = corners[i];
    const Point b = corners[(i + 1) % corners.size()];
    const int steps = static_cast<int>(distance(a, b) / 0.5);
    for (int k = 0; k < steps; ++k) border.push_back(lerp(a, b, static_cast<double>(k) / steps));
  }
  return border;
}

trace::lines::MedialAxis axisOf(const trace::contour::Border& border, double pruning = 2) {
  return trace::lines::medialAxis({&border}, pruning);
}

/// How many separate parts its edges make, and how many rings.
struct Shape {
  std::size_t parts = 0;
  std::size_t rings = 0;
};

Shape shapeOf(const trace::lines::MedialAxis& axis) {
  std::vector<std::size_t> parent(axis.points.size());
  std::iota(parent.begin(), parent.end(), std::size_t{0});
  const auto find = [&](std::size_t i) {
    while (parent[i] != i) i = parent[i] = parent[parent[i]];
    return i;
  };
  std::set<std::size_t> used;
  Shape shape;
  for (const trace::lines::AxisEdge& e : axis.edges) {
    used.insert(e.from);
    used.insert(e.to);
    const std::size_t a = find(e.from);
    const std::size_t b = find(e.to);
    if (a == b)
      ++shape.rings;
    else
      parent[a] = b;
  }
  std::set<std::size_t> roots;
  for (const std::size_t p : used) roots.insert(find(p));
  shape.parts = roots.size();
  return shape;
}

double lowest(const trace::lines::MedialAxis& axis) {
  double x = std::numeric_limits<double>::infinity();
  for (const trace::lines::AxisEdge& e : axis.edges)
    x = std::min({x, axis.points[e.from].place.x, axis.points[e.to].place.x});
  return x;
}
double highest(const trace::lines::MedialAxis& axis) {
  double x = -std::numeric_limits<double>::infinity();
  for (const trace::lines::AxisEdge& e : axis.edges)
    x = std::max({x, axis.points[e.from].place.x, axis.points[e.to].place.x});
  return x;
}

}  // namespace

class TestMedialAxis : public QObject {
  Q_OBJECT

 private slots:
  void rectangle() {
    const trace::lines::MedialAxis axis = axisOf(sidesOf({{0, 0}, {80, 0}, {80, 20}, {0, 20}}));
    QVERIFY(!axis.edges.empty());
    for (const trace::lines::AxisEdge& e : axis.edges) {
      const trace::lines::AxisPoint p = axis.points[e.from];
      const double toMiddle = std::abs(p.place.y - 10);
      const double toBisector = std::abs(std::min(p.place.x, 80 - p.place.x) - std::min(p.place.y, 20 - p.place.y));
      QVERIFY(std::min(toMiddle, toBisector / std::numbers::sqrt2) < 0.02);
      QVERIFY(std::abs(p.radius - std::min({p.place.x, 80 - p.place.x, p.place.y, 20 - p.place.y})) < 0.05);
    }
    // The branches into its corners go, and the middle line stays.
    QVERIFY(lowest(axis) < 10.5 && lowest(axis) > 9 && highest(axis) > 69.5 && highest(axis) < 71);
    QCOMPARE(shapeOf(axis).parts, 1U);
  }

  void ellipse() {
    constexpr double a = 60;
    constexpr double b = 24;
    trace::contour::Border border;
    for (int i = 0; i < 1200; ++i) {
      const double t = 2 * std::numbers::pi * i / 1200;
      border.push_back({a * std::cos(t), b * std::sin(t)});
    }
    // Pruned by hardly anything: what is left reaches almost to the last middle.
    const trace::lines::MedialAxis axis = axisOf(border, 0.05);
    constexpr double kLast = (a * a - b * b) / a;
    for (const trace::lines::AxisEdge& e : axis.edges) {
      const trace::lines::AxisPoint p = axis.points[e.from];
      QVERIFY(std::abs(p.place.y) < 0.05);
      // The circle about (x, 0) that touches: r^2 = b^2 (1 - x^2 / (a^2 - b^2)).
      QVERIFY(std::abs(p.radius - b * std::sqrt(1 - p.place.x * p.place.x / (a * a - b * b))) < 0.05);
    }
    QVERIFY(highest(axis) < kLast + 0.2 && highest(axis) > kLast - 6);
    QVERIFY(std::abs(highest(axis) + lowest(axis)) < 0.5);
  }

  void ell() {
    // Its inner corner at (20, 20): up to it the discs touch that corner and a far side.
    const trace::lines::MedialAxis axis = axisOf(sidesOf({{0, 0}, {90, 0}, {90, 20}, {20, 20}, {20, 90}, {0, 90}}));
    for (const trace::lines::AxisEdge& e : axis.edges) {
      const Point p = axis.points[e.from].place;
      const double toArms =
          std::min(std::abs(p.y - 10) + std::max(0.0, 20 - p.x), std::abs(p.x - 10) + std::max(0.0, 20 - p.y));
      const double parabola = std::abs(distance(p, {20, 20}) - std::min(p.x, p.y));
      QVERIFY(std::min(toArms, parabola) < 0.05);
    }
    QCOMPARE(shapeOf(axis).parts, 1U);
  }

  void holesAreGoneRound() {
    const trace::contour::Border outer = sidesOf({{0, 0}, {100, 0}, {100, 60}, {0, 60}});
    trace::contour::Border one = sidesOf({{20, 20}, {40, 20}, {40, 40}, {20, 40}});
    trace::contour::Border two = sidesOf({{60, 20}, {80, 20}, {80, 40}, {60, 40}});
    std::reverse(one.begin(), one.end());
    std::reverse(two.begin(), two.end());
    const Shape shape = shapeOf(trace::lines::medialAxis({&outer, &one, &two}, 2));
    QCOMPARE(shape.parts, 1U);
    QCOMPARE(shape.rings, 2U);
  }

  void aDotHasNone() {
    trace::contour::Border border;
    for (int i = 0; i < 60; ++i)
      border.push_back({std::cos(i * std::numbers::pi / 30) * 5, std::sin(i * std::numbers::pi / 30) * 5});
    QVERIFY(axisOf(border).edges.empty());
    QVERIFY(trace::lines::medialAxis({}, 2).edges.empty());
  }

  void littleIsTravelled() {
    // Level lines in a random order, every other one backwards: to and fro they are no way apart but their distance.
    std::vector<trace::lines::Centreline> lines;
    for (const int row : {7, 2, 9, 0, 4, 1, 8, 3, 6, 5}) {
      const double y = 3.0 * row;
      const bool back = row % 3 == 0;
      lines.push_back({{{back ? 100.0 : 0.0, y}, {Segment::line({back ? 0.0 : 100.0, y})}, false}, {}});
    }
    lines.push_back(
        {{{50, 40}, {Segment::line({60, 40}), Segment::line({50, 50}), Segment::line({50, 40})}, true}, {}});
    const std::vector<trace::lines::Centreline> ordered = trace::lines::inDrawOrder(lines);
    QCOMPARE(ordered.size(), lines.size());
    double travelled = 0;
    Point at;
    for (const trace::lines::Centreline& line : ordered) {
      travelled += distance(at, line.path.start);
      at = line.path.closed ? line.path.start : line.path.segments.back().end;
    }
    QVERIFY2(travelled < 10 * 3 + 60, qPrintable(QString::number(travelled)));
    QVERIFY(trace::lines::inDrawOrder({}).empty());
  }

  void widthsFallIntoGroups() {
    QVERIFY(std::isinf(trace::lines::strokeLimitOf({})));
    QVERIFY(std::isinf(trace::lines::strokeLimitOf({{4, 100}, {5, 200}, {6, 50}})));
    const double limit = trace::lines::strokeLimitOf({{3, 300}, {4, 500}, {40, 60}, {50, 40}});
    QVERIFY2(limit > 4 && limit < 40, qPrintable(QString::number(limit)));
  }
};

RIM_TEST(TestMedialAxis)
#include "tst_medial_axis.moc"
