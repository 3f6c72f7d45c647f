// Lines that nearly touch arcs, parts that are nearly one part, a second axis, and where two drawings differ.

#include <QtTest>
#include <numbers>
#include <random>

#include "core/error.h"
#include "core/geometry/affine.h"
#include "core/geometry/arc.h"
#include "core/geometry/segment.h"
#include "core/refine/measure/differences.h"
#include "core/refine/propose/exact_shapes.h"
#include "core/refine/propose/proposal.h"
#include "core/refine/propose/symmetry.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr double kDegree = std::numbers::pi / 180;

/// The largest angle, degrees, by which a path turns at a joint of less than 20 degrees.
double worstJoint(const Path& path) {
  double worst = 0;
  const std::size_t n = path.segments.size();
  for (std::size_t i = path.closed ? 0 : 1; i < n; ++i) {
    const double turn =
        std::abs(angleBetween(tangentAt(pieceOf(path, (i + n - 1) % n), 1), tangentAt(pieceOf(path, i), 0))) / kDegree;
    if (turn < 20) worst = std::max(worst, turn);
  }
  return worst;
}

/// A square of 40 mm with round corners, whose arcs miss their tangents by up to `off` mm.
Path roundedSquare(double off, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> shift(-off, off);
  const auto near = [&](double x, double y) { return Point{x + shift(random), y + shift(random)}; };
  Path path{near(8, 0), {}, true};
  const double quarter = std::tan(std::numbers::pi / 8);
  path.segments = {Segment::line(near(32, 0)),  Segment::arc(near(40, 8), quarter),
                   Segment::line(near(40, 32)), Segment::arc(near(32, 40), quarter),
                   Segment::line(near(8, 40)),  Segment::arc(near(0, 32), quarter),
                   Segment::line(near(0, 8)),   Segment::arc(path.start, quarter)};
  return path;
}

/// A leaf with a notch: it has no symmetry of its own.
std::vector<Point> leaf() { return {{-12, 0}, {-6, 5}, {2, 6}, {9, 3}, {13, -1}, {7, -2}, {5, -5}, {-3, -4}}; }

/// Leaves all over a sheet, turned, every second mirrored, corners off by up to `off` mm; with a hole each.
Drawing leaves(double off, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> any(0, 1);
  std::vector<Path> paths;
  for (int k = 0; k < 6; ++k) {
    const Affine map = shift({40.0 + 45 * (k % 3), 40.0 + 45 * (k / 3)}) *
                       rotation(any(random) * 2 * std::numbers::pi) * scale(1, k % 2 == 0 ? 1 : -1);
    std::vector<Point> corners;
    for (const Point p : leaf()) corners.push_back(map(p) + Point{any(random) - 0.5, any(random) - 0.5} * (2 * off));
    paths.push_back(polygonThrough(corners));
    if (signedArea(paths.back()) < 0) paths.back() = reversed(paths.back());
    paths.push_back(reversed(circlePath(map({2, 2}) + Point{any(random) - 0.5, 0} * off, 1.2)));
  }
  return makeDrawing(std::move(paths));
}

Path box(Point low, double width, double height) {
  return polygonThrough({low, low + Point{width, 0}, low + Point{width, height}, low + Point{0, height}});
}

/// The lengths of a polygon's sides, ascending.
std::vector<double> sidesOf(const Path& path) {
  std::vector<double> sides;
  for (std::size_t i = 0; i < path.segments.size(); ++i) sides.push_back(lengthOf(pieceOf(path, i)));
  std::sort(sides.begin(), sides.end());
  return sides;
}

double residual(const Drawing& drawing, const Affine& map) {
  double most = 0;
  for (const Outline& outline : drawing.outlines) {
    const Path mapped = transformed(outline.path(), map, 1e-9);
    double least = std::numeric_limits<double>::infinity();
    for (const Outline& other : drawing.outlines) least = std::min(least, refine::apartBy(mapped, other.path()).mm);
    most = std::max(most, least);
  }
  return most;
}

}  // namespace

class TestNearThings : public QObject {
  Q_OBJECT

 private slots:
  void linesTouchTheirArcs() {
    for (unsigned seed = 1; seed <= 20; ++seed) {
      const Path path = roundedSquare(0.05, seed);
      QVERIFY(worstJoint(path) > 0.05);
      const refine::Refined refined = refine::truedUp(makeDrawing({path}), {refine::TrueUpKind::Tangent}, 0.3);
      QCOMPARE(refined.changes.size(), 1U);
      QVERIFY(refined.changes[0].movedMm < 0.15);
      QVERIFY2(worstJoint(refined.drawing.path(0)) < 1e-6, qPrintable(QString::number(seed)));
      QCOMPARE(refined.drawing.path(0).segments.size(), path.segments.size());
      QVERIFY(refine::truedUp(refined.drawing, {refine::TrueUpKind::Tangent}, 0.3).changes.empty());
    }
  }

  /// An arc that leads into one line alone keeps its radius and its other end.
  void anArcSlidesAlongItsLine() {
    for (const bool turned : {false, true}) {
      Path path{{0, 0}, {Segment::line({30, 0}), Segment::arc({40, 10.4}, std::tan(88 * kDegree / 4))}, false};
      if (turned) path = reversed(path);
      const double radius = arcFromBulge(path.start, path.segments[0].end, path.segments[0].bulge).radius;
      const refine::Refined refined = refine::truedUp(makeDrawing({path}), {refine::TrueUpKind::Tangent}, 1);
      QCOMPARE(refined.changes.size(), 1U);
      const Path& now = refined.drawing.path(0);
      QVERIFY(worstJoint(now) < 1e-6);
      QCOMPARE(turned ? now.start : now.segments.back().end, (Point{40, 10.4}));
      QCOMPARE(turned ? now.segments.back().end : now.start, (Point{0, 0}));
      if (turned)
        QVERIFY(std::abs(arcFromBulge(now.start, now.segments[0].end, now.segments[0].bulge).radius - radius) < 1e-9);
    }
  }

  void cornersThatAreMeantStay() {
    // An arch that stands on its sides at 10 degrees, and one that touches already.
    const Path bow{{0, 0}, {Segment::line({30, 0}), Segment::arc({40, 10}, std::tan(70 * kDegree / 4))}, false};
    QVERIFY(refine::truedUp(makeDrawing({bow, roundedSquare(0, 1)}), {refine::TrueUpKind::Tangent}, 1).changes.empty());
    // What would have to move too far is left.
    for (const refine::Change& c :
         refine::truedUp(makeDrawing({roundedSquare(0.2, 3)}), {refine::TrueUpKind::Tangent}, 0.02).changes)
      QVERIFY(c.movedMm <= 0.02);
  }

  void repeatsBecomeOnePart() {
    for (unsigned seed = 1; seed <= 5; ++seed) {
      const Drawing drawing = leaves(0.03, seed);
      const refine::Refined refined = refine::truedUp(drawing, {refine::TrueUpKind::Repeats}, 0.3);
      QCOMPARE(refined.changes.size(), 1U);
      QVERIFY(refined.changes[0].movedMm < 0.2);
      const std::vector<double> sides = sidesOf(refined.drawing.path(0));
      for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
        QVERIFY(refine::apartBy(refined.drawing.path(i), drawing.path(i)).mm < 0.2);
        QVERIFY((signedArea(refined.drawing.path(i)) > 0) == (signedArea(drawing.path(i)) > 0));
        if (i % 2 != 0) continue;
        const std::vector<double> own = sidesOf(refined.drawing.path(i));
        for (std::size_t k = 0; k < sides.size(); ++k) QVERIFY(std::abs(own[k] - sides[k]) < 1e-9);
      }
      QVERIFY(refine::truedUp(refined.drawing, {refine::TrueUpKind::Repeats}, 0.3).changes.empty());
    }
  }

  void partsThatOnlyLookAlikeStay() {
    std::vector<Point> other = leaf();
    other[2] = {2, 7.2};
    const Drawing two = makeDrawing({polygonThrough(leaf()), scaled(polygonThrough(other), 1, {50, 0})});
    QVERIFY(refine::truedUp(two, {refine::TrueUpKind::Repeats}, 0.3).changes.empty());
    // Nor are parts of several layers one.
    const Path leafOff = scaled(polygonThrough(leaf()), 1.003, {50, 0});
    QCOMPARE(refine::truedUp(makeDrawing({polygonThrough(leaf()), leafOff}), {refine::TrueUpKind::Repeats}, 0.3)
                 .changes.size(),
             1U);
    const Drawing apart = makeDrawing({polygonThrough(leaf()), leafOff}, {{"a", 0, 0, 0}, {"b", 9, 9, 9}}, {0, 1});
    QVERIFY(refine::truedUp(apart, {refine::TrueUpKind::Repeats}, 0.3).changes.empty());
    QVERIFY(refine::truedUp(makeDrawing({}), {refine::TrueUpKind::Repeats}, 0.3).changes.empty());
  }

  /// A diamond of four arms, each a little off.
  void aSecondAxisIsFound() {
    for (unsigned seed = 1; seed <= 6; ++seed) {
      std::mt19937 random(seed);
      std::uniform_real_distribution<double> off(-0.08, 0.08);
      std::vector<Point> corners;
      for (const Point p : {Point{30, 0}, Point{9, 6}, Point{0, 18}, Point{-9, 6}, Point{-30, 0}, Point{-9, -6},
                            Point{0, -18}, Point{9, -6}})
        corners.push_back(p + Point{off(random), off(random)});
      const Affine turn = shift({60, 50}) * rotation(20 * kDegree);
      const Drawing drawing = makeDrawing({transformed(polygonThrough(corners), turn, 1e-9)});
      const refine::Refined refined =
          refine::symmetrized(drawing, refine::SymmetryWish::Mirror, refine::SymmetryFrom::Best, 0.5);
      QCOMPARE(refined.changes.size(), 2U);
      const auto first = refine::symmetryOf(refined.drawing, refine::SymmetryWish::Mirror, 1e-3);
      QVERIFY(first.has_value());
      for (const double more : {0.0, std::numbers::pi / 2}) {
        const auto second = more == 0 ? first : refine::secondMirror(refined.drawing, *first, 1e-3);
        QVERIFY(second.has_value());
        QVERIFY2(residual(refined.drawing, mirrorAbout(second->centre, second->axisAngle)) < 1e-6,
                 qPrintable(QString("seed %1").arg(seed)));
      }
      QVERIFY(refine::apartBy(refined.drawing.path(0), drawing.path(0)).mm < 0.5);
    }
    // A kite has one axis alone.
    const Drawing kite = makeDrawing({polygonThrough({{0, 30}, {14, 10}, {0, -30}, {-14.05, 10}})});
    QCOMPARE(refine::symmetrized(kite, refine::SymmetryWish::Auto, refine::SymmetryFrom::Best, 0.5).changes.size(), 1U);
  }

  void differencesAreFoundWhereTheyAre() {
    const Drawing then = makeDrawing({box({0, 0}, 40, 20), circlePath({80, 10}, 8), box({100, 0}, 10, 10)});
    QVERIFY(refine::differencesBetween(then, then, 1, 0.01).empty());
    Drawing now = then;
    // A corner moved by 0.5 mm, and an outline that is gone.
    Path moved = then.path(0);
    moved.segments[1].end = moved.segments[1].end + Point{0.5, 0};
    now.setPath(0, moved);
    now.outlines.pop_back();
    const std::vector<refine::Difference> found = refine::differencesBetween(now, then, 1, 0.01);
    QCOMPARE(found.size(), 2U);
    QVERIFY(found[0].gone);
    QVERIFY(found[0].mm > 10);
    QVERIFY(!found[1].gone);
    QVERIFY2(distance(found[1].at, {40.5, 20}) < 0.6, qPrintable(QString::number(found[1].at.x)));
    QVERIFY(std::abs(found[1].mm - 0.5) < 0.02);
    // In px of half a millimetre the same, half as large.
    QVERIFY(std::abs(refine::differencesBetween(now, then, 0.5, 0.01)[1].mm - 0.25) < 0.01);
    // What is drawn anew along the same line differs nowhere.
    Drawing again = makeDrawing({then.path(0), reversed(then.path(1)), then.path(2)});
    QVERIFY(refine::differencesBetween(again, then, 1, 0.01).empty());
    // Against nothing all is new; against all of it nothing is there.
    QCOMPARE(refine::differencesBetween(then, makeDrawing({}), 1, 0.01).size(), 3U);
    QCOMPARE(refine::differencesBetween(makeDrawing({}), then, 1, 0.01).size(), 3U);
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, refine::differencesBetween(now, then, 1, 0.01, stop.get_token()));
  }
};

RIM_TEST(TestNearThings)
#include "tst_near_things.moc"
