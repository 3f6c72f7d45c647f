// Pictures of labels as parts, and counts of their pixels while they change.

#include <QTest>
#include <map>
#include <opencv2/imgproc.hpp>
#include <random>

#include "core/colour/connected_components.h"
#include "core/colour/ink_counts.h"
#include "core/disjoint_sets.h"
#include "core/error.h"
#include "support/test_list.h"

using namespace rim;

namespace {

/// Labels below `inks` in random rectangles and single pixels.
cv::Mat randomLabels(cv::Size size, int inks, unsigned seed) {
  std::mt19937 random(seed);
  const auto below = [&random](int end) { return static_cast<int>(random() % static_cast<unsigned>(end)); };
  cv::Mat labels(size, CV_8U, cv::Scalar(0));
  for (int i = 0; i < 60; ++i) {
    const cv::Rect box(below(size.width), below(size.height), 1 + below(20), 1 + below(9));
    labels(box & cv::Rect({}, size)).setTo(below(inks));
  }
  for (int i = 0; i < size.area() / 9; ++i)
    labels.at<std::uint8_t>(below(size.height), below(size.width)) = static_cast<std::uint8_t>(below(inks));
  return labels;
}

/// Areas of all parts of an ink as OpenCV finds them.
std::vector<std::size_t> areasByOpenCv(const cv::Mat& labels, int ink) {
  cv::Mat parts;
  cv::Mat stats;
  cv::Mat middles;
  const int count = cv::connectedComponentsWithStats(labels == ink, parts, stats, middles, 4);
  std::vector<std::size_t> areas;
  for (int i = 1; i < count; ++i) areas.push_back(static_cast<std::size_t>(stats.at<int>(i, cv::CC_STAT_AREA)));
  std::sort(areas.begin(), areas.end());
  return areas;
}

std::vector<std::size_t> areasOf(const colour::ConnectedComponents& all, int ink) {
  std::vector<std::size_t> areas;
  for (const colour::Component& part : all.parts) {
    if (part.label == ink) areas.push_back(part.pixels);
  }
  std::sort(areas.begin(), areas.end());
  return areas;
}

}  // namespace

class TestLabelParts : public QObject {
  Q_OBJECT

 private slots:
  void partsAreThoseThatOpenCvFinds_data() {
    QTest::addColumn<int>("width");
    QTest::addColumn<int>("height");
    QTest::newRow("wide") << 97 << 41;
    QTest::newRow("tall") << 23 << 120;
    QTest::newRow("one row") << 70 << 1;
    QTest::newRow("one column") << 1 << 70;
  }
  void partsAreThoseThatOpenCvFinds() {
    QFETCH(int, width);
    QFETCH(int, height);
    constexpr int kInks = 4;
    for (unsigned seed = 0; seed < 30; ++seed) {
      const cv::Mat labels = randomLabels({width, height}, kInks, seed);
      const colour::ConnectedComponents all = colour::connectedComponents(labels);
      for (int ink = 0; ink < kInks; ++ink) QCOMPARE(areasOf(all, ink), areasByOpenCv(labels, ink));
      cv::Mat painted(labels.size(), CV_8U, cv::Scalar(99));
      for (const colour::LabelRun& run : all.runs)
        painted.row(run.y).colRange(run.begin, run.end).setTo(all.parts[run.part].label);
      QCOMPARE(cv::countNonZero(painted != labels), 0);
    }
  }

  void armsThatMeetFartherDownAreOnePart() {
    // A comb: its teeth hang together only in the last row.
    const cv::Mat labels = (cv::Mat_<std::uint8_t>(3, 7) << 1, 0, 1, 0, 1, 0, 1,  //
                            1, 0, 1, 0, 1, 0, 1,                                  //
                            1, 1, 1, 1, 1, 1, 1);
    const colour::ConnectedComponents all = colour::connectedComponents(labels);
    QCOMPARE(int(all.parts.size()), 4);
    QCOMPARE(int(all.parts[0].label), 1);
    QCOMPARE(int(all.parts[0].pixels), 15);
    QCOMPARE(int(all.runs.back().part), 0);
    const auto small = colour::runsOfSmallComponents(all, 2);
    QCOMPARE(int(small.size()), 3);
    QCOMPARE(small[0].front().begin, 1);
    QCOMPARE(int(small[0].size()), 2);
  }

  void aRunEndsWhereTheLabelChanges() {
    std::vector<std::uint8_t> row(40, 7);
    for (int change = 1; change < 40; ++change) {
      std::vector<std::uint8_t> own = row;
      own[std::size_t(change)] = 8;
      QCOMPARE(colour::endOfRun(own.data(), 0, 40), change);
      QCOMPARE(colour::endOfRun(own.data(), change, change + 1), change + 1);
    }
    QCOMPARE(colour::endOfRun(row.data(), 3, 40), 40);
  }

  void itCanBeStopped() {
    std::stop_source source;
    source.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, colour::connectedComponents(cv::Mat::zeros(3, 3, CV_8U), source.get_token()));
  }

  void countsFollowTheChanges() {
    constexpr int kInks = 5;
    std::mt19937 random(3);
    const cv::Mat labels = randomLabels({83, 59}, kInks, 11);
    colour::InkCounts counts(labels, kInks);
    for (int i = 0; i < 300; ++i) {
      const int y = int(random() % 59U);
      const int begin = int(random() % 83U);
      const int end = std::min(83, begin + 1 + int(random() % 30U));
      counts.change({y, begin, end, 0}, std::uint8_t(random() % kInks));
      const cv::Point corner(int(random() % 83U), int(random() % 59U));
      const cv::Rect box = cv::Rect(corner, cv::Size(1 + int(random() % 60U), 1 + int(random() % 40U))) &
                           cv::Rect(0, 0, labels.cols, labels.rows);
      const colour::LabelCounts found = counts.pixelsIn(box);
      for (int ink = 0; ink < kInks; ++ink)
        QCOMPARE(int(found[std::size_t(ink)]), cv::countNonZero(counts.labels()(box) == ink));
    }
    QCOMPARE(counts.changes(), 300);
    QVERIFY2(cv::countNonZero(labels != counts.labels()) > 0, "the labels given stay, the own ones change");
  }

  void changesAreNoticedWhereTheyAre() {
    colour::InkCounts counts(cv::Mat::zeros(100, 100, CV_8U), 2);
    counts.change({50, 40, 45, 0}, 1);
    QVERIFY(counts.mayHaveChangedSince({44, 50, 1, 1}, 0));
    QVERIFY(!counts.mayHaveChangedSince({44, 50, 1, 1}, 1));
    QVERIFY(!counts.mayHaveChangedSince({60, 50, 40, 50}, 0));
    QVERIFY(counts.mayHaveChangedSince({0, 0, 100, 100}, 0));
  }

  void setsAreKnownByTheirLeastNumber() {
    DisjointSets sets(5);
    sets.join(4, 2);
    sets.join(3, 4);
    sets.add();
    QCOMPARE(int(sets.of(3)), 2);
    QCOMPARE(int(sets.of(4)), 2);
    QCOMPARE(int(sets.of(1)), 1);
    QCOMPARE(int(sets.of(5)), 5);
    sets.join(5, 1);
    sets.join(3, 5);
    QCOMPARE(int(sets.of(4)), 1);
  }
};

RIM_TEST(TestLabelParts)
#include "tst_connected_components.moc"
