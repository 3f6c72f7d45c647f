#include <QTest>

#include "core/error.h"
#include "core/geometry/crossing.h"
#include "core/trace/border.h"
#include "support/measure.h"
#include "support/pictures.h"

using namespace rim;
using namespace rim::test;

class TestBorder : public QObject {
  Q_OBJECT

 private slots:
  void aDiscIsOneBorderWithItsArea() {
    const std::vector<Border> borders = followBorders(drawn(60, 50, disc(30, 20, 15)), {128, false}, 0);
    QCOMPARE(borders.size(), 1U);
    QVERIFY(qAbs(borderArea(borders[0]) - M_PI * 225) < 1.5);
    for (const Point p : borders[0]) QVERIFY(qAbs(distance(p, {30, 30}) - 15) < 0.15);
  }

  void aRingIsACounterClockwiseBorderAndAClockwiseHole() {
    const std::vector<Border> borders = followBorders(drawn(60, 60, ring(30, 30, 20, 10)), {128, false}, 0);
    QCOMPARE(borders.size(), 2U);
    QVERIFY(borderArea(borders[0]) > 0);
    QVERIFY(borderArea(borders[1]) < 0);
  }

  void lightInkTurnsIslandsIntoHoles() {
    const std::vector<Border> borders = followBorders(drawn(60, 60, disc(30, 30, 20)), {128, true}, 0);
    QCOMPARE(borders.size(), 2U);  // the paper round the disc, closed along the rim, and its hole
    QVERIFY(qAbs(borderArea(borders[0]) - 3600) < 1e-9);
    QVERIFY(borderArea(borders[1]) < 0);
  }

  void inkAtTheRimClosesExactlyAlongIt() {
    const std::vector<Border> borders = followBorders(drawn(40, 30, disc(0, 0, 20)), {128, false}, 0);
    QCOMPARE(borders.size(), 1U);
    QVERIFY(qAbs(borderArea(borders[0]) - M_PI * 100) < 1.5);
    Box box;
    for (const Point p : borders[0]) box.include(p);
    QCOMPARE(box.low.x, 0.0);
    QCOMPARE(box.high.y, 30.0);
  }

  void allInkIsThePicturesRectangle() {
    const std::vector<Border> borders = followBorders(cv::Mat(7, 9, CV_8UC1, cv::Scalar(0)), {128, false}, 0);
    QCOMPARE(borders.size(), 1U);
    QCOMPARE(borderArea(borders[0]), 63.0);
  }

  void allPaperHasNoBorder() {
    QVERIFY(followBorders(cv::Mat(7, 9, CV_8UC1, cv::Scalar(255)), {128, false}, 0).empty());
  }

  void aSaddleJoinsInkWhenItsMiddleIsInk() {
    // Two diagonal ink pixels; with dark paper between, the bilinear surface joins them.
    const auto borders = [](std::uint8_t paper) {
      cv::Mat grey(4, 4, CV_8UC1, cv::Scalar(255));
      grey.at<std::uint8_t>(1, 1) = grey.at<std::uint8_t>(2, 2) = 0;
      grey.at<std::uint8_t>(1, 2) = grey.at<std::uint8_t>(2, 1) = paper;
      return followBorders(grey, {128, false}, 0).size();
    };
    QCOMPARE(borders(140), 1U);
    QCOMPARE(borders(255), 2U);
  }

  void smallPartsAreLeftOut() {
    const auto spots = [](double x, double y) { return disc(10, 10, 5)(x, y) || disc(30, 30, 1.2)(x, y); };
    const cv::Mat grey = drawn(40, 40, spots);
    QCOMPARE(followBorders(grey, {128, false}, 0).size(), 2U);
    QCOMPARE(followBorders(grey, {128, false}, 10).size(), 1U);
  }

  void nothingTouchesOrCrossesInNoise_data() {
    QTest::addColumn<int>("seed");
    for (int seed = 1; seed <= 12; ++seed) QTest::addRow("seed %d", seed) << seed;
  }
  void nothingTouchesOrCrossesInNoise() {
    QFETCH(int, seed);
    const cv::Mat grey = randomGrey(48, 40, static_cast<unsigned>(seed));
    for (const bool light : {false, true}) {
      const std::vector<Border> borders = followBorders(grey, {100 + seed, light}, 0);
      QVERIFY(borders.size() > 20);
      QVERIFY(findCrossings(borders, {}).empty());
    }
  }

  void darkAndLightInkShareTheSameBordersInside() {
    // Counted by area: what is ink one way is paper the other way.
    const cv::Mat grey = randomGrey(48, 40, 77);
    double sum = 0;
    for (const bool light : {false, true}) {
      for (const Border& border : followBorders(grey, {128, light}, 0)) sum += borderArea(border);
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
    for (const Border& b : followBorders(cv::Mat(height, width, CV_8UC1, cv::Scalar(3)), {128, false}, 0))
      area += borderArea(b);
    QCOMPARE(area, double(width * height));
  }

  void noiseWithoutBoundIsToldOf() {
    // Stripes a pixel wide have a point a pixel.
    cv::Mat stripes(2500, 2500, CV_8UC1, cv::Scalar(255));
    for (int x = 0; x < stripes.cols; x += 2) stripes.col(x) = 0;
    QVERIFY(stripes.total() > kMostBorderPoints);
    QVERIFY_THROWS_EXCEPTION(InputError, followBorders(stripes, {128, false}, 0));
    QCOMPARE(followBorders(stripes.colRange(0, 1000), {128, false}, 0).size(), 500U);
  }

  void stopsWhenAsked() {
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, followBorders(randomGrey(50, 200, 1), {128, false}, 0, stop.get_token()));
  }
};

QTEST_APPLESS_MAIN(TestBorder)
#include "tst_border.moc"
