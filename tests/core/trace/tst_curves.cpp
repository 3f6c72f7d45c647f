// Curves: fitted to points of known curves, moved together, met at corners, measured against the border.

#include <QTest>
#include <random>

#include "core/error.h"
#include "core/trace/deviation.h"
#include "core/trace/fit/curve_fit.h"
#include "core/trace/fit/polish.h"
#include "core/trace/outline/corner.h"
#include "core/trace/starting_point.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

const Cubic kBow{{10, 10}, {30, 60}, {80, 70}, {120, 20}};

std::vector<Point> pointsOn(const Cubic& cubic, int count, double noise = 0) {
  std::mt19937 random(3);
  std::normal_distribution<double> off(0, noise > 0 ? noise : 1);
  std::vector<Point> points;
  for (int i = 1; i < count; ++i) {
    const double t = static_cast<double>(i) / count;
    const Point across = unit(leftNormal(derivative(cubic, t)));
    points.push_back(pointOn(cubic, t) + across * (noise > 0 ? off(random) : 0));
  }
  return points;
}

double farthest(const Cubic& a, const Cubic& b) {
  const auto points = pointsOn(a, 60);
  const auto at = trace::fit::nearestParameters(b, points);
  double most = 0;
  for (std::size_t i = 0; i < points.size(); ++i) most = std::max(most, distance(pointOn(b, at[i]), points[i]));
  return most;
}

Inside ellipse(double cx, double cy, double a, double b, double degrees) {
  const double c = std::cos(degrees * M_PI / 180);
  const double s = std::sin(degrees * M_PI / 180);
  return [=](double x, double y) {
    const double u = ((x - cx) * c + (y - cy) * s) / a;
    const double v = ((y - cy) * c - (x - cx) * s) / b;
    return u * u + v * v <= 1;
  };
}

}  // namespace

class TestCurves : public QObject {
  Q_OBJECT

 private slots:
  void hooksAreKnown() {
    QVERIFY(!trace::fit::hooks(kBow));
    QVERIFY(!trace::fit::hooks({{0, 0}, {0, 10}, {10, 10}, {10, 0}}));
    // The first handle points back: the curve would begin with a turn that no border has.
    QVERIFY(trace::fit::hooks({{0, 0}, {-1, 0.1}, {20, 0}, {30, 0}}));
    QVERIFY(trace::fit::hooks({{0, 0}, {30, 0}, {-20, 5}, {10, 5}}));
    // A handle longer than the curve is no hook.
    QVERIFY(!trace::fit::hooks({{0, 0}, {20, 1}, {18, 1}, {30, 0}}));
    QVERIFY(std::abs(turningOf({{0, 0}, {0, 10}, {10, 10}, {10, 0}}) - M_PI) < 1e-9);
    QCOMPARE(turningOf({{0, 0}, {0, 0}, {1, 1}, {1, 1}}), 0.0);
  }

  void aKnownCubicIsFoundAgain() {
    const auto points = pointsOn(kBow, 40);
    const auto free = trace::fit::fitCubic({kBow.p0, {}, kBow.p3, {}}, points);
    // Free handles are only brought near; moving them on to the best place is for polished().
    QVERIFY(free && farthest(kBow, free->cubic) < 0.1);
    trace::fit::SmoothRun run;
    run.cubics = {free->cubic};
    run.points = {points};
    run.weights = {1};
    QVERIFY(farthest(kBow, trace::fit::polished(run).front()) < 0.01);
    const auto held = trace::fit::fitCubic({kBow.p0, tangent(kBow, 0), kBow.p3, tangent(kBow, 1)}, points);
    QVERIFY(held && farthest(kBow, held->cubic) < 0.01 && held->largest < 0.01);
  }

  void noiseMovesItByLessThanItself() {
    const auto fit = trace::fit::fitCubic({kBow.p0, {}, kBow.p3, {}}, pointsOn(kBow, 60, 0.2));
    QVERIFY(fit && farthest(kBow, fit->cubic) < 0.2);
  }

  void aCurveThatTurnsBackIsNone() {
    QVERIFY(!trace::fit::fitCubic({{0, 0}, Point{-1, 0}, {100, 0}, Point{1, 0}},
                                  pointsOn({{0, 0}, {30, 1}, {60, 1}, {100, 0}}, 30)));
  }

  void cubicsMovedTogetherShareTangentsAndFitBetter() {
    // One curve cut in two, and the halves spoiled: their common node is off and their tangents differ.
    const auto [left, right] = split(kBow, 0.45);
    trace::fit::SmoothRun run;
    run.points = {pointsOn(left, 30), pointsOn(right, 30)};
    run.weights = {1, 1};
    Cubic a = left;
    Cubic b = right;
    a.p3 = b.p0 = left.p3 + Point{0.6, -0.5};
    b.p1 = b.p1 + Point{1, 2};
    run.cubics = {a, b};
    const std::vector<Cubic> moved = trace::fit::polished(run);
    QVERIFY(std::abs(angleBetween(tangent(moved[0], 1), tangent(moved[1], 0))) < 1e-9);
    QCOMPARE(moved[0].p3, moved[1].p0);
    QCOMPARE(moved[0].p0, left.p0);
    QVERIFY(farthest(left, moved[0]) < 0.05 && farthest(right, moved[1]) < 0.05);
  }

  void aSlidingStartFindsWhereTheCurveLeavesItsTangent() {
    trace::fit::SmoothRun run;
    const Cubic truth{{20, 0}, {40, 0}, {60, 10}, {70, 30}};
    run.points = {pointsOn(truth, 40)};
    run.weights = {1};
    run.cubics = {{{24, 0}, {40, 0}, {60, 10}, {70, 30}}};
    run.startTangent = Point{1, 0};
    run.startSlides = true;
    const Cubic found = trace::fit::polished(run).front();
    QCOMPARE(found.p0.y, 0.0);
    QVERIFY2(qAbs(found.p0.x - 20) < 1, qPrintable(QString::number(found.p0.x)));
    QVERIFY(farthest(truth, found) < 0.02);
  }

  void sidesAreProlongedUntilTheyMeet() {
    // A cubic cut short and a line: they meet where the whole cubic ended.
    const Cubic shortened = split(kBow, 0.93).first;
    const trace::fit::Primitive line{trace::fit::Primitive::Kind::Line, kBow.p3 + Point{5, 40}, unit(Point{-5, -40}),
                                     0};
    const auto corner = trace::outline::meetSides({{}, shortened}, {line, std::nullopt}, shortened.p3);
    QVERIFY(corner && distance(corner->place, kBow.p3) < 1e-5 && corner->before > 1);
    // Parallel sides never do.
    const trace::fit::Primitive level{trace::fit::Primitive::Kind::Line, {0, 0}, {1, 0}, 0};
    const trace::fit::Primitive other{trace::fit::Primitive::Kind::Line, {0, 5}, {1, 0}, 0};
    QVERIFY(!trace::outline::meetSides({level, {}}, {other, {}}, {3, 3}));
  }

  void anEllipseIsFewCurves() {
    // (x/a)^2 + (y/b)^2 = 1: cubics of a quarter each leave it by 2.7e-4 of its size at most.
    const trace::Tracing tracing = trace::trace(pictureOf(drawn(300, 240, ellipse(150, 120, 110, 70, 20))), {});
    QCOMPARE(tracing.outlines.size(), std::size_t{1});
    QVERIFY2(tracing.outlines[0].segments.size() <= 6,
             qPrintable(QString::number(tracing.outlines[0].segments.size())));
    QVERIFY(qAbs(signedArea(tracing.outlines[0]) / (M_PI * 110 * 70) - 1) < 0.001);
  }

  void aCircleWithANotchStaysRound() {
    const Inside notched = [](double x, double y) {
      return disc(130.3, 130.6, 100)(x, y) && !(x > 200 && std::abs(y - 120) < 4);
    };
    const trace::Tracing tracing = trace::trace(pictureOf(drawn(260, 260, notched)), {});
    QCOMPARE(tracing.outlines.size(), std::size_t{1});
    const Path& path = tracing.outlines[0];
    QVERIFY2(path.segments.size() <= 9, qPrintable(QString::number(path.segments.size())));
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const bool line = path.segments[i].kind == SegmentKind::Line;
      QVERIFY(!line || distance(segmentStart(path, i), path.segments[i].end) < 40);
    }
  }

  void distancesFromTheBorderAreMeasured() {
    const picture::Picture picture = pictureOf(drawn(120, 120, disc(60, 60, 40)));
    trace::Tracing tracing = trace::trace(picture, {});
    const trace::Deviation close = trace::deviationOf(picture, {}, makeDrawing(tracing.outlines));
    QVERIFY2(close.largest < 0.06, qPrintable(QString::number(close.largest)));
    QCOMPARE(close.outlines.size(), std::size_t{1});
    QVERIFY(close.outlines[0].samples.size() > 200);
    // An outline that was moved by half a pixel is off by just that at two sides.
    for (Path& path : tracing.outlines) path = scaled(path, 1, {0.5, 0});
    const trace::Deviation moved = trace::deviationOf(picture, {}, makeDrawing(tracing.outlines));
    QVERIFY(qAbs(moved.largest - 0.5) < 0.06);
    QVERIFY(qAbs(moved.worst.y - 60) < 12);
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled,
                             trace::deviationOf(picture, {}, makeDrawing(tracing.outlines), stop.get_token()));
  }

  void startingPointsKeepWhatIsInk() {
    trace::TraceSettings now;
    now.lightIsInk = true;
    now.rules.level = false;
    now.threshold = 90;
    const trace::TraceSettings photo = trace::settingsFor(trace::StartingPoint::PhonePhoto, now);
    QVERIFY(photo.lightIsInk && !photo.rules.level && !photo.threshold);
    QVERIFY(photo.tolerancePx > trace::settingsFor(trace::StartingPoint::CrispArtwork, now).tolerancePx);
    QVERIFY(photo.minAreaPx2 > trace::settingsFor(trace::StartingPoint::InkOnPaper, now).minAreaPx2);
  }
};

RIM_TEST(TestCurves)
#include "tst_curves.moc"
