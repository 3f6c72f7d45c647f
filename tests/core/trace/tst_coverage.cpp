// How much of each pixel a path covers, and how that changes, against numeric integration.

#include <QTest>
#include <opencv2/imgproc.hpp>
#include <random>

#include "core/geometry/flatten.h"
#include "core/trace/contour/coverage.h"
#include "core/trace/contour/rendering.h"
#include "core/trace/contour/wanted_coverage.h"
#include "core/trace/outline/polygon_by_greys.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

const cv::Size kPicture{24, 20};

Path blob(std::mt19937& random, bool curves) {
  std::uniform_real_distribution<double> radius(3, 8);
  std::uniform_real_distribution<double> bulge(-0.4, 0.4);
  std::uniform_int_distribution<int> kind(0, 2);
  std::vector<Point> corners;
  for (int k = 0; k < 7; ++k) {
    const double turn = 2 * M_PI * k / 7;
    const double r = radius(random);
    corners.push_back({12.3 + r * std::cos(turn), 9.6 + r * std::sin(turn)});
  }
  Path path{corners[0], {}, true};
  for (std::size_t k = 1; k <= corners.size(); ++k) {
    const Point from = corners[k - 1];
    const Point to = corners[k % corners.size()];
    const int chosen = curves ? kind(random) : 0;
    if (chosen == 1) {
      path.segments.push_back(Segment::arc(to, bulge(random)));
    } else if (chosen == 2) {
      const Point off = leftNormal(to - from) * bulge(random);
      path.segments.push_back(Segment::cubic(lerp(from, to, 0.3) + off, lerp(from, to, 0.7) + off, to));
    } else {
      path.segments.push_back(Segment::line(to));
    }
  }
  return path;
}

/// The share of a pixel inside the path, by 40 x 40 samples.
double sampled(const std::vector<Point>& outline, int row, int column) {
  constexpr int kSamples = 40;
  int inside = 0;
  for (int y = 0; y < kSamples; ++y) {
    for (int x = 0; x < kSamples; ++x) {
      const Point p{column + (x + 0.5) / kSamples, kPicture.height - row - (y + 0.5) / kSamples};
      bool in = false;
      for (std::size_t i = 0, j = outline.size() - 1; i < outline.size(); j = i++) {
        const Point a = outline[i];
        const Point b = outline[j];
        if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) in = !in;
      }
      if (in) ++inside;
    }
  }
  return inside / static_cast<double>(kSamples * kSamples);
}

double worstOff(const Path& path) {
  const trace::contour::Coverage coverage = trace::contour::coverageOf(path, kPicture);
  const std::vector<Point> outline = flatten(path, 0.002);
  double worst = 0;
  for (int row = 0; row < kPicture.height; ++row) {
    for (int column = 0; column < kPicture.width; ++column) {
      const bool there = coverage.where.contains({column, row});
      const double got = there ? coverage.shares(row - coverage.where.y, column - coverage.where.x) : 0;
      worst = std::max(worst, std::abs(got - sampled(outline, row, column)));
    }
  }
  return worst;
}

Path squareAt(Point low, double side) {
  return polygonThrough({low, low + Point{side, 0}, low + Point{side, side}, low + Point{0, side}});
}

}  // namespace

class TestCoverage : public QObject {
  Q_OBJECT

 private slots:
  void noiseHasNoGreysThatSayAnything() {
    QVERIFY(!trace::contour::wantedCoverage(randomGrey(200, 200, 3), {128, false}));
    const cv::Mat round = drawn(60, 60, disc(30, 30, 20));
    QVERIFY(trace::contour::wantedCoverage(round, {128, false}).has_value());
  }

  void sharesAreThoseOfNumericIntegration() {
    std::mt19937 random(11);
    // 40 x 40 samples a pixel are off by up to half a row of them.
    for (int k = 0; k < 12; ++k) QVERIFY2(worstOff(blob(random, k % 2 == 1)) < 0.02, qPrintable(QString::number(k)));
    QVERIFY(worstOff(squareAt({3.25, 4.5}, 4)) < 1e-6);
  }

  void sharesAddUpToTheArea() {
    std::mt19937 random(12);
    for (int k = 0; k < 30; ++k) {
      const Path path = blob(random, true);
      const trace::contour::Coverage coverage = trace::contour::coverageOf(path, kPicture);
      // Chords within 0.005 px, along 50 px.
      QVERIFY(qAbs(cv::sum(coverage.shares)[0] - signedArea(path)) < 0.15);
      const trace::contour::Coverage hole = trace::contour::coverageOf(reversed(path), kPicture, 3);
      QVERIFY(qAbs(cv::sum(hole.shares)[0] + signedArea(path)) < 0.15);
    }
  }

  void whatLiesOutsideThePictureIsLeftOut() {
    const trace::contour::Coverage part = trace::contour::coverageOf(squareAt({-5, 15}, 10), kPicture);
    QCOMPARE(part.where, cv::Rect(0, 0, 6, 6) & cv::Rect({}, kPicture));
    QVERIFY(qAbs(cv::sum(part.shares)[0] - 25) < 1e-5);
    QVERIFY(trace::contour::coverageOf(squareAt({100, 100}, 5), kPicture).where.empty());
  }

  void derivativesAreDifferences() {
    std::mt19937 random(13);
    for (int k = 0; k < 10; ++k) {
      const Path path = blob(random, false);
      const cv::Rect where({}, kPicture);
      cv::Mat1d byStart[2] = {cv::Mat1d(kPicture, 0.0), cv::Mat1d(kPicture, 0.0)};
      cv::Mat1d byEnd[2] = {cv::Mat1d(kPicture, 0.0), cv::Mat1d(kPicture, 0.0)};
      // The first corner is the end of the last edge and the start of the first one.
      trace::outline::addCoverageDerivatives(segmentStart(path, 6), path.start, where, kPicture, byStart, byEnd);
      cv::Mat1d atCorner[2] = {byEnd[0].clone(), byEnd[1].clone()};
      trace::outline::addCoverageDerivatives(path.start, path.segments[0].end, where, kPicture, atCorner, byEnd);
      for (int axis = 0; axis < 2; ++axis) {
        constexpr double kStep = 1e-3;
        const auto moved = [&](double by) {
          Path other = path;
          other.start = other.start + (axis == 0 ? Point{by, 0} : Point{0, by});
          other.segments.back().end = other.start;
          cv::Mat1f all(kPicture, 0.F);
          const trace::contour::Coverage coverage = trace::contour::coverageOf(other, kPicture);
          coverage.shares.copyTo(all(coverage.where));
          return all;
        };
        cv::Mat1d difference;
        cv::Mat(moved(kStep) - moved(-kStep)).convertTo(difference, CV_64F, 1 / (2 * kStep));
        QVERIFY2(cv::norm(difference, atCorner[axis], cv::NORM_INF) < 5e-3,
                 qPrintable(QString::number(cv::norm(difference, atCorner[axis], cv::NORM_INF))));
      }
    }
  }

  void aPolygonIsBroughtToItsGreys() {
    const Path truth = polygonThrough({{5.3, 4.2}, {12.6, 6.1}, {11.2, 13.7}, {4.9, 11.3}});
    const Path start = polygonThrough({{5.9, 4.9}, {12.1, 6.6}, {10.7, 13.1}, {5.3, 10.8}});
    const auto got = trace::outline::polygonByGreys(start, trace::contour::coverageOf(truth, kPicture, 3), kPicture, 0);
    QVERIFY(got.has_value());
    for (std::size_t i = 0; i < 4; ++i) QVERIFY(distance(segmentStart(*got, i), segmentStart(truth, i)) < 0.01);
    // Sides that are nearly level become so.
    const Path leaning = polygonThrough({{5, 5.1}, {12, 5}, {12.1, 12}, {5.1, 12.1}});
    const auto level = trace::outline::polygonByGreys(
        leaning, trace::contour::coverageOf(squareAt({5, 5}, 7), kPicture, 3), kPicture, 4);
    QVERIFY(level.has_value());
    for (std::size_t i = 0; i < 4; ++i) {
      const Point side = level->segments[i].end - segmentStart(*level, i);
      QVERIFY(std::min(std::abs(side.x), std::abs(side.y)) < 1e-9);
    }
    // Sides that cannot meet.
    QVERIFY(!trace::outline::polygonByGreys(polygonThrough({{5, 5}, {9, 5.05}, {13, 5}, {9, 12}}),
                                            trace::contour::coverageOf(truth, kPicture, 3), kPicture, 4));
  }

  void coverageIsWantedBetweenTheLevelsBeside() {
    const cv::Mat grey = drawn(30, 30, polygon({{8.5, 8}, {20, 8}, {20, 20}, {8.5, 20}}), 40, 200);
    const auto wanted = trace::contour::wantedCoverage(grey, {120, false});
    QVERIFY(wanted.has_value());
    QVERIFY(wanted->noise < 1e-6);
    QVERIFY(qAbs(wanted->shares(14, 8) - 0.5) < 0.01);
    QVERIFY(qAbs(wanted->shares(14, 12) - 1) < 0.01 && qAbs(wanted->shares(2, 2)) < 0.01);
    const auto light = trace::contour::wantedCoverage(~grey, {136, true});
    QVERIFY(light.has_value() && qAbs(light->shares(14, 8) - 0.5) < 0.01);
    QVERIFY(!trace::contour::wantedCoverage(cv::Mat(9, 9, CV_8UC1, cv::Scalar(80)), {120, false}));
    QVERIFY(!trace::contour::wantedCoverage(drawn(30, 30, disc(15, 15, 8), 118, 124), {121, false}));
    QVERIFY(trace::contour::wantedCoverage(noisy(grey, 6), {120, false})->noise > 0.02);
    // An edge as pixels make it is steep; what smears it is seen.
    const cv::Mat round = drawn(60, 60, disc(30.2, 29.6, 20));
    QVERIFY(trace::contour::wantedCoverage(round, {128, false})->steepness > 0.6);
    cv::Mat soft;
    cv::GaussianBlur(round, soft, {9, 9}, 1);
    QVERIFY(trace::contour::wantedCoverage(soft, {128, false})->steepness < 0.45);
  }

  void aRenderingTellsWhatAgrees() {
    const Path truth = squareAt({5.5, 5.25}, 7);
    const trace::contour::Coverage coverage = trace::contour::coverageOf(truth, kPicture);
    cv::Mat1f wanted(kPicture, 0.F);
    coverage.shares.copyTo(wanted(coverage.where));
    const Path small = squareAt({5.8, 5.55}, 6.4);
    trace::contour::Rendering rendering(wanted, {small});
    QVERIFY(rendering.changeBy(small, truth) < 0);
    QVERIFY(qAbs(rendering.misfitOf(small, truth)) < 0.01);
    // The edge in the middle of a side has to move out by 0.3 px.
    QVERIFY(qAbs(rendering.offAt({5.8, 8.5}) - 0.3) < 0.12);
    QVERIFY(rendering.misfitAlong(small).most > 0.2);
    rendering.replace(small, truth);
    QVERIFY(rendering.misfitAlong(truth).most < 0.05);
    QVERIFY(qAbs(rendering.offAt({5.5, 8.5})) < 0.05);
    QVERIFY(rendering.usualOff() < 0.05);
  }
};

RIM_TEST(TestCoverage)
#include "tst_coverage.moc"
