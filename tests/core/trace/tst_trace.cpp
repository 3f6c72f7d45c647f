#include <QTest>
#include <opencv2/imgproc.hpp>

#include "core/drawing/drawing.h"
#include "core/error.h"
#include "core/trace/trace.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr double kP95LimitPx = 0.12;
constexpr int kSize = 300;

trace::Tracing traced(const cv::Mat& grey, const trace::TraceSettings& settings = {}) {
  return trace::trace(pictureOf(grey), settings);
}

double p95FromPolygon(const trace::Tracing& tracing, const std::vector<Point>& corners) {
  return percentile95(tracing.outlines, [c = upright(corners, kSize)](Point p) { return distanceToPolygon(p, c); });
}

void verifyClosedNestedAndApart(const trace::Tracing& tracing) {
  for (const Path& path : tracing.outlines) {
    QVERIFY(path.closed);
    QVERIFY(path.segments.back().end == path.start);
  }
  QVERIFY(!anyCrossing(tracing.outlines));
}

}  // namespace

class TestTrace : public QObject {
  Q_OBJECT

 private slots:
  void aDiscIsOneCircle() {
    const trace::Tracing t = traced(drawn(kSize, kSize, disc(150.3, 140.7, 110)));
    QCOMPARE(t.outlines.size(), 1U);
    QCOMPARE(countsOf(t.outlines).arcs, 2U);
    // Area pi r^2 and its centre: Bronstein et al., Handbook of Mathematics, 3.1.6 (value from memory).
    QVERIFY(qAbs(enclosedArea(t.outlines) / (M_PI * 110 * 110) - 1) < 5e-4);
    QVERIFY(distance(centreOfGravity(t.outlines), {150.3, kSize - 140.7}) < 0.03);
  }

  void aRingHasTheAreaOfTheFormula() {
    const trace::Tracing t = traced(drawn(kSize, kSize, ring(150, 150, 110, 70)));
    QCOMPARE(t.outlines.size(), 2U);
    QVERIFY(signedArea(t.outlines[0]) > 0 && signedArea(t.outlines[1]) < 0);
    QVERIFY(qAbs(enclosedArea(t.outlines) / (M_PI * (110 * 110 - 70 * 70)) - 1) < 1e-3);
    QVERIFY(percentile95(t.outlines, [](Point p) {
              const double d = distance(p, {150, 150});
              return std::min(qAbs(d - 110), qAbs(d - 70));
            }) < kP95LimitPx);
  }

  void aTurnedSquareHasFourLines() {
    const std::vector<Point> corners = squareCorners(150, 150, 90, 0.3);
    const trace::Tracing t = traced(drawn(kSize, kSize, polygon(corners)));
    QCOMPARE(countsOf(t.outlines).lines, 4U);
    QCOMPARE(countsOf(t.outlines).nodes, 4U);
    QVERIFY(p95FromPolygon(t, corners) < kP95LimitPx);
    QVERIFY(qAbs(enclosedArea(t.outlines) / (180.0 * 180) - 1) < 1e-3);
    for (const Point corner : upright(corners, kSize)) {
      double nearest = 1e9;
      for (const Segment& s : t.outlines[0].segments) nearest = std::min(nearest, distance(s.end, corner));
      QVERIFY2(nearest < 0.2, qPrintable(QString::number(nearest)));
    }
  }

  void aStarKeepsItsCorners() {
    const std::vector<Point> corners = starCorners(150, 150, 7, 120, 55, 0.1);
    const trace::Tracing t = traced(drawn(kSize, kSize, polygon(corners)));
    QCOMPARE(countsOf(t.outlines).lines, 14U);
    QVERIFY(p95FromPolygon(t, corners) < kP95LimitPx);
    // A star polygon's area: n r R sin(pi / n) (sum of 2n triangles).
    QVERIFY(qAbs(enclosedArea(t.outlines) / (7 * 120 * 55 * std::sin(M_PI / 7)) - 1) < 1e-3);
    QVERIFY(distance(centreOfGravity(t.outlines), {150, 150}) < 0.03);
  }

  void faintInkIsFoundByTheAutomaticThreshold() {
    const trace::Tracing t = traced(drawn(kSize, kSize, disc(150, 150, 80), 170, 220));
    QCOMPARE(t.outlines.size(), 1U);
    QVERIFY(qAbs(enclosedArea(t.outlines) / (M_PI * 6400) - 1) < 2e-3);
  }

  void lightInkOnDark() {
    trace::TraceSettings settings;
    settings.lightIsInk = true;
    const trace::Tracing t = traced(drawn(kSize, kSize, disc(150, 150, 80), 255, 0), settings);
    QCOMPARE(t.outlines.size(), 1U);
    QVERIFY(qAbs(enclosedArea(t.outlines) / (M_PI * 6400) - 1) < 1e-3);
  }

  void blankPicturesHaveNoOutlines() {
    QVERIFY(traced(cv::Mat(20, 20, CV_8UC1, cv::Scalar(255))).outlines.empty());
    QVERIFY(traced(cv::Mat(20, 20, CV_8UC1, cv::Scalar(0))).outlines.empty());
    trace::TraceSettings light;
    light.lightIsInk = true;
    QVERIFY(traced(cv::Mat(20, 20, CV_8UC1, cv::Scalar(0)), light).outlines.empty());
  }

  void aSetThresholdMovesTheBorder() {
    cv::Mat blurred;
    cv::GaussianBlur(drawn(kSize, kSize, disc(150, 150, 80)), blurred, {0, 0}, 3);
    double last = 0;
    for (const int threshold : {60, 128, 200}) {
      trace::TraceSettings settings;
      settings.threshold = threshold;
      const double area = enclosedArea(traced(blurred, settings).outlines);
      QVERIFY(area > last + 400);
      last = area;
    }
  }

  void smallPartsAreLeftOut() {
    const auto spots = [](double x, double y) { return disc(100, 100, 50)(x, y) || disc(200, 200, 1.5)(x, y); };
    trace::TraceSettings all;
    all.minAreaPx2 = 0;
    const cv::Mat grey = drawn(kSize, kSize, spots);
    QCOMPARE(traced(grey, all).outlines.size(), 2U);
    all.minAreaPx2 = 20;
    QCOMPARE(traced(grey, all).outlines.size(), 1U);
  }

  void moreToleranceNeedsNoMoreNodes() {
    const auto blob = [](double x, double y) {
      const double a = std::atan2(y - 150, x - 150);
      return std::hypot(x - 150, y - 150) < 90 + 15 * std::sin(3 * a) + 6 * std::cos(7 * a);
    };
    const cv::Mat grey = drawn(kSize, kSize, blob);
    std::size_t last = 10'000;
    for (const double tolerance : {0.1, 0.35, 1.5}) {
      trace::TraceSettings settings;
      settings.tolerancePx = tolerance;
      const std::size_t nodes = countsOf(traced(grey, settings).outlines).nodes;
      QVERIFY2(nodes <= last, qPrintable(QStringLiteral("%1 after %2").arg(nodes).arg(last)));
      last = nodes;
    }
  }

  void outlinesInNoiseStayClosedAndApart_data() {
    QTest::addColumn<int>("seed");
    for (int seed = 1; seed <= 8; ++seed) QTest::addRow("seed %d", seed) << seed;
  }
  void outlinesInNoiseStayClosedAndApart() {
    QFETCH(int, seed);
    cv::Mat grey = randomGrey(90, 90, static_cast<unsigned>(seed));
    if (seed % 2 == 0) cv::GaussianBlur(grey, grey, {0, 0}, 1.5);
    if (seed % 2 == 0) cv::normalize(grey, grey, 0, 255, cv::NORM_MINMAX);
    trace::TraceSettings settings;
    settings.minAreaPx2 = 1;
    const trace::Tracing t = traced(grey, settings);
    QVERIFY(t.outlines.size() > 5);
    verifyClosedNestedAndApart(t);
  }

  void tracingTwiceGivesTheSame() {
    const cv::Mat grey = randomGrey(60, 60, 9);
    QVERIFY(traced(grey).outlines == traced(grey).outlines);
  }

  void stopsWhenAsked() {
    std::stop_source stop;
    stop.request_stop();
    const picture::Picture picture = pictureOf(drawn(100, 100, disc(50, 50, 30)));
    QVERIFY_THROWS_EXCEPTION(Cancelled, trace::trace(picture, {}, {stop.get_token(), {}}));
  }

  void progressEndsAtOne() {
    double last = 0;
    trace::trace(pictureOf(randomGrey(60, 60, 4)), {}, {{}, [&last](double done) {
                                                          QVERIFY(done >= last);
                                                          last = done;
                                                        }});
    QVERIFY(last > 0.5);
  }
};

RIM_TEST(TestTrace)
#include "tst_trace.moc"
