// How two ends come together, and which.

#include <QTest>

#include "core/geometry/arc.h"
#include "core/mend/repair/join.h"
#include "core/mend/repair/meet.h"
#include "core/mend/repair/simplify.h"
#include "core/mend/repair/strokes.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

Piece line(Point a, Point b) { return {a, Segment::line(b)}; }
/// Where both come together when nothing lies between.
Point meetingOf(const Piece& before, const Piece& after, const mend::MendSettings& settings = {}) {
  const mend::Joint j = mend::joint(before, after, settings);
  return j.between.empty() ? j.before.end : Point{NAN, NAN};
}

}  // namespace

class TestJoin : public QObject {
  Q_OBJECT

 private slots:
  void linesMeetAtTheirCorner() {
    QVERIFY(distance(meetingOf(line({0, 0}, {9.7, 0}), line({10, 0.3}, {10, 8})), {10, 0}) < 1e-12);
    QVERIFY(distance(meetingOf(line({0, 0}, {10.3, 0}), line({10, -0.2}, {10, 8})), {10, 0}) < 1e-12);  // both too long
    QVERIFY(distance(meetingOf(line({0, 0}, {10.3, 0}), line({10, 0.2}, {10, 8})), {10, 0}) < 1e-12);   // one of each
  }

  void arcsAreLengthenedAlongTheirCircle() {
    // A quarter turn about the origin that ends 3 degrees early, and the line x = 0 above it.
    const double sweep = 87 * M_PI / 180;
    const Piece arc{{5, 0}, Segment::arc({5 * std::cos(sweep), 5 * std::sin(sweep)}, std::tan(sweep / 4))};
    const mend::Joint j = mend::joint(arc, line({0, 5.2}, {0, 12}), {});
    QVERIFY(distance(j.before.end, {0, 5}) < 1e-9);
    const Arc longer = arcFromBulge(arc.start, j.before.end, j.before.bulge);
    QVERIFY(std::abs(longer.radius - 5) < 1e-9 && length(longer.centre) < 1e-9);
  }

  void whatGoesOnStraightIsBridged() {
    const mend::Joint j = mend::joint(line({0, 0}, {10, 0}), line({10.4, 0}, {20, 0}), {});
    QCOMPARE(j.between.size(), 1U);
    QCOMPARE(j.between[0].kind, SegmentKind::Line);
    const mend::Joint bent =
        mend::joint({{0, 0}, Segment::arc({5, 5}, 0.41)}, {{5.02, 5.4}, Segment::arc({0, 10}, 0.41)}, {});
    QCOMPARE(bent.between.size(), 1U);
    QCOMPARE(bent.between[0].kind, SegmentKind::Cubic);
  }

  void nearEndsMoveHalfWay() {
    const Point p = meetingOf(line({0, 0}, {10, 0}), line({10, 0.04}, {20, 0.04}));
    QVERIFY(distance(p, {10, 0.02}) < 1e-12);
  }

  void farMeetingsAreNotTaken() {
    // Nearly parallel lines that would meet 30 mm on.
    const mend::Joint j = mend::joint(line({0, 0}, {10, 0}), line({10.2, 0.3}, {0, 3.3}), {});
    QVERIFY(std::abs(j.before.end.x) < 12);
  }

  void linesOnOneLineAndArcsOnOneCircleBecomeOne() {
    QCOMPARE(mend::asOne(line({0, 0}, {4, 0}), line({4, 0}, {9, 0}), 0.002).size(), 1U);
    QVERIFY(mend::asOne(line({0, 0}, {4, 0.01}), line({4, 0.01}, {9, 0}), 0.002).empty());
    QVERIFY(mend::asOne(line({0, 0}, {4, 0}), line({4, 0}, {1, 0}), 0.002).empty());  // back on itself
    const double eighth = std::tan(M_PI / 16);
    const Point middle{5 * std::cos(M_PI / 4), 5 * std::sin(M_PI / 4)};
    const auto whole =
        mend::asOne({{5, 0}, Segment::arc(middle, eighth)}, {middle, Segment::arc({0, 5}, eighth)}, 0.002);
    QCOMPARE(whole.size(), 1U);
    QVERIFY(std::abs(whole[0].bulge - std::tan(M_PI / 8)) < 1e-12);
    QVERIFY(
        mend::asOne({{5, 0}, Segment::arc(middle, eighth)}, {middle, Segment::arc({0, 5}, -eighth)}, 0.002).empty());
  }

  void looseLinesInAnyOrderBecomeOneOutlineWithoutNeedlessNodes() {
    Drawing drawing;
    setPaths(drawing, {linePath({10, 10}, {0, 10}), linePath({10, 0}, {5, 0}), linePath({0, 10}, {0, 0}),
                       linePath({0, 0}, {5, 0}), linePath({10, 0}, {10, 10})});
    const mend::Repaired joined = mend::joinEnds(drawing, {});
    QCOMPARE(joined.drawing.outlines.size(), 1U);
    QVERIFY(joined.drawing.path(0).closed);
    QCOMPARE(joined.drawing.path(0).segments.size(), 4U);
    QCOMPARE(joined.count, 5U);
  }

  void endsOfOneLayerFindEachOtherFirst() {
    Drawing drawing;
    drawing.layers = {{"a", 0, 0, 0}, {"b", 0, 0, 0}};
    setPaths(drawing, {linePath({0, 0}, {10, 0}), linePath({10.2, 0}, {20, 0}), linePath({10.1, 0}, {10.1, 9})});
    setLayers(drawing, {0, 0, 1});
    const mend::Repaired joined = mend::joinEnds(drawing, {});
    QCOMPARE(joined.drawing.outlines.size(), 2U);
    QVERIFY(std::abs(boxOf(joined.drawing.path(0)).width() - 20) < 1e-9);
  }

  void movedSidewaysAPathKeepsItsDistance_data() {
    QTest::addColumn<double>("mm");
    QTest::newRow("inwards") << 0.4;
    QTest::newRow("outwards") << -0.4;
  }
  void movedSidewaysAPathKeepsItsDistance() {
    QFETCH(double, mm);
    const Path square = polygonThrough({{0, 0}, {20, 0}, {20, 10}, {0, 10}});
    const Path moved = mend::movedSideways(square, mm, 0.001);
    QCOMPARE(moved.segments.size(), 4U);
    QVERIFY(std::abs(signedArea(moved) - (20 - 2 * mm) * (10 - 2 * mm)) < 1e-9);
    const Path disc = mend::movedSideways(circlePath({0, 0}, 5), mm, 0.001);
    QVERIFY(std::abs(signedArea(disc) - M_PI * (5 - mm) * (5 - mm)) < 1e-6);
  }

  void roundedCornersVanishWhenTheyShrinkToAPoint() {
    const double quarter = std::tan(M_PI / 8);
    const Path rounded{{0.4, 0},
                       {Segment::line({19.6, 0}), Segment::arc({20, 0.4}, quarter), Segment::line({20, 9.6}),
                        Segment::arc({19.6, 10}, quarter), Segment::line({0.4, 10}), Segment::arc({0, 9.6}, quarter),
                        Segment::line({0, 0.4}), Segment::arc({0.4, 0}, quarter)},
                       true};
    const Path sharp = mend::movedSideways(rounded, 0.4, 0.001);
    QCOMPARE(sharp.segments.size(), 4U);
    QVERIFY(std::abs(signedArea(sharp) - 19.2 * 9.2) < 1e-6);
  }

  void simplifiedPathsKeepToTheirDistance() {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> jitter(-0.02, 0.02);
    std::vector<Point> points;
    for (int k = 0; k < 400; ++k) {
      const double angle = k * M_PI / 200;
      const double r = 20 + 4 * std::sin(3 * angle) + jitter(random);
      points.push_back(Point{std::cos(angle), std::sin(angle)} * r);
    }
    const Path path = polygonThrough(points);
    for (const double tolerance : {0.05, 0.2, 1.0}) {
      const Path few = mend::simplified(path, tolerance);
      QVERIFY(few.closed && few.segments.back().end == few.start);
      for (const Point p : points) {
        double off = 1e9;
        for (std::size_t i = 0; i < few.segments.size(); ++i) {
          const Piece piece = pieceOf(few, i);
          off = std::min(off, distanceTo(piece, p));
        }
        QVERIFY2(off <= tolerance, qPrintable(QString("%1 at %2").arg(off).arg(tolerance)));
      }
      QVERIFY(few.segments.size() < (tolerance < 0.1 ? 80U : 30U));
    }
  }
};

RIM_TEST(TestJoin)
#include "tst_join.moc"
