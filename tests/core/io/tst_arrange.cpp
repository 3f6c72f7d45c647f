// Where a drawing begins in a file, and on what page.
#include <QtTest>

#include "core/io/arrange.h"
#include "core/io/deliver.h"
#include "support/test_list.h"

using namespace rim;

namespace {

/// A box of 30 x 20 mm that begins at 10, 5.
Drawing box() {
  Drawing drawing = makeDrawing({polygonThrough({{10, 5}, {40, 5}, {40, 25}, {10, 25}})});
  drawing.pageWidth = 50;
  drawing.pageHeight = 30;
  return drawing;
}

Point lowOf(const Drawing& drawing) { return boxOf(pathsOf(drawing)).low; }

}  // namespace

class TestArrange : public QObject {
  Q_OBJECT

 private slots:
  void originsOfOutlinesAndOfTheStock() {
    const Stock stock{100, 60, {-10, -15}};
    const std::vector<std::tuple<OriginAt, Point, Point>> all{
        {OriginAt::Drawing, {10, 5}, {10, 5}},      {OriginAt::LowerLeft, {0, 0}, {20, 20}},
        {OriginAt::Centre, {-15, -10}, {-30, -10}}, {OriginAt::LowerRight, {-30, 0}, {-80, 20}},
        {OriginAt::UpperLeft, {0, -20}, {20, -40}}, {OriginAt::UpperRight, {-30, -20}, {-80, -40}}};
    for (const auto& [origin, ofOutlines, ofStock] : all) {
      ExportSettings settings;
      settings.origin = origin;
      QCOMPARE(lowOf(arranged(box(), settings, stock)), ofOutlines);
      settings.ofStock = true;
      QCOMPARE(lowOf(arranged(box(), settings, stock)), ofStock);
      QCOMPARE(lowOf(arranged(box(), settings)), ofOutlines);  // without a stock
    }
  }

  void thePageIsTheStock() {
    ExportSettings settings;
    settings.onStock = true;
    const Drawing page = arranged(box(), settings, Stock{100, 60, {-10, -15}});
    QCOMPARE(page.pageWidth, 100.0);
    QCOMPARE(page.pageHeight, 60.0);
    QCOMPARE(lowOf(page), (Point{20, 20}));
    QCOMPARE(arranged(box(), settings).pageWidth, 50.0);
    settings.onStock = false;
    settings.marginMm = 3;
    const Drawing round = arranged(box(), settings);
    QCOMPARE(round.pageWidth, 36.0);
    QCOMPARE(lowOf(round), (Point{3, 3}));
  }
};

RIM_TEST(TestArrange)
#include "tst_arrange.moc"
