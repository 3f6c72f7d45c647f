// What the bench paints when outlines change: that part alone, and it looks as if all were painted anew.

#include <QApplication>
#include <QPixmap>
#include <QTest>

#include "app/bench/bench.h"
#include "app/bench/changed_area.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::app;

namespace {

Path rectangle(Point low, Point high) {
  return {low,
          {Segment::line({high.x, low.y}), Segment::line(high), Segment::line({low.x, high.y}), Segment::line(low)},
          true};
}

Path moved(Path path, Point by) {
  path.start = path.start + by;
  for (Segment& segment : path.segments) segment.end = segment.end + by;
  return path;
}

/// Rows of squares, one of them with a hole, and an open line that is level.
Drawing sheet() {
  std::vector<Path> paths;
  for (int i = 0; i < 20; ++i) {
    const Point at{10.0 + 40 * (i % 5), 10.0 + 40 * (i / 5)};
    paths.push_back(rectangle(at, at + Point{30, 30}));
  }
  paths.push_back(rectangle({20, 20}, {30, 30}));
  paths.push_back({{10, 175}, {Segment::line({200, 175})}, false});
  return makeDrawing(std::move(paths));
}

/// Tells what it was asked to paint.
class Listener : public BenchLayer {
 public:
  Listener() : BenchLayer(Level::OverOutlines) {}
  void paint(QPainter&, const LayerView& view, std::size_t) const override { asked.push_back(view.visible); }
  mutable std::vector<QRectF> asked;
};

void ready(Bench& bench) {
  Box page;
  page.include(Point{0, 0});
  page.include(Point{210, 190});
  bench.resize(700, 600);
  bench.setPage(page);
  bench.show();
  QApplication::processEvents();
}

QImage sightOf(Bench& bench) {
  QImage sight = bench.grab().toImage();
  if (!bench.isPainting()) return sight;
  bench.finishScene();
  return bench.grab().toImage();
}

int differentPixels(const QImage& a, const QImage& b) {
  int different = 0;
  for (int y = 0; y < a.height(); ++y) {
    for (int x = 0; x < a.width(); ++x) different += a.pixel(x, y) != b.pixel(x, y) ? 1 : 0;
  }
  return different;
}

using Change = std::function<void(Drawing&)>;

}  // namespace

Q_DECLARE_METATYPE(Change)

class TestBenchChanges : public QObject {
  Q_OBJECT

 private slots:
  void whatChangedIsPaintedAsIfAllWere_data() {
    QTest::addColumn<Change>("change");
    QTest::newRow("moved") << Change([](Drawing& d) { d.setPath(7, moved(d.path(7), {3, 4})); });
    QTest::newRow("a hole moved out") << Change([](Drawing& d) { d.setPath(20, moved(d.path(20), {15, 0})); });
    QTest::newRow("the level line moved") << Change([](Drawing& d) { d.setPath(21, moved(d.path(21), {0, 5})); });
    QTest::newRow("one gone") << Change([](Drawing& d) { d.outlines.erase(d.outlines.begin() + 3); });
    QTest::newRow("one more") << Change([](Drawing& d) {
      const Drawing more = makeDrawing({rectangle({95, 95}, {105, 105})});
      d.outlines.push_back(more.outlines.front());
    });
    QTest::newRow("a ring round all") << Change([](Drawing& d) {
      const Drawing more = makeDrawing({rectangle({2, 2}, {208, 188})});
      d.outlines.insert(d.outlines.begin(), more.outlines.front());
    });
  }
  void whatChangedIsPaintedAsIfAllWere() {
    QFETCH(Change, change);
    const auto before = std::make_shared<const Drawing>(sheet());
    Drawing other = *before;
    change(other);
    const auto after = std::make_shared<const Drawing>(std::move(other));
    Bench bench;
    ready(bench);
    bench.setOutlines(before);
    const QImage first = sightOf(bench);
    bench.setOutlines(after);
    const QImage patched = sightOf(bench);
    QVERIFY(differentPixels(first, patched) > 20);
    bench.setPeek(false);  // all of it anew
    QCOMPARE(differentPixels(patched, sightOf(bench)), 0);
    bench.setOutlines(before);
    QCOMPARE(differentPixels(first, sightOf(bench)), 0);
  }

  void onlyThatPartIsPainted() {
    const auto before = std::make_shared<const Drawing>(sheet());
    Drawing other = *before;
    other.setPath(7, moved(other.path(7), {3, 4}));
    Listener listener;
    Bench bench;
    bench.addLayer(&listener);
    ready(bench);
    bench.setOutlines(before);
    sightOf(bench);
    listener.asked.clear();
    bench.setOutlines(std::make_shared<const Drawing>(std::move(other)));
    sightOf(bench);
    QCOMPARE(listener.asked.size(), 1U);
    QVERIFY(listener.asked.front().width() < 200 && listener.asked.front().height() < 200);
    // What else changes at the same time is not lost.
    listener.asked.clear();
    bench.setOutlines(before);
    bench.setStrength(0.3);
    sightOf(bench);
    QCOMPARE(listener.asked.size(), 1U);
    QVERIFY(listener.asked.front().width() > 600);
  }

  void theAreaIsThatOfWhatDiffers() {
    const Drawing before = sheet();
    QVERIFY(changedArea(before, before)->empty());
    Drawing after = before;
    after.setPath(0, moved(after.path(0), {5, 0}));
    const Box area = *changedArea(before, after);
    QCOMPARE(area.low.x, 10.0);
    QCOMPARE(area.high.x, 45.0);
    QCOMPARE(area.high.y, 40.0);
    std::swap(after.outlines[4], after.outlines[5]);
    QVERIFY(!changedArea(before, after));
  }
};

RIM_TEST(TestBenchChanges)
#include "tst_bench_changes.moc"
