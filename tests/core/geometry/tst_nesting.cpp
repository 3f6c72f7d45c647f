#include <QTest>
#include <random>

#include "core/geometry/box_index.h"
#include "core/geometry/nesting.h"
#include "core/geometry/point_in_polygon.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

class TestNesting : public QObject {
  Q_OBJECT

 private slots:
  void holesAndIslandsKnowWhatIsRoundThem() {
    const std::vector<Path> paths{circlePath({0, 0}, 2), circlePath({0, 0}, 10), circlePath({0, 0}, 6),
                                  circlePath({40, 0}, 5), polygonThrough({{-20, -20}, {60, -20}, {60, 20}, {-20, 20}})};
    const Nesting nesting = nestingOf(paths);
    const std::vector<int> depths{3, 1, 2, 1, 0};
    QVERIFY(nesting.depth == depths);
    QCOMPARE(nesting.parent[0], std::optional<std::size_t>(2));
    QCOMPARE(nesting.parent[2], std::optional<std::size_t>(1));
    QCOMPARE(nesting.parent[3], std::optional<std::size_t>(4));
    QVERIFY(!nesting.parent[4]);
  }

  void outlinesThatTouchFromWithinAreInside() {
    const std::vector<Path> paths{polygonThrough({{0, 0}, {10, 0}, {10, 10}, {0, 10}}),
                                  polygonThrough({{0, 0}, {5, 0}, {5, 5}, {0, 5}})};
    QCOMPARE(nestingOf(paths).depth[1], 1);
    QCOMPARE(nestingOf(paths).depth[0], 0);
  }

  void openPathsHoldNothingAndLieInNothing() {
    std::vector<Path> paths{circlePath({0, 0}, 10), circlePath({0, 0}, 5), circlePath({0, 0}, 2)};
    paths[1].closed = false;
    const Nesting nesting = nestingOf(paths);
    QCOMPARE(nesting.depth[1], 0);
    QCOMPARE(nesting.depth[2], 1);
  }

  void aPlaceIsInsideOrNot() {
    const PointInPolygon disc(circlePath({3, 4}, 5));
    QVERIFY(disc.has({3, 4}) && disc.has({7.9, 4}) && !disc.has({8.1, 4}) && !disc.has({-3, 4}));
    QVERIFY(disc.hasAll({{3, 4}, {3, 0}}) && !disc.hasAll({{3, 4}, {3, -2}}));
  }

  void insideIsAsCountedOverAllSides() {
    std::mt19937 random(9);
    std::uniform_real_distribution<double> place(0, 10);
    for (const int corners : {3, 4, 17, 400}) {
      std::vector<Point> points;
      for (int i = 0; i < corners; ++i) points.push_back({place(random), place(random)});
      const PointInPolygon inside(polygonThrough(points));
      for (int k = 0; k < 200; ++k) {
        const Point p{place(random), place(random)};
        int crossed = 0;  // sides that a ray to the right passes
        for (std::size_t i = 0; i < points.size(); ++i) {
          const Point a = points[i];
          const Point b = points[(i + 1) % points.size()];
          if ((a.y > p.y) != (b.y > p.y) && p.x < a.x + (b.x - a.x) * (p.y - a.y) / (b.y - a.y)) ++crossed;
        }
        QVERIFY2(inside.has(p) == (crossed % 2 == 1),
                 qPrintable(QString("%1 corners, at %2 %3").arg(corners).arg(p.x, 0, 'g', 12).arg(p.y)));
      }
    }
  }

  void boxesAreFoundAsByLookingAtAll() {
    std::mt19937 random(4);
    std::uniform_real_distribution<double> place(0, 100);
    std::vector<Box> boxes;
    for (int k = 0; k < 500; ++k) {
      Box box;
      const Point p{place(random), place(random)};
      box.include(p);
      box.include(p + Point{place(random) / 20, place(random) / 20});
      boxes.push_back(box);
    }
    const BoxIndex index(boxes);
    for (int k = 0; k < 50; ++k) {
      const Box& asked = boxes[static_cast<std::size_t>(k)];
      const double reach = place(random) / 30;
      std::vector<bool> found(boxes.size(), false);
      index.near(asked, reach, [&found](std::size_t i) { found[i] = true; });
      std::vector<bool> covers(boxes.size(), false);
      index.covering(asked, [&covers](std::size_t i) { covers[i] = true; });
      for (std::size_t i = 0; i < boxes.size(); ++i) {
        const Box& b = boxes[i];
        const bool near = b.low.x <= asked.high.x + reach && b.high.x >= asked.low.x - reach &&
                          b.low.y <= asked.high.y + reach && b.high.y >= asked.low.y - reach;
        QCOMPARE(static_cast<bool>(found[i]), near);
        const bool round =
            b.low.x <= asked.low.x && b.low.y <= asked.low.y && b.high.x >= asked.high.x && b.high.y >= asked.high.y;
        QCOMPARE(static_cast<bool>(covers[i]), round);
      }
    }
  }

  void theNearestComeFirst() {
    std::vector<Box> boxes;
    for (const double x : {5.0, 1.0, 9.0, 3.0}) boxes.push_back({{x, 0}, {x, 0}});
    const std::vector<std::size_t> expected{1, 3, 0};
    QVERIFY(BoxIndex(boxes).nearest({0, 0}, 3) == expected);
  }
};

RIM_TEST(TestNesting)
#include "tst_nesting.moc"
