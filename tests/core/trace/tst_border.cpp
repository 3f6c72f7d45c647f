#include <QTest>
#include <array>
#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/geometry/crossing.h"
#include "core/trace/contour/border.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

/// How many points each border has, its area and the middle of its points, from one side of the picture to the other.
std::vector<std::array<double, 4>> sizesAndPlaces(const std::vector<trace::contour::Border>& borders) {
  std::vector<std::array<double, 4>> all;
  for (const trace::contour::Border& border : borders) {
    const auto count = static_cast<double>(border.size());
    Point sum;
    for (const Point p : border) sum = sum + p;
    all.push_back({count, std::abs(trace::contour::borderArea(border)), sum.x / count, sum.y / count});
  }
  // Figures in a row, in a column or round one middle would change places by rounding.
  const auto slanting = [](const std::array<double, 4>& one) { return one[3] + one[2] / 77 + one[1] / 7777; };
  std::sort(all.begin(), all.end(), [&](const auto& a, const auto& b) { return slanting(a) < slanting(b); });
  return all;
}

}  // namespace

class TestBorder : public QObject {
  Q_OBJECT

 private slots:
  void aDiscIsOneBorderWithItsArea() {
    const std::vector<trace::contour::Border> borders =
        trace::contour::followBorders(drawn(60, 50, disc(30, 20, 15)), {128, false}, 0);
    QCOMPARE(borders.size(), 1U);
    QVERIFY(qAbs(trace::contour::borderArea(borders[0]) - M_PI * 225) < 1.5);
    for (const Point p : borders[0]) QVERIFY(qAbs(distance(p, {30, 30}) - 15) < 0.15);
  }

  void aRingIsACounterClockwiseBorderAndAClockwiseHole() {
    const std::vector<trace::contour::Border> borders =
        trace::contour::followBorders(drawn(60, 60, ring(30, 30, 20, 10)), {128, false}, 0);
    QCOMPARE(borders.size(), 2U);
    QVERIFY(trace::contour::borderArea(borders[0]) > 0);
    QVERIFY(trace::contour::borderArea(borders[1]) < 0);
  }

  void lightInkTurnsIslandsIntoHoles() {
    const std::vector<trace::contour::Border> borders =
        trace::contour::followBorders(drawn(60, 60, disc(30, 30, 20)), {128, true}, 0);
    QCOMPARE(borders.size(), 2U);  // the paper round the disc, closed along the rim, and its hole
    QVERIFY(qAbs(trace::contour::borderArea(borders[0]) - 3600) < 1e-9);
    QVERIFY(trace::contour::borderArea(borders[1]) < 0);
  }

  void inkAtTheRimClosesExactlyAlongIt() {
    const std::vector<trace::contour::Border> borders =
        trace::contour::followBorders(drawn(40, 30, disc(0, 0, 20)), {128, false}, 0);
    QCOMPARE(borders.size(), 1U);
    QVERIFY(qAbs(trace::contour::borderArea(borders[0]) - M_PI * 100) < 1.5);
    Box box;
    for (const Point p : borders[0]) box.include(p);
    QCOMPARE(box.low.x, 0.0);
    QCOMPARE(box.high.y, 30.0);
  }

  void allInkIsThePicturesRectangle() {
    const std::vector<trace::contour::Border> borders =
        trace::contour::followBorders(cv::Mat(7, 9, CV_8UC1, cv::Scalar(0)), {128, false}, 0);
    QCOMPARE(borders.size(), 1U);
    QCOMPARE(trace::contour::borderArea(borders[0]), 63.0);
  }

  void allPaperHasNoBorder() {
    QVERIFY(trace::contour::followBorders(cv::Mat(7, 9, CV_8UC1, cv::Scalar(255)), {128, false}, 0).empty());
  }

  void aSaddleJoinsInkWhenItsMiddleIsInk() {
    // Two diagonal ink pixels; with dark paper between, the bilinear surface joins them.
    const auto borders = [](std::uint8_t paper) {
      cv::Mat grey(4, 4, CV_8UC1, cv::Scalar(255));
      grey.at<std::uint8_t>(1, 1) = grey.at<std::uint8_t>(2, 2) = 0;
      grey.at<std::uint8_t>(1, 2) = grey.at<std::uint8_t>(2, 1) = paper;
      return trace::contour::followBorders(grey, {128, false}, 0).size();
    };
    QCOMPARE(borders(140), 1U);
    QCOMPARE(borders(255), 2U);
  }

  void smallPartsAreLeftOut() {
    const auto spots = [](double x, double y) { return disc(10, 10, 5)(x, y) || disc(30, 30, 1.2)(x, y); };
    const cv::Mat grey = drawn(40, 40, spots);
    QCOMPARE(trace::contour::followBorders(grey, {128, false}, 0).size(), 2U);
    QCOMPARE(trace::contour::followBorders(grey, {128, false}, 10).size(), 1U);
  }

  void nothingTouchesOrCrossesInNoise_data() {
    QTest::addColumn<int>("seed");
    for (int seed = 1; seed <= 12; ++seed) QTest::addRow("seed %d", seed) << seed;
  }
  void nothingTouchesOrCrossesInNoise() {
    QFETCH(int, seed);
    const cv::Mat grey = randomGrey(48, 40, static_cast<unsigned>(seed));
    for (const bool light : {false, true}) {
      const std::vector<trace::contour::Border> borders = trace::contour::followBorders(grey, {100 + seed, light}, 0);
      QVERIFY(borders.size() > 20);
      QVERIFY(findCrossings(borders, {}).empty());
    }
  }

  void darkAndLightInkShareTheSameBordersInside() {
    // Counted by area: what is ink one way is paper the other way.
    const cv::Mat grey = randomGrey(48, 40, 77);
    double sum = 0;
    for (const bool light : {false, true}) {
      for (const trace::contour::Border& border : trace::contour::followBorders(grey, {128, light}, 0))
        sum += trace::contour::borderArea(border);
    }
    QVERIFY2(qAbs(sum - 48 * 40) < 1e-6, qPrintable(QString::number(sum)));
  }

  void thinPicturesAreFollowedToo_data() {
    QTest::addColumn<int>("width");
    QTest::addColumn<int>("height");
    QTest::newRow("one pixel") << 1 << 1;
    QTest::newRow("one row") << 30 << 1;
    QTest::newRow("one column") << 1 << 30;
  }
  void thinPicturesAreFollowedToo() {
    QFETCH(int, width);
    QFETCH(int, height);
    double area = 0;
    for (const trace::contour::Border& b :
         trace::contour::followBorders(cv::Mat(height, width, CV_8UC1, cv::Scalar(3)), {128, false}, 0))
      area += trace::contour::borderArea(b);
    QCOMPARE(area, double(width * height));
  }

  /// Tall pictures are searched in strips, wide ones of few rows are not: turned over, a picture has the same borders.
  void stripsFindWhatOneSearchFinds_data() {
    QTest::addColumn<cv::Mat>("tall");
    cv::Mat blots;
    cv::blur(randomGrey(90, 3500, 5), blots, {7, 7});
    QTest::newRow("blots") << blots;
    cv::Mat comb(3300, 60, CV_8UC1, cv::Scalar(255));
    comb.rowRange(500, 3200).setTo(0);
    for (int x = 10; x < 50; x += 8) comb(cv::Rect(x, 600, 4, 2600)) = 255;
    QTest::newRow("a comb through all strips") << comb;
    QTest::newRow("a comb upside down") << cv::Mat(255 - comb);
    QTest::newRow("rings") << drawn(
        80, 2600, [](double x, double y) { return std::fmod(std::hypot(x - 40, (y - 1300) / 36), 8) < 4; });
  }
  void stripsFindWhatOneSearchFinds() {
    QFETCH(cv::Mat, tall);
    const std::vector<trace::contour::Border> borders = trace::contour::followBorders(tall, {128, false}, 0);
    std::vector<trace::contour::Border> turned = trace::contour::followBorders(tall.t(), {128, false}, 0);
    QVERIFY(!borders.empty());
    for (std::size_t i = 1; i < borders.size(); ++i) {
      const Point before = borders[i - 1].front();
      const Point here = borders[i].front();
      QVERIFY(here.y < before.y || (here.y == before.y && here.x > before.x));
    }
    for (trace::contour::Border& border : turned) {
      for (Point& p : border) p = {tall.cols - p.y, tall.rows - p.x};
    }
    QCOMPARE(borders.size(), turned.size());
    const std::vector<std::array<double, 4>> all = sizesAndPlaces(borders);
    const std::vector<std::array<double, 4>> expected = sizesAndPlaces(turned);
    for (std::size_t i = 0; i < all.size(); ++i) {
      for (std::size_t k = 0; k < all[i].size(); ++k) QVERIFY(qAbs(all[i][k] - expected[i][k]) < 1e-6);
    }
  }

  void noiseWithoutBoundIsToldOf() {
    // Stripes a pixel wide have a point a pixel.
    cv::Mat stripes(2500, 2500, CV_8UC1, cv::Scalar(255));
    for (int x = 0; x < stripes.cols; x += 2) stripes.col(x) = 0;
    QVERIFY(stripes.total() > trace::contour::kMostBorderPoints);
    QVERIFY_THROWS_EXCEPTION(InputError, trace::contour::followBorders(stripes, {128, false}, 0));
    QCOMPARE(trace::contour::followBorders(stripes.colRange(0, 1000), {128, false}, 0).size(), 500U);
  }

  void stopsWhenAsked() {
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled,
                             trace::contour::followBorders(randomGrey(50, 200, 1), {128, false}, 0, stop.get_token()));
  }
};

RIM_TEST(TestBorder)
#include "tst_border.moc"
