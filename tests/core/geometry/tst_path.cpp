#include <QTest>
#include <numbers>
#include <random>

#include "core/drawing/drawing.h"
#include "core/geometry/arc.h"
#include "core/geometry/cubic.h"
#include "core/geometry/flatten.h"
#include "core/geometry/path.h"
#include "core/geometry/segment.h"
#include "support/test_list.h"

using namespace rim;

namespace {

constexpr double kPi = std::numbers::pi;

Path circle(Point centre, double radius) {
  const Point right{radius, 0};
  return {centre + right, {Segment::arc(centre - right, 1), Segment::arc(centre + right, 1)}, true};
}

/// A drop: one cubic loop closed by a line.
Path drop() { return {{0, 0}, {Segment::cubic({4, 6}, {9, -3}, {10, 2}), Segment::line({0, 0})}, true}; }

}  // namespace

class TestPath : public QObject {
  Q_OBJECT

 private slots:
  void circleHasTheAreaOfTheFormula() {
    QVERIFY(qAbs(signedArea(circle({1000, -500}, 3)) - kPi * 9) < 1e-9);
    QVERIFY(qAbs(signedArea(reversed(circle({0, 0}, 3))) + kPi * 9) < 1e-9);
  }

  void circleHasTheLengthOfTheFormula() { QVERIFY(qAbs(pathLength(circle({5, 5}, 2)) - 4 * kPi) < 1e-9); }

  void areaOfACubicAgreesWithItsPolyline() {
    const std::vector<Point> points = flatten(drop(), 1e-6);
    double polygon = 0;
    for (std::size_t i = 0; i < points.size(); ++i) polygon += cross(points[i], points[(i + 1) % points.size()]) / 2;
    QVERIFY2(qAbs(signedArea(drop()) - polygon) < 1e-4, qPrintable(QString::number(signedArea(drop()) - polygon)));
  }

  void lengthOfACubicAgreesWithItsPolyline() {
    const Path open{{0, 0}, {Segment::cubic({4, 6}, {9, -3}, {10, 2})}, false};
    const std::vector<Point> points = flatten(open, 1e-7);
    double sum = 0;
    for (std::size_t i = 1; i < points.size(); ++i) sum += distance(points[i - 1], points[i]);
    QVERIFY(qAbs(pathLength(open) - sum) < 1e-4);
  }

  void boxHoldsTheBulgeOfArcsAndCubics() {
    const Box round = boxOf(circle({1, 2}, 3));
    QCOMPARE(round.low.x, -2.0);
    QCOMPARE(round.high.y, 5.0);
    Box sampled;
    for (const Point p : flatten(drop(), 1e-7)) sampled.include(p);
    const Box box = boxOf(drop());
    QVERIFY(qAbs(box.high.y - sampled.high.y) < 1e-5 && qAbs(box.low.y - sampled.low.y) < 1e-5);
  }

  void reversedTwiceIsTheSamePath() { QVERIFY(reversed(reversed(drop())) == drop()); }

  void reversedRunsThroughTheSamePlaces() {
    const Path back = reversed(drop());
    QVERIFY(qAbs(signedArea(back) + signedArea(drop())) < 1e-12);
    QCOMPARE(pathLength(back), pathLength(drop()));
  }

  void tangentsOfAnArcStandOnItsSpokes() {
    const Segment quarter = Segment::arc({0, 1}, bulgeFromSweep(kPi / 2));
    const Point leaves = startTangent({1, 0}, quarter);
    const Point arrives = endTangent({1, 0}, quarter);
    QVERIFY(distance(leaves, {0, 1}) < 1e-12);
    QVERIFY(distance(arrives, {-1, 0}) < 1e-12);
  }

  void bulgeIsTheTangentOfAQuarterOfTheAngle() {
    // Source: DXF reference, LWPOLYLINE, group code 42; a quarter circle has 0.41421.
    QVERIFY(qAbs(bulgeFromSweep(kPi / 2) - 0.41421356) < 1e-8);
    const Arc arc = arcFromBulge({1, 0}, {0, 1}, bulgeFromSweep(kPi / 2));
    QVERIFY(distance(arc.centre, {0, 0}) < 1e-12);
    QVERIFY(qAbs(arc.radius - 1) < 1e-12);
  }

  void aStraightArcIsALine() {
    for (const double bulge : {0.0, -0.0, 1e-300, -9e-8}) QVERIFY(Segment::arc({4, 0}, bulge) == Segment::line({4, 0}));
    for (const double bulge : {1e-7, -1e-7, 1000.0}) {
      const Segment arc = Segment::arc({4, 0}, bulge);
      QCOMPARE(arc.kind, SegmentKind::Arc);
      QVERIFY(std::isfinite(arcFromBulge({0, 0}, arc.end, arc.bulge).radius));
    }
  }

  void aCubicIsAPolynomial() {
    const Cubic c{{1, 2}, {30, -4}, {-7, 21}, {12, 13}};
    const CubicPolynomial same(c);
    for (const double t : {-0.15, 0.0, 0.3, 0.77, 1.0, 1.15}) {
      QVERIFY(distance(same.at(t), pointOn(c, t)) < 1e-12);
      QVERIFY(distance(same.derivative(t), derivative(c, t)) < 1e-12);
      QVERIFY(distance(same.secondDerivative(t), secondDerivative(c, t)) < 1e-12);
    }
  }

  void anArcAsCubicsLeavesTheCircleByNoMoreThanItsHeaderSays() {
    Point from{10, 0};
    for (const Segment& s : cubicsFromArc(from, Segment::arc({-10, 0}, 1), 0.01)) {
      const Cubic c{from, s.handle1, s.handle2, s.end};
      for (int i = 0; i <= 50; ++i) QVERIFY(qAbs(length(pointOn(c, i / 50.0)) - 10) < 2.8e-4 * 10);
      from = s.end;
    }
    QCOMPARE(from.x, -10.0);
  }

  void flatteningStaysWithinItsChordError() {
    const std::vector<Point> points = flatten(circle({0, 0}, 50), 0.1);
    for (std::size_t i = 0; i < points.size(); ++i) {
      const Point middle = lerp(points[i], points[(i + 1) % points.size()], 0.5);
      QVERIFY(50 - length(middle) <= 0.1 + 1e-9);
    }
  }

  void countsTellSegmentsApart() {
    const Path open{{0, 0}, {Segment::line({1, 0}), Segment::arc({2, 0}, 0.5)}, false};
    const Counts counts = countsOf(std::vector{circle({0, 0}, 1), drop(), open});
    QCOMPARE(counts.outlines, 3U);
    QCOMPARE(counts.closed, 2U);
    QCOMPARE(counts.open, 1U);
    QCOMPARE(counts.nodes, 7U);
    QCOMPARE(counts.lines, 2U);
    QCOMPARE(counts.arcs, 3U);
    QCOMPARE(counts.curves, 1U);
  }

  void theNearestPlaceOfACurveIsFound() {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> in(-10, 10);
    const auto place = [&] { return Point{in(random), in(random)}; };
    for (int k = 0; k < 400; ++k) {
      // Every third one has a cusp, or nearly.
      const double off = k % 3 == 0 ? 1e-3 * in(random) : in(random);
      const Point a = place();
      const Point b = a + Point{10, 10};
      const Piece curve{a, k % 3 == 0 ? Segment::cubic(b, a + Point{off, 10}, a + Point{10, 0})
                                      : Segment::cubic(place(), place(), place())};
      const Point p = k % 2 == 0 ? place() : pointAt(curve, std::abs(in(random)) / 10);
      double least = 1e9;
      constexpr int kMany = 4000;
      for (int i = 0; i <= kMany; ++i)
        least = std::min(least, distance(pointAt(curve, static_cast<double>(i) / kMany), p));
      const double found = distanceTo(curve, p);
      // A loop of a thousandth, as off a cusp, may hide in one of the steps that are looked at.
      const double hidden = k % 3 == 0 ? 2e-4 : 1e-9;
      QVERIFY2(found <= least + hidden, qPrintable(QStringLiteral("%1: %2 of %3").arg(k).arg(found).arg(least)));
      if (k % 2 == 1)
        QVERIFY2(found < std::max(1e-6, hidden), qPrintable(QStringLiteral("%1: on it, %2").arg(k).arg(found)));
    }
  }
};

RIM_TEST(TestPath)
#include "tst_path.moc"
