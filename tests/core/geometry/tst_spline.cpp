#include <QTest>

#include "core/geometry/affine.h"
#include "core/geometry/arc.h"
#include "core/geometry/elliptic_arc.h"
#include "core/geometry/segment.h"
#include "core/geometry/spline.h"
#include "support/test_list.h"

using namespace rim;

class TestSpline : public QObject {
  Q_OBJECT

 private slots:
  /// Piegl and Tiller, The NURBS Book, section 7.5: a full circle of nine control points with weights 1 and sqrt(2)/2.
  void aCircleOfNineControlPointsIsACircle() {
    const double w = std::sqrt(0.5);
    const Spline circle{2,
                        {0, 0, 0, 0.25, 0.25, 0.5, 0.5, 0.75, 0.75, 1, 1, 1},
                        {{1, 0}, {1, 1}, {0, 1}, {-1, 1}, {-1, 0}, {-1, -1}, {0, -1}, {1, -1}, {1, 0}},
                        {1, w, 1, w, 1, w, 1, w, 1}};
    QVERIFY(isSound(circle));
    for (int i = 0; i <= 40; ++i) QVERIFY(std::abs(length(pointOn(circle, i / 40.0)) - 1) < 1e-12);
    const Path path = pathOf(circle, false, 1e-4);
    QVERIFY(path.closed);
    QVERIFY(std::abs(signedArea(path) - M_PI) < 1e-3);
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      for (int k = 0; k <= 10; ++k) QVERIFY(std::abs(length(pointAt(pieceOf(path, i), k / 10.0)) - 1) < 1.5e-4);
    }
  }

  void polynomialSpansAreExact() {
    const Spline spline{3, {0, 0, 0, 0, 1, 2, 2, 2, 2}, {{0, 0}, {1, 3}, {4, 3}, {6, -2}, {8, 0}}, {}};
    const Path path = pathOf(spline, false, 1e-9);
    QCOMPARE(path.segments.size(), 2U);
    for (int k = 0; k <= 20; ++k) {
      QVERIFY(distance(pointAt(pieceOf(path, 0), k / 20.0), pointOn(spline, k / 20.0)) < 1e-12);
      QVERIFY(distance(pointAt(pieceOf(path, 1), k / 20.0), pointOn(spline, 1 + k / 20.0)) < 1e-12);
    }
  }

  void unsoundSplinesAreRefused() {
    const Spline good{1, {0, 0, 1, 1}, {{0, 0}, {1, 1}}, {}};
    QVERIFY(isSound(good));
    for (const auto& spoil : std::initializer_list<void (*)(Spline&)>{
             [](Spline& s) { s.knots.pop_back(); }, [](Spline& s) { s.knots[2] = -1; },
             [](Spline& s) { s.controls.pop_back(); }, [](Spline& s) { s.degree = 0; },
             [](Spline& s) {
               s.weights = {1, 0};
             },
             [](Spline& s) { s.controls[0].x = NAN; },
             [](Spline& s) {
               s.knots = {0, 0, 0, 0};
             }}) {
      Spline bad = good;
      spoil(bad);
      QVERIFY(!isSound(bad));
    }
  }

  void aSmoothCurveGoesThroughItsPoints() {
    const std::vector<Point> points{{0, 0}, {3, 4}, {7, 2}, {9, 6}};
    const Path path = throughPoints(points, false);
    QCOMPARE(path.segments.size(), 3U);
    for (std::size_t i = 0; i + 1 < path.segments.size(); ++i) {
      QVERIFY(distance(path.segments[i].end, points[i + 1]) < 1e-12);
      QVERIFY(std::abs(angleBetween(tangentAt(pieceOf(path, i), 1), tangentAt(pieceOf(path, i + 1), 0))) < 1e-9);
    }
  }

  /// W3C, SVG 1.1, appendix F.6.5: from the endpoint form to the centre form and back by F.6.4.
  void arcsOfSvgAgreeWithTheirCentreForm_data() {
    QTest::addColumn<double>("rotation");
    QTest::addColumn<bool>("large");
    QTest::addColumn<bool>("sweep");
    for (const double rotation : {0.0, 0.5, -1.2}) {
      for (const bool large : {false, true}) {
        for (const bool sweep : {false, true})
          QTest::addRow("turned by %.1f, large %d, sweep %d", rotation, large, sweep) << rotation << large << sweep;
      }
    }
  }
  void arcsOfSvgAgreeWithTheirCentreForm() {
    QFETCH(double, rotation);
    QFETCH(bool, large);
    QFETCH(bool, sweep);
    const Point from{10, 20};
    const Point to{40, 35};
    const EllipticArc arc = ellipticArc(from, {40, 25}, rotation, large, sweep, to);
    QVERIFY(distance(pointOn(arc, arc.startAngle), from) < 1e-9);
    QVERIFY(distance(pointOn(arc, arc.startAngle + arc.sweep), to) < 1e-9);
    QCOMPARE(std::abs(arc.sweep) > M_PI, large);
    QCOMPARE(arc.sweep > 0, sweep);
    QVERIFY(std::abs(length(arc.major) - 40) < 1e-9 && std::abs(length(arc.minor) - 25) < 1e-9);
  }

  void radiiTooSmallGrowAndNoneMeansALine() {
    const EllipticArc arc = ellipticArc({0, 0}, {1, 1}, 0, false, true, {10, 0});  // F.6.6.3
    QVERIFY(std::abs(length(arc.major) - 5) < 1e-12);
    QCOMPARE(ellipticArc({0, 0}, {0, 5}, 0, false, true, {10, 0}).sweep, 0.0);
    QCOMPARE(ellipticArc({3, 3}, {5, 5}, 0, false, true, {3, 3}).sweep, 0.0);
  }

  void mapsKeepArcsWhereCirclesStayCircles() {
    const Path half{{5, 0}, {Segment::arc({-5, 0}, 1)}, false};
    const Path turned = transformed(half, shift({1, 2}) * rotation(0.7) * scale(2, 2), 1e-6);
    QCOMPARE(turned.segments[0].kind, SegmentKind::Arc);
    QCOMPARE(turned.segments[0].bulge, 1.0);
    QCOMPARE(transformed(half, scale(-1, 1), 1e-6).segments[0].bulge, -1.0);
    const Path flat = transformed(half, scale(2, 1), 1e-6);
    QCOMPARE(flat.segments[0].kind, SegmentKind::Cubic);
    QVERIFY(std::abs(std::abs(signedArea(flat)) - M_PI * 10 * 5 / 2) < 1e-4);
  }
};

RIM_TEST(TestSpline)
#include "tst_spline.moc"
