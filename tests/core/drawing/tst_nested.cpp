// What lies in what, each layer by itself, whichever way outlines run and in whatever order they stand.
#include <QtTest>

#include "core/drawing/nested.h"
#include "support/test_list.h"

using namespace rim;

namespace {

Path square(double low, double high) { return polygonThrough({{low, low}, {high, low}, {high, high}, {low, high}}); }

/// A hole before its plate, an island in it, a line across, and a square of another layer.
Drawing plate(bool turned) {
  std::vector<Path> paths{square(10, 30), square(0, 40), square(15, 20), Path{{0, 5}, {Segment::line({40, 5})}, false},
                          square(5, 8)};
  if (turned) {
    for (Path& path : paths) path = reversed(path);
  }
  return makeDrawing(paths, {{"a"}, {"b"}}, {0, 0, 0, 0, 1});
}

}  // namespace

class TestNested : public QObject {
  Q_OBJECT

 private slots:
  void depthsAndAreas() {
    for (const bool turned : {false, true}) {
      QCOMPARE(depthsOf(plate(turned)), (std::vector<int>{1, 0, 2, 0, 0}));
      const auto areas = areasOf(plate(turned));
      QCOMPARE(areas.size(), 3U);
      QVERIFY(std::find(areas.begin(), areas.end(), std::vector<std::size_t>{1, 0}) != areas.end());
      QVERIFY(std::find(areas.begin(), areas.end(), std::vector<std::size_t>{2}) != areas.end());
      QVERIFY(std::find(areas.begin(), areas.end(), std::vector<std::size_t>{4}) != areas.end());
    }
    QVERIFY(areasOf({}).empty() && depthsOf({}).empty());
  }
};

RIM_TEST(TestNested)
#include "tst_nested.moc"
