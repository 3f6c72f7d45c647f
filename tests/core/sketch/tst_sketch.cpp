// Profiles and the solids that are made of them. Truth: areas by formula, volume = area x thickness (Cavalieri),
// and a surface without gaps.

#include <QTest>
#include <numbers>
#include <random>

#include "core/geometry/circle.h"
#include "core/sketch/caps.h"
#include "core/sketch/solid.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

Path square(double x, double y, double side) {
  return polygonThrough({{x, y}, {x + side, y}, {x + side, y + side}, {x, y + side}});
}

}  // namespace

class TestSketch : public QObject {
  Q_OBJECT

 private slots:
  void holesBelongToTheirProfiles() {
    // A plate with two holes, an island in one of them with a hole of its own, a part beside it, an open line, a bow
    // tie.
    Drawing drawing = makeDrawing({square(0, 0, 100), square(10, 10, 30), square(60, 60, 20), square(15, 15, 20),
                                   circlePath({25, 25}, 5), square(200, 0, 10)});
    add(drawing, {{300, 0}, {Segment::line({310, 0})}, false});
    add(drawing, polygonThrough({{400, 0}, {420, 20}, {420, 0}, {400, 20}}));
    const sketch::Sketch sketch = sketch::sketchOf(drawing);
    QCOMPARE(sketch.profiles.size(), 3U);
    QCOMPARE(sketch.profiles[0].outer, 0U);
    QCOMPARE(sketch.profiles[0].holes, (std::vector<std::size_t>{1, 2}));
    QCOMPARE(sketch.profiles[0].areaMm2, 10000.0 - 900 - 400);
    QCOMPARE(sketch.profiles[1].outer, 3U);
    QCOMPARE(sketch.profiles[1].holes, std::vector<std::size_t>{4});
    QVERIFY(std::abs(sketch.profiles[1].areaMm2 - (400 - 25 * std::numbers::pi)) < 1e-9);
    QCOMPARE(sketch.profiles[2].areaMm2, 100.0);
    QCOMPARE(sketch.unfit.size(), 2U);
    QVERIFY(sketch.unfit[0].outline == 6 && sketch.unfit[0].why == sketch::Unfit::Open);
    QVERIFY(sketch.unfit[1].outline == 7 && sketch.unfit[1].why == sketch::Unfit::Crosses);
  }

  void whatCrossesIsNoProfile() {
    const sketch::Sketch sketch =
        sketch::sketchOf(makeDrawing({square(0, 0, 20), square(10, 10, 20), square(100, 100, 5)}));
    QCOMPARE(sketch.profiles.size(), 1U);
    QCOMPARE(sketch.profiles[0].outer, 2U);
    QCOMPARE(sketch.unfit.size(), 2U);
  }

  void layersAreSheetsOfTheirOwn() {
    const sketch::Sketch sketch =
        sketch::sketchOf(makeDrawing({square(0, 0, 20), square(5, 5, 10)}, {{"a"}, {"b"}}, {0, 1}));
    QCOMPARE(sketch.profiles.size(), 2U);
    QVERIFY(sketch.profiles[0].holes.empty() && sketch.profiles[1].holes.empty());
  }

  void solidsAreWatertightAndAsLargeAsTheyShouldBe() {
    std::mt19937 random(5);
    for (int round = 0; round < 20; ++round) {
      const Drawing drawing = plate(random);
      const sketch::Sketch sketch = sketch::sketchOf(drawing);
      QVERIFY(!sketch.profiles.empty() && sketch.unfit.empty());
      const sketch::Solid solid = sketch::extruded(drawing, sketch, 2.5, 0.001);
      QVERIFY(sketch::isWatertight(solid));
      double area = 0;
      for (const sketch::Profile& p : sketch.profiles) area += p.areaMm2;
      QVERIFY2(std::abs(sketch::volumeOf(solid) / (2.5 * area) - 1) < 1e-4,
               qPrintable(QString("%1 of %2").arg(sketch::volumeOf(solid)).arg(2.5 * area)));
    }
  }

  void aHoleInASurfaceIsSeen() {
    const Drawing drawing = makeDrawing({square(0, 0, 10)});
    sketch::Solid solid = sketch::extruded(drawing, sketch::sketchOf(drawing), 1, 0.01);
    QCOMPARE(solid.triangles.size(), 12U);
    QVERIFY(sketch::isWatertight(solid));
    QVERIFY(std::abs(sketch::volumeOf(solid) - 100) < 1e-9);
    solid.triangles.pop_back();
    QVERIFY(!sketch::isWatertight(solid));
  }

  void holesThatTouchTheRimAreClosed() {
    // A hole that has a corner on the outer border, and two holes that share one.
    const Drawing drawing =
        makeDrawing({square(0, 0, 40), polygonThrough({{0, 20}, {10, 15}, {10, 25}}),
                     polygonThrough({{20, 20}, {25, 15}, {25, 25}}), polygonThrough({{20, 20}, {15, 25}, {15, 15}})});
    const sketch::Sketch sketch = sketch::sketchOf(drawing);
    const sketch::Solid solid = sketch::extruded(drawing, sketch, 1, 0.01);
    QVERIFY(sketch::isWatertight(solid));
    double area = 0;
    for (const sketch::Profile& p : sketch.profiles) area += p.areaMm2;
    QVERIFY(std::abs(sketch::volumeOf(solid) - area) < 1e-6);
  }

  void nothingMakesNothing() {
    QVERIFY(sketch::sketchOf(Drawing()).profiles.empty());
    QVERIFY(sketch::capOf({}).triangles.empty());
    QVERIFY(sketch::capOf({{{1, 1}, {1, 1}, {1, 1}}}).triangles.empty());
    QVERIFY(sketch::capOf({{{0, 0}, {1, 1}, {2, 2}}}).triangles.empty());
  }
};

RIM_TEST(TestSketch)
#include "tst_sketch.moc"
