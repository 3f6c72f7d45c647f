#include <QTest>
#include <random>

#include "core/drawing/drawing.h"
#include "core/geometry/arc.h"
#include "core/geometry/cubic.h"
#include "core/geometry/curve_form.h"
#include "core/geometry/flatten.h"
#include "core/geometry/outermost.h"
#include "support/measure.h"
#include "support/test_list.h"

using namespace rim;

namespace {

/// A closed path of two random cubics and an arc; it may cross itself.
Path randomPath(unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> at(-100, 100);
  const auto point = [&] { return Point{at(random), at(random)}; };
  Path path{point(), {}, true};
  path.segments = {Segment::cubic(point(), point(), point()), Segment::arc(point(), at(random) / 60),
                   Segment::cubic(point(), point(), path.start)};
  return path;
}

double largestDistance(const Path& from, const Path& to) {
  const std::vector<Point> target = flatten(to, 1e-4);
  double largest = 0;
  for (const Point p : flatten(from, 1e-2)) largest = std::max(largest, test::distanceToPolygon(p, target));
  return largest;
}

}  // namespace

class TestCurveForm : public QObject {
  Q_OBJECT

 private slots:
  void everyFormStaysWithinTheTolerance_data() {
    QTest::addColumn<int>("form");
    QTest::addColumn<int>("seed");
    for (const auto& [form, name] : {std::pair{CurveForm::Arcs, "arcs"}, {CurveForm::Lines, "lines"}}) {
      for (int seed = 1; seed <= 6; ++seed) {
        QTest::addRow("%s, seed %d", name, seed) << static_cast<int>(form) << seed;
      }
    }
  }
  void everyFormStaysWithinTheTolerance() {
    QFETCH(int, form);
    QFETCH(int, seed);
    constexpr double kTolerance = 0.05;
    const Path path = randomPath(static_cast<unsigned>(seed));
    const Path other = inForm(path, static_cast<CurveForm>(form), kTolerance);
    QVERIFY(other.closed);
    const double there = largestDistance(path, other);
    const double back = largestDistance(other, path);
    QVERIFY2(there < kTolerance * 1.1 && back < kTolerance * 1.1,
             qPrintable(QStringLiteral("%1 %2").arg(there).arg(back)));
  }

  void arcsHoldNoCubicAndShareTangents() {
    const Path arcs = inForm(randomPath(3), CurveForm::Arcs, 0.05);
    const Path cubic{{0, 0}, {Segment::cubic({30, 60}, {60, -40}, {90, 10})}, false};
    const Path smooth = inForm(cubic, CurveForm::Arcs, 0.01);
    QVERIFY(countsOf(Paths(arcs)).curves == 0);
    for (std::size_t i = 1; i < smooth.segments.size(); ++i) {
      const Point in = endTangent(segmentStart(smooth, i - 1), smooth.segments[i - 1]);
      const Point out = startTangent(segmentStart(smooth, i), smooth.segments[i]);
      QVERIFY2(qAbs(angleBetween(in, out)) < 1e-6, qPrintable(QString::number(angleBetween(in, out))));
    }
    QVERIFY(distance(endTangent(segmentStart(smooth, smooth.segments.size() - 1), smooth.segments.back()),
                     tangent({{0, 0}, {30, 60}, {60, -40}, {90, 10}}, 1)) < 1e-6);
  }

  void bezierFormHoldsNoArc() {
    const Counts counts = countsOf(std::vector{inForm(randomPath(4), CurveForm::Beziers, 0.05)});
    QCOMPARE(counts.arcs, 0U);
    QVERIFY(counts.curves >= 3);
  }

  void lineFormHoldsLinesOnly() {
    const Counts counts = countsOf(std::vector{inForm(randomPath(5), CurveForm::Lines, 0.05)});
    QCOMPARE(counts.arcs + counts.curves, 0U);
  }

  void nodesAtTheOutermostPlacesKeepTheBox_data() {
    QTest::addColumn<int>("seed");
    for (int seed = 10; seed < 22; ++seed) QTest::addRow("seed %d", seed) << seed;
  }
  void nodesAtTheOutermostPlacesKeepTheBox() {
    QFETCH(int, seed);
    const Path path = randomPath(static_cast<unsigned>(seed));
    const Box box = boxOf(path);
    for (const CurveForm form : {CurveForm::Beziers, CurveForm::Arcs, CurveForm::Lines}) {
      const Path nodes = withOutermostNodes(path, box, 0.05, form);
      QVERIFY(largestDistance(path, nodes) < 1e-3);
      const Box other = boxOf(inForm(nodes, form, 0.05));
      QVERIFY(qAbs(other.width() - box.width()) < 1e-6);
      QVERIFY(qAbs(other.height() - box.height()) < 1e-6);
    }
  }

  void aStraightCubicBecomesALine() {
    const Path path{{0, 0}, {Segment::cubic({1, 1}, {2, 2}, {3, 3})}, false};
    const Path arcs = inForm(path, CurveForm::Arcs, 0.01);
    QCOMPARE(arcs.segments.size(), 1U);
    QVERIFY(arcs.segments[0].kind == SegmentKind::Line);
  }
};

RIM_TEST(TestCurveForm)
#include "tst_curve_form.moc"
