// What is made exact, and that it can be left as traced.

#include <QTest>
#include <algorithm>
#include <numeric>
#include <random>

#include "core/error.h"
#include "core/geometry/arc.h"
#include "core/trace/outline/rules.h"
#include "core/trace/trace.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

const trace::Rules kNone{false, false, false, false, false};

trace::TraceSettings with(const trace::Rules& rules) {
  trace::TraceSettings settings;
  settings.rules = rules;
  return settings;
}

/// A plate with round corners about (cx, cy), turned.
Inside plate(double cx, double cy, double width, double height, double radius, double degrees) {
  const double c = std::cos(degrees * M_PI / 180);
  const double s = std::sin(degrees * M_PI / 180);
  return [=](double x, double y) {
    const double u = std::abs((x - cx) * c + (y - cy) * s) - (width / 2 - radius);
    const double v = std::abs((y - cy) * c - (x - cx) * s) - (height / 2 - radius);
    return std::hypot(std::max(u, 0.0), std::max(v, 0.0)) <= radius;
  };
}

std::vector<double> lineAngles(const Path& path) {
  std::vector<double> angles;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Point way = path.segments[i].end - segmentStart(path, i);
    if (path.segments[i].kind == SegmentKind::Line) angles.push_back(std::atan2(way.y, way.x) * 180 / M_PI);
  }
  return angles;
}

std::vector<double> radii(const Path& path) {
  std::vector<double> found;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    if (s.kind == SegmentKind::Arc) found.push_back(arcFromBulge(segmentStart(path, i), s.end, s.bulge).radius);
  }
  return found;
}

double spread(const std::vector<double>& values) {
  return *std::max_element(values.begin(), values.end()) - *std::min_element(values.begin(), values.end());
}

/// The largest turn between neighbouring segments, degrees.
double largestTurn(const Path& path) {
  double most = 0;
  const std::size_t n = path.segments.size();
  for (std::size_t i = 0; i < n; ++i) {
    const Point in = endTangent(segmentStart(path, (i + n - 1) % n), path.segments[(i + n - 1) % n]);
    const Point out = startTangent(segmentStart(path, i), path.segments[i]);
    most = std::max(most, std::abs(angleBetween(in, out)) * 180 / M_PI);
  }
  return most;
}

}  // namespace

class TestRules : public QObject {
  Q_OBJECT

 private slots:
  void linesNearlyLevelBecomeLevel() {
    const picture::Picture picture = pictureOf(drawn(240, 200, plate(120, 100, 170, 120, 20, 0.15)));
    for (const double angle : lineAngles(trace::trace(picture, {}).outlines.at(0)))
      QVERIFY2(std::remainder(angle, 90) == 0, qPrintable(QString::number(angle)));
    bool slanted = false;
    for (const double angle : lineAngles(trace::trace(picture, with(kNone)).outlines.at(0)))
      slanted = slanted || std::abs(std::remainder(angle, 90)) > 0.05;
    QVERIFY(slanted);
  }

  void aSlantThatIsMeantStays() {
    const picture::Picture picture = pictureOf(drawn(240, 200, plate(120, 100, 170, 120, 20, 1)));
    for (const double angle : lineAngles(trace::trace(picture, {}).outlines.at(0)))
      QVERIFY2(std::abs(std::abs(std::remainder(angle, 90)) - 1) < 0.1, qPrintable(QString::number(angle)));
  }

  void oppositeSidesAreParallelAndNeighboursSquare() {
    const picture::Picture picture = pictureOf(drawn(260, 260, plate(130.3, 129.6, 170, 120, 20, 17)));
    const auto angles = lineAngles(trace::trace(picture, {}).outlines.at(0));
    QCOMPARE(angles.size(), std::size_t{4});
    for (const double angle : angles) QVERIFY(std::abs(std::remainder(angle - angles[0], 90)) < 1e-6);
    trace::Rules rules = kNone;
    std::vector<double> off;
    for (const double angle : lineAngles(trace::trace(picture, with(rules)).outlines.at(0)))
      off.push_back(std::remainder(angle - angles[0], 90));
    QVERIFY(spread(off) > 1e-4);
  }

  void cornersOfAPlateHaveOneRadiusAndTouchItsSides() {
    const picture::Picture picture = pictureOf(drawn(260, 260, plate(130, 130, 170, 120, 24, 17)));
    const Path exact = trace::trace(picture, {}).outlines.at(0);
    QCOMPARE(radii(exact).size(), std::size_t{4});
    QVERIFY2(spread(radii(exact)) < 1e-6, qPrintable(QString::number(spread(radii(exact)))));
    QVERIFY(qAbs(radii(exact)[0] - 24) < 0.1);
    QVERIFY2(largestTurn(exact) < 1e-3, qPrintable(QString::number(largestTurn(exact))));
    const Path traced = trace::trace(picture, with(kNone)).outlines.at(0);
    QVERIFY(spread(radii(traced)) > 1e-4);
  }

  void theEndsOfASlotTouchBothItsSides() {
    const picture::Picture picture = pictureOf(drawn(240, 200, plate(120, 100, 160, 40, 20, 25)));
    const Path slot = trace::trace(picture, {}).outlines.at(0);
    QCOMPARE(slot.segments.size(), std::size_t{4});
    QVERIFY2(largestTurn(slot) < 1e-3, qPrintable(QString::number(largestTurn(slot))));
  }

  void aRingIsConcentricAndEqualDotsAreEqual() {
    const Inside dots = [](double x, double y) {
      return disc(40.3, 150.2, 14.9)(x, y) || disc(100.1, 150.7, 14.93)(x, y) || ring(80.2, 70.4, 50, 30)(x, y);
    };
    const trace::Tracing exact = trace::trace(pictureOf(drawn(160, 190, dots)), {});
    QCOMPARE(exact.outlines.size(), std::size_t{4});
    std::vector<Arc> circles;
    for (const Path& path : exact.outlines) {
      QCOMPARE(path.segments.size(), std::size_t{2});
      circles.push_back(arcFromBulge(path.start, path.segments[0].end, path.segments[0].bulge));
    }
    std::sort(circles.begin(), circles.end(), [](const Arc& a, const Arc& b) { return a.radius < b.radius; });
    QVERIFY(qAbs(circles[0].radius - circles[1].radius) < 1e-9);
    QVERIFY(distance(circles[2].centre, circles[3].centre) < 1e-9);
  }

  void manyCirclesFollowTheFirstThatIsNear() {
    // Against the rule written down plainly: a circle takes the radius and the centre of the first larger one near it.
    constexpr double kTolerance = 0.4;
    std::mt19937 random(7);
    std::uniform_real_distribution<double> place(0, 6);
    std::uniform_real_distribution<double> size(1, 3);
    std::vector<Path> outlines;
    std::vector<Arc> plain;
    for (int k = 0; k < 300; ++k) {
      const Point centre{place(random), place(random)};
      const double radius = size(random);
      const Point right{radius, 0};
      outlines.push_back({centre + right, {Segment::arc(centre - right, 1), Segment::arc(centre + right, 1)}, true});
      plain.push_back({centre, radius, 0, 0});
    }
    trace::outline::makeCirclesRegular(outlines, {}, kTolerance);
    std::vector<std::size_t> order(plain.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return plain[a].radius > plain[b].radius; });
    for (auto k = order.begin(); k != order.end(); ++k) {
      const auto first = [&](auto near) { return std::find_if(order.begin(), k, near); };
      Arc& c = plain[*k];
      const auto same = first([&](std::size_t i) { return std::abs(plain[i].radius - c.radius) < kTolerance / 4; });
      if (same != k) c.radius = plain[*same].radius;
      const auto about = first([&](std::size_t i) { return distance(plain[i].centre, c.centre) < kTolerance / 4; });
      if (about != k) c.centre = plain[*about].centre;
    }
    for (std::size_t i = 0; i < plain.size(); ++i) {
      QVERIFY(distance(outlines[i].start, plain[i].centre + Point{plain[i].radius, 0}) < 1e-9);
      QVERIFY(distance(outlines[i].segments[0].end, plain[i].centre - Point{plain[i].radius, 0}) < 1e-9);
    }
  }

  void rulesHaveNames() {
    QCOMPARE(trace::outline::namesOf({}).size(), std::size_t{5});
    QVERIFY(trace::outline::namesOf(kNone).empty());
    QVERIFY(trace::outline::rulesNamed(trace::outline::namesOf({})) == trace::Rules{});
    QVERIFY(trace::outline::rulesNamed({"radii"}).equalRadii && !trace::outline::rulesNamed({"radii"}).level);
    QVERIFY_THROWS_EXCEPTION(InputError, trace::outline::rulesNamed({"round"}));
  }
};

RIM_TEST(TestRules)
#include "tst_rules.moc"
