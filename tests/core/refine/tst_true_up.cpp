#include <QtTest>
#include <numbers>
#include <random>

#include "core/geometry/circle.h"
#include "core/geometry/segment.h"
#include "core/refine/edit/nodes.h"
#include "core/refine/propose/exact_shapes.h"
#include "core/refine/propose/proposal.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

const std::set<refine::TrueUpKind> kAll{refine::TrueUpKind::Circle,     refine::TrueUpKind::Ellipse,
                                        refine::TrueUpKind::Rectangle,  refine::TrueUpKind::RoundedRectangle,
                                        refine::TrueUpKind::Polygon,    refine::TrueUpKind::Slot,
                                        refine::TrueUpKind::Straight,   refine::TrueUpKind::Level,
                                        refine::TrueUpKind::Parallel,   refine::TrueUpKind::Radii,
                                        refine::TrueUpKind::Concentric, refine::TrueUpKind::Spacing};

/// A polygon along a closed curve, every corner off by up to `wobble` mm.
template <class Curve>
Path wobbly(const Curve& curve, int corners, double wobble, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> off(-wobble, wobble);
  std::vector<Point> places;
  for (int i = 0; i < corners; ++i) {
    const Point p = curve(static_cast<double>(i) / corners);
    places.push_back(p + Point{off(random), off(random)});
  }
  return polygonThrough(places);
}

auto circleCurve(Point centre, double radius) {
  return [=](double t) {
    return centre + Point{std::cos(2 * std::numbers::pi * t), std::sin(2 * std::numbers::pi * t)} * radius;
  };
}

/// Round a path, evenly.
auto along(Path path) {
  return [path](double t) {
    double left = t * pathLength(path);
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const Piece piece = pieceOf(path, i);
      if (left <= lengthOf(piece)) return pointAt(piece, left / lengthOf(piece));
      left -= lengthOf(piece);
    }
    return path.start;
  };
}

Path regular(int n, double radius, double turn) {
  std::vector<Point> corners;
  for (int i = 0; i < n; ++i) corners.push_back(circleCurve({50, 50}, radius)(turn + static_cast<double>(i) / n));
  return polygonThrough(corners);
}

Path rounded(double w, double h, double r) {
  const double bulge = std::tan(std::numbers::pi / 8);
  return {{r, 0},
          {Segment::line({w - r, 0}), Segment::arc({w, r}, bulge), Segment::line({w, h - r}),
           Segment::arc({w - r, h}, bulge), Segment::line({r, h}), Segment::arc({0, h - r}, bulge),
           Segment::line({0, r}), Segment::arc({r, 0}, bulge)},
          true};
}

std::string kindOf(const Path& path, double within = 0.3) {
  const auto found = refine::exactShapeOf(path, kAll, within);
  return found ? refine::nameOf(found->kind) : "none";
}

}  // namespace

class TestTrueUp : public QObject {
  Q_OBJECT

 private slots:
  /// A wobbly ring: centre and radius within 0.02 mm at 0.1 mm of wobble.
  void wobblyRingsBecomeCircles() {
    double farthest = 0;
    for (unsigned seed = 1; seed <= 40; ++seed) {
      const auto found = refine::exactShapeOf(wobbly(circleCurve({30, 20}, 12), 90, 0.07, seed), kAll, 0.3);
      QVERIFY(found && found->kind == refine::TrueUpKind::Circle);
      const auto circle = circleOf(found->path);
      QVERIFY(circle);
      farthest = std::max({farthest, distance(circle->centre, {30, 20}), std::abs(circle->radius - 12)});
      QVERIFY(found->movedMm < 0.2);
    }
    QVERIFY2(farthest < 0.02, qPrintable(QString::number(farthest)));
  }

  void whatIsNearlyAShapeIsTold_data() {
    QTest::addColumn<int>("shape");
    QTest::addColumn<QString>("kind");
    const char* kinds[] = {"rectangle", "rectangle", "rounded-rectangle", "slot", "polygon", "polygon", "ellipse",
                           "circle",    "polygon",   "rounded-rectangle"};
    for (int i = 0; i < 10; ++i) QTest::addRow("%d %s", i, kinds[i]) << i << QString(kinds[i]);
  }
  void whatIsNearlyAShapeIsTold() {
    QFETCH(int, shape);
    QFETCH(QString, kind);
    Path turned = polygonThrough({{0, 0}, {30, 9}, {26, 22}, {-4, 13}});
    turned = polygonThrough({{0, 0}, {30, 9}, {30 - 4.2, 9 + 14}, {-4.2, 14}});
    const std::vector<Path> shapes{polygonThrough({{0, 0}, {40, 0}, {40, 25}, {0, 25}}),
                                   turned,
                                   rounded(50, 30, 6),
                                   rounded(50, 20, 10),
                                   regular(3, 20, 0.02),
                                   regular(6, 20, 0.05),
                                   {},
                                   circlePath({5, 5}, 9),
                                   regular(8, 30, 0),
                                   rounded(30, 30, 10)};
    const auto ellipse = [](double t) {
      return Point{20 * std::cos(2 * std::numbers::pi * t), 12 * std::sin(2 * std::numbers::pi * t)};
    };
    for (unsigned seed = 1; seed <= 5; ++seed) {
      const Path path = shape == 6 ? wobbly(ellipse, 120, 0.05, seed)
                                   : wobbly(along(shapes[static_cast<std::size_t>(shape)]), 240, 0.05, seed);
      QCOMPARE(QString::fromStdString(kindOf(path)), kind);
      const auto found = refine::exactShapeOf(path, kAll, 0.3);
      // Run the same way, and of nearly the area of what was meant.
      QVERIFY(signedArea(found->path) > 0);
      const double meant = shape == 6 ? std::numbers::pi * 240 : signedArea(shapes[static_cast<std::size_t>(shape)]);
      QVERIFY2(std::abs(signedArea(found->path) - meant) < 0.02 * meant, qPrintable(kind));
    }
  }

  void whatWasDrawnOtherwiseOnPurposeStays() {
    const auto egg = [](double t) {
      const double a = 2 * std::numbers::pi * t;
      return Point{12 * std::cos(a) * (1 + 0.12 * std::cos(a)), 12 * std::sin(a)};
    };
    const auto superellipse = [](double t) {
      const double a = 2 * std::numbers::pi * t;
      const auto part = [](double v, double k) { return std::copysign(std::sqrt(std::abs(v)), v) * k; };
      return Point{part(std::cos(a), 15), part(std::sin(a), 10)};
    };
    QCOMPARE(kindOf(wobbly(egg, 200, 0.02, 1)), std::string("none"));
    QCOMPARE(kindOf(wobbly(superellipse, 300, 0.01, 2)), std::string("none"));
    QCOMPARE(kindOf(polygonThrough({{0, 0}, {30, 0}, {30, 18}, {28, 20}, {0, 20}})), std::string("none"));  // a chamfer
    QCOMPARE(kindOf(polygonThrough({{0, 0}, {30, 0}, {32, 20}, {0, 20}})), std::string("none"));
    // Small things are not taken for others by an amount that is a lot to them.
    QCOMPARE(kindOf(wobbly([&egg](double t) { return egg(t) * 0.2; }, 100, 0.001, 3)), std::string("none"));
    // What is exact already is left alone.
    QCOMPARE(kindOf(circlePath({0, 0}, 10)), std::string("none"));
    QCOMPARE(kindOf(polygonThrough({{0, 0}, {30, 0}, {30, 20}, {0, 20}})), std::string("none"));
  }

  void linesBecomeStraightLevelAndSquare() {
    // One side is bent by 0.05, one made of three pieces, all are off by a degree or less.
    Path path{{0, 0}, {}, true};
    path.segments = {Segment::arc({40, 0.3}, 0.002), Segment::line({39.8, 10}), Segment::line({39.85, 20.1}),
                     Segment::line({39.7, 30.2}),    Segment::line({20, 30}),   Segment::line({12, 14}),
                     Segment::line({0, 0})};
    const refine::Refined refined =
        refine::truedUp(makeDrawing({path}),
                        {refine::TrueUpKind::Straight, refine::TrueUpKind::Level, refine::TrueUpKind::Parallel}, 0.3);
    const Path& exact = refined.drawing.path(0);
    QCOMPARE(exact.segments.size(), 5U);
    QCOMPARE(exact.segments[0].end.y, exact.start.y);
    QCOMPARE(exact.segments[1].end.x, exact.segments[0].end.x);
    QCOMPARE(exact.segments[2].end.y, exact.segments[1].end.y);
    QVERIFY(refine::apartBy(path, exact).mm < 0.3);
    QVERIFY(refined.changes.size() >= 2);
    // A slope that was meant stays.
    const Path roof = polygonThrough({{0, 0}, {40, 0}, {40, 20}, {20, 24}, {0, 20}});
    QVERIFY(refine::truedUp(makeDrawing({roof}), kAll, 0.3).changes.empty());
  }

  void likesAreMadeAlike() {
    std::vector<Path> holes;
    for (int i = 0; i < 6; ++i) {
      const double angle = 2 * std::numbers::pi * i / 6 + (i % 2 == 0 ? 0.003 : -0.002);
      holes.push_back(circlePath(Point{50, 50} + Point{std::cos(angle), std::sin(angle)} * (30 + 0.05 * (i % 3)),
                                 4 + 0.02 * (i % 2)));
    }
    holes.push_back(circlePath({50.1, 49.95}, 10));
    holes.push_back(circlePath({50, 50}, 40));
    const refine::Refined refined =
        refine::truedUp(makeDrawing(holes),
                        {refine::TrueUpKind::Radii, refine::TrueUpKind::Concentric, refine::TrueUpKind::Spacing}, 0.3);
    std::vector<CircleOf> circles;
    for (const Outline& outline : refined.drawing.outlines) circles.push_back(*circleOf(outline.path()));
    for (int i = 1; i < 6; ++i) {
      const auto at = static_cast<std::size_t>(i);
      QVERIFY(std::abs(circles[at].radius - circles[0].radius) < 1e-9);
      QVERIFY(std::abs(distance(circles[at].centre, circles[at - 1].centre) -
                       distance(circles[1].centre, circles[0].centre)) < 1e-6);
    }
    QVERIFY(distance(circles[6].centre, circles[7].centre) < 1e-9);
    // In a row.
    std::vector<Path> row;
    for (int i = 0; i < 5; ++i) row.push_back(circlePath({10.0 * i + (i == 2 ? 0.2 : 0), i == 3 ? 0.1 : 0}, 3));
    const refine::Refined even = refine::truedUp(makeDrawing(row), {refine::TrueUpKind::Spacing}, 0.3);
    for (std::size_t i = 0; i < 5; ++i)
      QVERIFY(distance(circleOf(even.drawing.path(i))->centre, {10.0 * static_cast<double>(i), 0}) < 1e-9);
    // Far from even: nothing.
    row[2] = circlePath({23, 0}, 3);
    QVERIFY(refine::truedUp(makeDrawing(row), {refine::TrueUpKind::Spacing}, 0.3).changes.empty());
  }

  void nothingMovesFartherThanAllowed() {
    for (unsigned seed = 1; seed <= 10; ++seed) {
      const Drawing drawing =
          makeDrawing({wobbly(circleCurve({30, 20}, 12), 60, 0.2, seed),
                       wobbly(along(polygonThrough({{60, 0}, {90, 1}, {90, 20}, {60, 20}})), 60, 0.1, seed)});
      for (const double within : {0.05, 0.2, 0.5}) {
        const refine::Refined refined = refine::truedUp(drawing, kAll, within);
        for (const refine::Change& c : refined.changes) QVERIFY(c.movedMm <= within);
      }
    }
  }

  void linesThatEndOnARingStayOnIt() {
    const Path ring = wobbly(circleCurve({30, 20}, 12), 90, 0.07, 4);
    std::vector<Path> all{ring};
    for (const std::size_t node : {3U, 40U, 61U})
      all.push_back({segmentStart(ring, node), {Segment::line({30, 20})}, false});
    all.push_back({{50, 20}, {Segment::line({60, 20})}, false});
    const refine::Refined refined = refine::truedUp(makeDrawing(all), {refine::TrueUpKind::Circle}, 0.3);
    QCOMPARE(refined.changes.size(), std::size_t{1});
    const Path exact = refined.drawing.path(0);
    QVERIFY(circleOf(exact));
    for (std::size_t line = 1; line <= 3; ++line) {
      const Path path = refined.drawing.path(line);
      QCOMPARE(endOf(path), (Point{30, 20}));
      const std::size_t node = refine::nearestNode(exact, path.start);
      QVERIFY(distance(refine::nodeAt(exact, node), path.start) < 1e-9);
      QVERIFY(distance(path.start, all[line].start) <= refined.changes.front().movedMm + 1e-9);
    }
    QCOMPARE(refined.drawing.path(4), all.back());
    // It is one place that is about the ring, and three lines that only come along.
    const auto offered = refine::proposalsFor(makeDrawing(all), {refine::TrueUpKind::Circle}, 0.3);
    QCOMPARE(offered.size(), std::size_t{1});
    QCOMPARE(offered.front().paths.size(), std::size_t{1});
    QCOMPARE(offered.front().along.size(), std::size_t{3});
    QVERIFY(refine::truedUp(refined.drawing, {refine::TrueUpKind::Circle}, 0.3).changes.empty());
  }

  void nothingIsMadeExactThatWouldCrossItsNeighbour() {
    Path dented = polygonThrough([] {
      std::vector<Point> corners;
      for (int i = -45; i < 45; ++i) {
        const double angle = i * std::numbers::pi / 45;
        corners.push_back(Point{std::cos(angle), std::sin(angle)} * (std::abs(i) <= 2 ? 11.75 : 12));
      }
      return corners;
    }());
    const Path within = polygonThrough({{11.8, -0.2}, {13, -0.2}, {13, 0.2}, {11.8, 0.2}});
    const std::set<refine::TrueUpKind> circle{refine::TrueUpKind::Circle};
    QCOMPARE(refine::truedUp(makeDrawing({dented}), circle, 0.3).changes.size(), std::size_t{1});
    QVERIFY(refine::truedUp(makeDrawing({dented, within}), circle, 0.3).changes.empty());
    QVERIFY(refine::proposalsFor(makeDrawing({dented, within}), circle, 0.3).empty());
    const Path farOff = polygonThrough({{13, -0.2}, {14, -0.2}, {14, 0.2}, {13, 0.2}});
    QCOMPARE(refine::proposalsFor(makeDrawing({dented, farOff}), circle, 0.3).size(), std::size_t{1});
  }
};

RIM_TEST(TestTrueUp)
#include "tst_true_up.moc"
