// Blurred pictures: how far their edges are smeared is measured, the blur is taken away where that is safe, and corners
// come out sharp; pictures that only look blurred stay as they are.

#include <QTest>
#include <opencv2/imgproc.hpp>

#include "core/refine/edit/corners.h"
#include "core/trace/contour/blur.h"
#include "core/trace/contour/deblur.h"
#include "core/trace/contour/tones.h"
#include "core/trace/trace.h"
#include "support/artwork.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr int kSide = 380;

/// Letters 300 px high, rows counting down.
std::vector<std::pair<const char*, std::vector<Point>>> letters() {
  return {{"K",
           {{40, 40},
            {110, 40},
            {110, 160},
            {230, 40},
            {320, 40},
            {185, 170},
            {330, 340},
            {235, 340},
            {125, 205},
            {110, 220},
            {110, 340},
            {40, 340}}},
          {"A", {{150, 40}, {230, 40}, {340, 340}, {262, 340}, {240, 275}, {140, 275}, {118, 340}, {40, 340}}},
          {"E",
           {{40, 40},
            {240, 40},
            {240, 98},
            {110, 98},
            {110, 158},
            {230, 158},
            {230, 216},
            {110, 216},
            {110, 282},
            {245, 282},
            {245, 340},
            {40, 340}}},
          {"Z",
           {{45, 40},
            {320, 40},
            {320, 95},
            {135, 282},
            {325, 282},
            {325, 340},
            {40, 340},
            {40, 285},
            {225, 98},
            {45, 98}}}};
}

cv::Mat blurred(const cv::Mat& grey, double px) {
  cv::Mat soft;
  cv::GaussianBlur(grey, soft, {}, px, px);
  return soft;
}

trace::contour::TwoTone half() { return {128, false}; }

double blurIn(const cv::Mat& grey) {
  return trace::contour::blurOf(grey, half(), trace::contour::followBorders(grey, half(), 4));
}

cv::Mat tracedGrey(const cv::Mat& grey) { return trace::contour::tonesFor(pictureOf(grey), {}).grey; }

bool same(const cv::Mat& a, const cv::Mat& b) { return cv::countNonZero(a != b) == 0; }

double worstCorner(const std::vector<Path>& paths, const std::vector<Point>& corners) {
  double worst = 0;
  for (const Point corner : corners) {
    double nearest = 1e9;
    for (const Path& path : paths) {
      for (const Segment& s : path.segments) nearest = std::min(nearest, distance(s.end, corner));
    }
    worst = std::max(worst, nearest);
  }
  return worst;
}

}  // namespace

class TestBlur : public QObject {
  Q_OBJECT

 private slots:
  void blurIsMeasured() {
    const cv::Mat disk = drawn(200, 200, disc(100.3, 99.8, 70));
    QVERIFY2(blurIn(disk) < trace::contour::kBlurredPx, qPrintable(QString::number(blurIn(disk))));
    for (const double px : {1.0, 1.5, 2.0, 3.0}) {
      // Pixels smear by half a pixel themselves.
      const double off = blurIn(blurred(disk, px)) / std::hypot(px, 0.5) - 1;
      QVERIFY2(std::abs(off) < 0.05, qPrintable(QString("%1 px: off by %2").arg(px).arg(off)));
    }
    QCOMPARE(trace::contour::blurOf(cv::Mat(9, 9, CV_8UC1, cv::Scalar(100)), half(), {}), 0.0);
    QCOMPARE(trace::contour::blurOf(cv::Mat(1, 1, CV_8UC1, cv::Scalar(0)), half(),
                                    trace::contour::followBorders(cv::Mat(1, 1, CV_8UC1, cv::Scalar(0)), half(), 0)),
             0.0);
  }

  void cornersOfBlurredLettersAreSharp_data() {
    QTest::addColumn<int>("letter");
    QTest::addColumn<double>("px");
    for (std::size_t k = 0; k < letters().size(); ++k) {
      for (const double px : {1.5, 2.0, 2.2}) QTest::addRow("%s, %g px", letters()[k].first, px) << int(k) << px;
    }
  }
  /// At 5 px a mm 0.15 px are 0.03 mm; what the blur left of a bevel one click takes away (refine --sharpen).
  void cornersOfBlurredLettersAreSharp() {
    QFETCH(int, letter);
    QFETCH(double, px);
    const std::vector<Point> corners = letters()[static_cast<std::size_t>(letter)].second;
    const trace::Tracing t = trace::trace(pictureOf(blurred(drawn(kSide, kSide, polygon(corners)), px)), {});
    std::vector<Path> sharp;
    for (const Path& path : t.outlines) sharp.push_back(refine::sharpened(path, 10).path);
    QCOMPARE(sharp.size(), 1U);
    QVERIFY2(sharp.front().segments.size() == corners.size(),
             qPrintable(QString::number(sharp.front().segments.size())));
    const double off = worstCorner(sharp, upright(corners, kSide));
    QVERIFY2(off < 0.15, qPrintable(QString("%1 px").arg(off)));
  }

  void whatIsRoundStaysRound() {
    const trace::Tracing t = trace::trace(pictureOf(blurred(drawn(200, 200, ring(100.3, 99.8, 70, 40)), 2)), {});
    QCOMPARE(t.outlines.size(), 2U);
    for (const Path& path : t.outlines) QCOMPARE(path.segments.size(), 2U);
    const double off = percentile95(t.outlines, [](Point p) {
      const double radius = distance(p, {100.3, 200 - 99.8});
      return std::min(std::abs(radius - 70), std::abs(radius - 40));
    });
    QVERIFY2(off < 0.06, qPrintable(QString::number(off)));
  }

  void whatIsNoBlurIsLeft() {
    const std::vector<Point> star = starCorners(64, 64, 7, 50, 24, 0.3);
    const cv::Mat sharp = drawn(128, 128, polygon(star));
    QVERIFY(same(tracedGrey(sharp), sharp));
    // Enlarged: its steps would come back.
    for (const int how : {cv::INTER_LINEAR, cv::INTER_CUBIC}) {
      cv::Mat large;
      cv::resize(sharp, large, {}, 4, 4, how);
      QVERIFY(same(tracedGrey(large), large));
    }
    // Noise would grow.
    const cv::Mat dirty = noisy(blurred(drawn(256, 256, disc(128, 128, 90)), 2), 4);
    QVERIFY(same(tracedGrey(dirty), dirty));
    // A threshold that somebody set is followed as it is.
    const cv::Mat soft = blurred(drawn(256, 256, polygon(squareCorners(128, 128, 70, 0.2))), 2);
    QVERIFY(!same(tracedGrey(soft), soft));
    trace::TraceSettings own;
    own.threshold = 128;
    QVERIFY(same(trace::contour::tonesFor(pictureOf(soft), own).grey, soft));
  }

  void stepsTurnMoreThanABlur() {
    const cv::Mat square = drawn(200, 200, polygon(squareCorners(100, 100, 60, 0.3)));
    const auto turningIn = [](const cv::Mat& grey) {
      return trace::contour::turningOf(trace::contour::followBorders(grey, half(), 4));
    };
    const double sharp = turningIn(square);
    QVERIFY(std::abs(turningIn(blurred(square, 2)) / sharp - 1) < 0.4);
    cv::Mat coarse;
    cv::resize(square, coarse, {}, 0.2, 0.2, cv::INTER_AREA);
    cv::resize(coarse, coarse, square.size(), 0, 0, cv::INTER_NEAREST);
    QVERIFY(turningIn(coarse) > 2 * sharp);
    QCOMPARE(trace::contour::turningOf({}), 0.0);
  }
};

RIM_TEST(TestBlur)
#include "tst_blur.moc"
