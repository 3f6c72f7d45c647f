// How a solid looks: what is nearer hides what lies behind, and flat sides are of one light.

#include <QTest>
#include <numbers>
#include <set>

#include "core/sketch/shade.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

sketch::Solid plate(const std::vector<Path>& paths, double mm) {
  const Drawing drawing = makeDrawing(paths);
  return sketch::extruded(drawing, sketch::sketchOf(drawing), mm, 0.01);
}

std::set<int> lightsOf(const cv::Mat1b& light) {
  std::set<int> all;
  for (const std::uint8_t value : cv::Mat1b(light)) {
    if (value != 0) all.insert(value);
  }
  return all;
}

}  // namespace

class TestShade : public QObject {
  Q_OBJECT

 private slots:
  void fromAboveOnlyTheTopIsSeen() {
    // A square of 20 mm with a round hole of 5 mm radius: the share of the box that it covers is known.
    Path hole = reversed(circlePath({10, 10}, 5));
    const sketch::Solid solid = plate({polygonThrough({{0, 0}, {20, 0}, {20, 20}, {0, 20}}), hole}, 3);
    const cv::Mat1b light = sketch::shaded(solid, {0, 0}, {400, 400});
    QCOMPARE(lightsOf(light).size(), 1U);
    const double share = cv::countNonZero(light) / (400.0 * 400 * 0.86 * 0.86);
    QVERIFY2(std::abs(share - (1 - std::numbers::pi * 25 / 400)) < 0.01, qPrintable(QString::number(share)));
    QCOMPARE(static_cast<int>(light(200, 200)), 0);
  }

  void fromTheSideTheThicknessIsSeen() {
    const sketch::Solid solid = plate({polygonThrough({{0, 0}, {20, 0}, {20, 20}, {0, 20}})}, 10);
    const cv::Mat1b light = sketch::shaded(solid, {0, std::numbers::pi / 2}, {300, 300});
    QCOMPARE(lightsOf(light).size(), 1U);
    // Twenty wide and ten high.
    const double share = cv::countNonZero(light) / (300.0 * 300 * 0.86 * 0.86);
    QVERIFY(std::abs(share - 0.5) < 0.01);
  }

  void theFrontHidesTheBack() {
    // A low part in front of a high one: seen from the front the high one stands above it, with other sides in sight.
    const sketch::Solid solid = plate({polygonThrough({{0, 0}, {20, 0}, {20, 20}, {0, 20}})}, 10);
    const cv::Mat1b light = sketch::shaded(solid, {0.6, 0.9}, {300, 300});
    QCOMPARE(lightsOf(light).size(), 3U);  // the top and two sides; the other three are hidden
  }

  void nothingIsDark() {
    QCOMPARE(cv::countNonZero(sketch::shaded({}, {}, {50, 50})), 0);
    QVERIFY(sketch::shaded({}, {}, {0, 0}).empty());
  }
};

RIM_TEST(TestShade)
#include "tst_shade.moc"
