// What is lost most easily: the ends of thin strokes, corners that noise has eaten into, round things with one bad
// point. Truth: the figures' own coordinates.

#include <QList>
#include <QPointF>
#include <QTest>
#include <numbers>
#include <random>

#include "core/drawing/drawing.h"
#include "core/geometry/path_place.h"
#include "core/trace/contour/sharpen.h"
#include "core/trace/outline/fit_outline.h"
#include "core/trace/outline/without_backsteps.h"
#include "core/trace/split/track.h"
#include "core/trace/trace.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr int kSize = 120;

/// A T: a bar 44 px wide on a stem 30 px long, both `stroke` px wide, turned about the picture's middle. Rows count
/// downwards.
std::vector<Point> letterT(double stroke, double turnRadians) {
  const double half = stroke / 2;
  const std::vector<Point> upright{{-22, -20}, {22, -20},   {22, stroke - 20},    {half, stroke - 20},
                                   {half, 20}, {-half, 20}, {-half, stroke - 20}, {-22, stroke - 20}};
  std::vector<Point> turned;
  const double c = std::cos(turnRadians);
  const double s = std::sin(turnRadians);
  for (const Point p : upright) turned.push_back({60.3 + c * p.x - s * p.y, 59.8 + s * p.x + c * p.y});
  return turned;
}

/// A point every px along a closed polygon, off by noise, none within `eatenPx` of a corner.
trace::contour::Border polygonBorder(const std::vector<Point>& corners, double noisePx, double eatenPx) {
  std::mt19937 random(5);
  std::normal_distribution<double> noise(0, noisePx);
  trace::contour::Border border;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Point from = corners[i];
    const Point way = corners[(i + 1) % corners.size()] - from;
    for (double along = eatenPx; along <= length(way) - eatenPx; along += 1)
      border.push_back(from + unit(way) * along + leftNormal(unit(way)) * noise(random));
  }
  return border;
}

double nearestNode(const Path& path, Point p) {
  double least = 1e9;
  for (const Segment& s : path.segments) least = std::min(least, distance(s.end, p));
  return least;
}

}  // namespace

class TestThinEnds : public QObject {
  Q_OBJECT

 private slots:
  void aThinLetterKeepsItsEnds_data() {
    QTest::addColumn<double>("stroke");
    QTest::addColumn<double>("degrees");
    for (const double stroke : {3.6, 4.2, 5.0}) {
      for (const double degrees : {0.0, 4.0, 21.0, 33.0, 45.0, 58.0, 71.0, 200.0})
        QTest::addRow("%g px, %g degrees", stroke, degrees) << stroke << degrees;
    }
  }
  void aThinLetterKeepsItsEnds() {
    QFETCH(double, stroke);
    QFETCH(double, degrees);
    const std::vector<Point> corners = letterT(stroke, degrees * std::numbers::pi / 180);
    const trace::Tracing t = trace::trace(pictureOf(drawn(kSize, kSize, polygon(corners))), {});
    QCOMPARE(t.outlines.size(), 1U);
    const std::size_t segments = t.outlines[0].segments.size();
    QVERIFY2(segments == 8 || segments == 9, qPrintable(QString::number(segments)));
    const double p95 =
        percentile95(t.outlines, [c = upright(corners, kSize)](Point p) { return distanceToPolygon(p, c); });
    QVERIFY2(p95 < 0.35, qPrintable(QString::number(p95)));
    QVERIFY2(qAbs(enclosedArea(t.outlines) / (44 * stroke + (40 - stroke) * stroke) - 1) < 0.03,
             qPrintable(QString::number(enclosedArea(t.outlines))));
    for (const Point corner : upright(corners, kSize))
      QVERIFY2(nearestNode(t.outlines[0], corner) < 1, qPrintable(QString::number(nearestNode(t.outlines[0], corner))));
  }

  void aSmallRoundIsAnArc_data() {
    QTest::addColumn<int>("degrees");
    for (const int degrees : {0, 25, 40, 65}) QTest::addRow("%d degrees", degrees) << degrees;
  }
  void aSmallRoundIsAnArc() {
    QFETCH(int, degrees);
    // A U of a stroke 4 px wide, bent with radii of 3.6 and 7.6 px, in noise.
    const double turn = degrees * std::numbers::pi / 180;
    cv::Mat grey = drawn(kSize, kSize, [turn](double x, double y) {
      const double u = (x - 60.3) * std::cos(turn) + (y - 59.8) * std::sin(turn);
      const double v = (y - 59.8) * std::cos(turn) - (x - 60.3) * std::sin(turn);
      return v < -20 ? false : std::abs((v < 0 ? std::abs(u) : std::hypot(u, v)) - 5.6) < 2;
    });
    cv::Mat noise(grey.size(), CV_16S);
    cv::theRNG().state = 3;
    cv::randn(noise, 0, 4);
    cv::add(grey, noise, grey, cv::noArray(), CV_8U);
    const trace::Tracing t = trace::trace(pictureOf(grey), {});
    QCOMPARE(t.outlines.size(), 1U);
    const Counts counts = countsOf(t.outlines);
    QVERIFY2(counts.arcs + counts.curves >= 2, qPrintable(QString::number(counts.arcs + counts.curves)));
    QVERIFY2(counts.lines <= 7, qPrintable(QString::number(counts.lines)));
    const double area = 2 * 20 * 4 + std::numbers::pi / 2 * (7.6 * 7.6 - 3.6 * 3.6);
    QVERIFY2(qAbs(enclosedArea(t.outlines) / area - 1) < 0.02, qPrintable(QString::number(enclosedArea(t.outlines))));
  }

  void noiseThatEatsACornerTurnsNoLine() {
    // A corner of 60 degrees whose tip is not seen for more than clean pixels would hide.
    const std::vector<Point> corners{{0, 0}, {60, 0}, {30, 30 * std::numbers::sqrt3}};
    const Path path = trace::outline::fitOutline(polygonBorder(corners, 0.12, 2.2), {});
    QCOMPARE(path.segments.size(), 3U);
    for (const Point corner : corners)
      QVERIFY2(nearestNode(path, corner) < 0.4, qPrintable(QString::number(nearestNode(path, corner))));
  }

  void oneBadPointKeepsACircleOne() {
    trace::contour::Border border;
    for (int i = 0; i < 320; ++i) {
      const double angle = 2 * std::numbers::pi * i / 320;
      const double radius = 60 + (i == 40 ? 0.16 : 0.01 * std::sin(7.0 * i));
      border.push_back({radius * std::cos(angle), radius * std::sin(angle)});
    }
    const Path path = trace::outline::fitOutline(border, {});
    QCOMPARE(path.segments.size(), 2U);
    QVERIFY(std::abs(signedArea(path) / (std::numbers::pi * 3600) - 1) < 1e-3);
  }

  void aNotchIsNoBadPoint() {
    // Twelve points in a row that are well off are a flat, not one point.
    trace::contour::Border border;
    for (int i = 0; i < 320; ++i) {
      const double angle = 2 * std::numbers::pi * i / 320;
      const double radius = std::min(60.0, 59.2 / std::max(0.1, std::cos(angle)));
      border.push_back({radius * std::cos(angle), radius * std::sin(angle)});
    }
    const Path path = trace::outline::fitOutline(border, {});
    QVERIFY(path.segments.size() > 2);
    double off = 0;
    for (const Point p : border) off = std::max(off, nearestOn(path, p).off);
    QVERIFY2(off < 0.6, qPrintable(QString::number(off)));
  }

  void stepsBackAreTakenOut_data() {
    QTest::addColumn<QList<QPointF>>("corners");
    QTest::addColumn<int>("segments");
    // Of a closed path; a step back takes a segment away.
    QTest::newRow("a square") << QList<QPointF>{{0, 0}, {50, 0}, {50, 50}, {0, 50}} << 4;
    QTest::newRow("a short step back") << QList<QPointF>{{0, 0}, {30, 0}, {29.6, 0.1}, {50, 0}, {50, 50}, {0, 50}} << 5;
    QTest::newRow("a short step aside") << QList<QPointF>{{0, 0}, {30, 0}, {30, 0.4}, {50, 0.4}, {50, 50}, {0, 50}}
                                        << 6;
    QTest::newRow("a long fold within half a pixel")
        << QList<QPointF>{{0, 0}, {30, 0}, {22, 0.2}, {50, 0.3}, {50, 50}, {0, 50}} << 5;
    QTest::newRow("a zigzag") << QList<QPointF>{{0, 0}, {30, 0}, {10, 4}, {50, 8}, {50, 50}, {0, 50}} << 6;
  }
  void stepsBackAreTakenOut() {
    QFETCH(QList<QPointF>, corners);
    QFETCH(int, segments);
    Path path{{corners[0].x(), corners[0].y()}, {}, true};
    for (qsizetype i = 1; i <= corners.size(); ++i)
      path.segments.push_back(Segment::line({corners[i % corners.size()].x(), corners[i % corners.size()].y()}));
    const Path without = trace::outline::withoutBacksteps(path);
    QCOMPARE(without.segments.size(), static_cast<std::size_t>(segments));
    QVERIFY(std::abs(signedArea(without) - signedArea(path)) < 2);
    QVERIFY(trace::outline::withoutBacksteps(without) == without);
  }

  void curvesMeetWhereAStepBackWas() {
    Path path{{0, 0},
              {Segment::cubic({10, -4}, {20, -4}, {30, 0}), Segment::line({29.7, 0.05}), Segment::arc({50, 0}, 0.1),
               Segment::line({50, 50}), Segment::line({0, 50}), Segment::line({0, 0})},
              true};
    const Path without = trace::outline::withoutBacksteps(path);
    QCOMPARE(without.segments.size(), 5U);
    QVERIFY(distance(without.segments[0].end, {29.85, 0.025}) < 1e-9);
    QVERIFY(distance(without.segments[0].handle2, {19.85, -3.975}) < 1e-9);
    QCOMPARE(without.segments[1].kind, SegmentKind::Arc);
    // In a fold of a curve nothing longer is taken for noise.
    path.segments[1] = Segment::line({28, 0.05});
    QCOMPARE(trace::outline::withoutBacksteps(path).segments.size(), 6U);
  }

  void aStepWhereAnOutlineBeginsGoesToo() {
    // Out along a side and back to a hundredth of a pixel beside where it began.
    const Path path{
        {0, 0},
        {Segment::line({20, 20}), Segment::line({20, 0}), Segment::line({-0.01, 0.003}), Segment::line({0, 0})},
        true};
    const Path without = trace::outline::withoutBacksteps(path);
    QCOMPARE(without.segments.size(), 3U);
    QCOMPARE(without.segments.back().end, without.start);
    QVERIFY(std::abs(signedArea(without) - signedArea(path)) < 0.1);
  }

  void sharpeningLeavesNoHoles() {
    for (const double degrees : {10.0, 30.0, 45.0, 70.0}) {
      const cv::Mat grey = drawn(kSize, kSize, polygon(letterT(3.4, degrees * std::numbers::pi / 180)));
      const trace::contour::TwoTone tone{128, false};
      const std::vector<trace::contour::Border> borders = trace::contour::followBorders(grey, tone, 4);
      QCOMPARE(borders.size(), 1U);
      const trace::contour::Border sharp =
          trace::contour::sharpenBorder(grey, tone, trace::contour::EdgeLevel::Coverage, borders[0]);
      for (std::size_t i = 1; i < sharp.size(); ++i)
        QVERIFY2(distance(sharp[i - 1], sharp[i]) < 2.2, qPrintable(QString::number(distance(sharp[i - 1], sharp[i]))));
    }
  }

  void distancesFromATrackAreToItsChords() {
    const trace::split::Track track = trace::split::Track::open({{0, 0}, {10, 0}, {10, 10}});
    QCOMPARE(track.distanceNear(1, 20, {5, 3}), 3.0);
    QCOMPARE(track.distanceNear(1, 20, {13, 14}), 5.0);
    QCOMPARE(track.distanceNear(1, 20, {12, 6}), 2.0);
  }
};

RIM_TEST(TestThinEnds)
#include "tst_thin_ends.moc"
