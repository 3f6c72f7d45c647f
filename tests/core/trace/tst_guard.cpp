// No fitted outline leaves its measured border by more than is allowed.

#include <QTest>
#include <opencv2/imgproc.hpp>

#include "core/trace/contour/noise.h"
#include "core/trace/outline/fit_outline.h"
#include "core/trace/outline/guard.h"
#include "core/trace/trace.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

trace::contour::Border squareBorder(double side) {
  trace::contour::Border border;
  const std::vector<Point> corners{{10, 10}, {10 + side, 10}, {10 + side, 10 + side}, {10, 10 + side}};
  for (std::size_t k = 0; k < 4; ++k) {
    for (double way = 0; way < side; way += 1) border.push_back(lerp(corners[k], corners[(k + 1) % 4], way / side));
  }
  return border;
}

/// Grains and bends of all sizes: what a texture in a photo gives.
cv::Mat texture(cv::Size size) {
  cv::Mat grey(size, CV_8UC1);
  cv::RNG random(5);
  random.fill(grey, cv::RNG::UNIFORM, 0, 256);
  cv::GaussianBlur(grey, grey, {}, 2.5);
  cv::normalize(grey, grey, 0, 255, cv::NORM_MINMAX);
  return grey;
}

}  // namespace

class TestGuard : public QObject {
  Q_OBJECT

 private slots:
  void whatFollowsTheBorderHolds() {
    const Path square = polygonThrough(trace::contour::Border{{10, 10}, {50, 10}, {50, 50}, {10, 50}});
    QVERIFY(trace::outline::strayingFrom(squareBorder(40), square, {}).empty());
    QCOMPARE(trace::outline::guarded(square, squareBorder(40), {}), square);
  }

  void aCornerMayGoBeyondWhatPixelsRoundOff() {
    // A triangle with a tip of 30 degrees, its border rounded off 2 px below the tip.
    const Point tip{100, 60};
    const double opening = M_PI / 6;
    const Point left = tip + Point{-std::sin(opening / 2), -std::cos(opening / 2)} * 80;
    const Point right = tip + Point{std::sin(opening / 2), -std::cos(opening / 2)} * 80;
    trace::contour::Border border;
    for (double way = 2; way < 80; way += 0.5) border.push_back(lerp(tip, left, way / 80));
    for (double way = 0; way < 40; way += 0.5) border.push_back(lerp(left, right, way / distance(left, right)));
    for (double way = 80; way > 2; way -= 0.5) border.push_back(lerp(tip, right, way / 80));
    QVERIFY(trace::outline::strayingFrom(border, polygonThrough(trace::contour::Border{tip, left, right}), {}).empty());
    const Point far = tip + Point{0, 4};
    QVERIFY(
        !trace::outline::strayingFrom(border, polygonThrough(trace::contour::Border{far, left, right}), {}).empty());
  }

  void needlesGoAndTheRestStays() {
    const Path needle = polygonThrough(
        trace::contour::Border{{10, 10}, {30, 10}, {30.2, -12}, {30.4, 10}, {50, 10}, {50, 50}, {10, 50}});
    QVERIFY(!trace::outline::strayingFrom(squareBorder(40), needle, {}).empty());
    const Path held = trace::outline::guarded(needle, squareBorder(40), {});
    QVERIFY(trace::outline::strayingFrom(squareBorder(40), held, {}).empty());
    QVERIFY(boxOf(held).low.y > 9);
    QVERIFY(std::any_of(held.segments.begin(), held.segments.end(), [](const Segment& s) {
      return s.end == Point{50, 50};
    }));
  }

  void whatIsLeftOutIsFoundToo() {
    // The outline keeps to the border, but cuts off a corner of it.
    const Path cut = polygonThrough(trace::contour::Border{{10, 10}, {50, 10}, {50, 38}, {38, 50}, {10, 50}});
    const std::vector<Point> straying = trace::outline::strayingFrom(squareBorder(40), cut, {});
    QVERIFY(!straying.empty());
    for (const Point p : straying) QVERIFY(distance(p, Point{50, 50}) < 12.1);
    QVERIFY(
        trace::outline::strayingFrom(squareBorder(40), trace::outline::guarded(cut, squareBorder(40), {}), {}).empty());
  }

  void texturesAreFollowed() {
    constexpr double kDeviations = 3;
    constexpr double kSlackPx = 0.05;
    const picture::Picture picture = pictureOf(texture({1100, 600}));
    const std::vector<trace::contour::Border> borders = trace::measuredBorders(picture, {});
    const trace::Tracing tracing = trace::trace(picture, {});
    QCOMPARE(tracing.outlines.size(), borders.size());
    QVERIFY(borders.size() > 400);
    int straying = 0;
    for (std::size_t i = 0; i < borders.size(); ++i) {
      const double noise = std::min(0.5, trace::contour::noiseOf(borders[i]));
      const trace::outline::GuardLimits limits{std::max(0.7, kDeviations * noise) + kSlackPx, 1.2};
      if (!trace::outline::strayingFrom(borders[i], tracing.outlines[i], limits).empty()) ++straying;
    }
    // Where what holds would cross its neighbour, keeping apart comes first.
    QVERIFY2(straying <= 2, QByteArray::number(straying));
  }
};

RIM_TEST(TestGuard)
#include "tst_guard.moc"
