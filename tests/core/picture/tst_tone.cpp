#include <QTest>
#include <opencv2/imgproc.hpp>

#include "core/picture/tone.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;

namespace {

/// N. Otsu, IEEE Trans. SMC 9 (1979), 62-66, equations (2) to (14) as they stand: the variance
/// between the classes "up to level" and "above level", in shares of all pixels.
double varianceBetween(const picture::Histogram& histogram, int level) {
  double total = 0, w0 = 0, m0 = 0, m1 = 0;
  for (const auto n : histogram) total += static_cast<double>(n);
  for (int i = 0; i < 256; ++i) {
    const double p = static_cast<double>(histogram[static_cast<std::size_t>(i)]) / total;
    if (i <= level) w0 += p;
    (i <= level ? m0 : m1) += i * p;
  }
  const double w1 = 1 - w0;
  if (w0 <= 0 || w1 <= 0) return 0;
  return w0 * w1 * (m1 / w1 - m0 / w0) * (m1 / w1 - m0 / w0);
}

}  // namespace

class TestTone : public QObject {
  Q_OBJECT

 private slots:
  void otsuPartsAsTheDefinitionDoes_data() {
    QTest::addColumn<cv::Mat>("grey");
    cv::Mat noise(60, 60, CV_8UC1);
    cv::theRNG().state = 7;
    cv::randn(noise, 150, 40);
    QTest::newRow("noise") << noise;
    QTest::newRow("disc") << test::drawn(60, 60, test::disc(30, 30, 20));
    QTest::newRow("faint disc") << test::drawn(60, 60, test::disc(30, 30, 20), 180, 210);
    QTest::newRow("random") << test::randomGrey(50, 50, 3);
  }
  void otsuPartsAsTheDefinitionDoes() {
    QFETCH(cv::Mat, grey);
    const picture::Histogram histogram = picture::histogramOf(grey);
    const auto threshold = picture::otsuThreshold(histogram);
    QVERIFY(threshold.has_value());
    double best = 0;
    for (int level = 0; level < 255; ++level) best = std::max(best, varianceBetween(histogram, level));
    // The threshold lies half-way between the means of the best parting's groups.
    int parting = 0;
    while (varianceBetween(histogram, parting) < best * (1 - 1e-9)) ++parting;
    double w0 = 0, m0 = 0, w1 = 0, m1 = 0;
    for (int i = 0; i < 256; ++i) {
      const auto n = static_cast<double>(histogram[static_cast<std::size_t>(i)]);
      (i <= parting ? w0 : w1) += n;
      (i <= parting ? m0 : m1) += n * i;
    }
    QCOMPARE(*threshold, static_cast<int>(std::ceil((m0 / w0 + m1 / w1) / 2)));
    // OpenCV's own Otsu as a second opinion on the parting; it takes the best level itself.
    cv::Mat ignored;
    const double reference = cv::threshold(grey, ignored, 0, 255, cv::THRESH_BINARY | cv::THRESH_OTSU);
    QVERIFY(qAbs(varianceBetween(histogram, static_cast<int>(reference)) - best) < 1e-6 * best);
  }

  void everyLevelIsCounted() {
    // OpenCV's calcHist as the reference; flat runs of every length up to the widths that are counted at once.
    for (const int width : {1, 7, 8, 9, 50, 61}) {
      cv::Mat grey = test::randomGrey(width, 40, static_cast<unsigned>(width));
      for (int y = 0; y < grey.rows; y += 2) grey.row(y).colRange(0, std::min(width, y)) = y;
      const cv::Mat part = width > 9 ? grey.colRange(3, width - 2) : grey;
      const int channel = 0;
      const int size = 256;
      const float range[] = {0, 256};
      const float* ranges = range;
      cv::Mat counts;
      cv::calcHist(&part, 1, &channel, {}, counts, 1, &size, &ranges);
      const picture::Histogram histogram = picture::histogramOf(part);
      for (int level = 0; level < size; ++level)
        QCOMPARE(static_cast<float>(histogram[static_cast<std::size_t>(level)]), counts.at<float>(level));
    }
  }

  void oneToneHasNoThreshold() {
    QVERIFY(!picture::otsuThreshold(picture::histogramOf(cv::Mat(5, 5, CV_8UC1, cv::Scalar(255)))));
  }

  void blackAndWhitePartAtTheMiddle() {
    QCOMPARE(picture::otsuThreshold(
                 picture::histogramOf(test::drawn(40, 40, test::polygon(test::squareCorners(20, 20, 10, M_PI / 4))))),
             128);
  }

  void greyIsTheLumaOfBt601() {
    // ITU-R BT.601-7, 2.5.1: 0.299 R + 0.587 G + 0.114 B.
    const cv::Mat bgr(1, 1, CV_8UC3, cv::Scalar(10, 100, 200));
    QCOMPARE(int(picture::greyOf(bgr).at<std::uint8_t>(0, 0)), 120);
  }

  void histogramCountsEveryPixel() {
    const cv::Mat grey = test::randomGrey(37, 23, 5);
    const picture::Histogram histogram = picture::histogramOf(grey);
    for (int level = 0; level < 256; ++level) {
      QCOMPARE(histogram[static_cast<std::size_t>(level)], static_cast<std::uint64_t>(cv::countNonZero(grey == level)));
    }
  }
};

RIM_TEST(TestTone)
#include "tst_tone.moc"
