// Where a drawing begins in a file, and on what page.
#include <QtTest>

#include "core/io/arrange.h"
#include "core/io/deliver.h"
#include "core/io/read_drawing.h"
#include "core/job/stages.h"
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

  void layersSayWhereToCut() {
    Drawing drawing = box();
    add(drawing, polygonThrough({{15, 10}, {20, 10}, {20, 15}}));
    add(drawing, polygonThrough({{16, 11}, {18, 11}, {18, 13}}));
    add(drawing, Path{{60, 0}, {Segment::line({70, 5})}, false});
    ExportSettings settings;
    settings.byRole = true;
    const Drawing all = arranged(drawing, settings);
    std::vector<std::string> names;
    for (const Outline& outline : all.outlines) names.push_back(all.layers[outline.layer].name);
    QCOMPARE(names, (std::vector<std::string>{"outside", "inside", "outside", "line"}));
    // A layer that nothing is on is not there.
    const Drawing plate = arranged(box(), settings);
    QCOMPARE(plate.layers.size(), 1U);
    QCOMPARE(plate.layers[0].name, std::string("outside"));
  }

  void onlyWhatIsNamedIsWritten() {
    Drawing drawing = box();
    add(drawing, polygonThrough({{15, 10}, {20, 10}, {20, 15}}));
    const QTemporaryDir folder;
    const std::string file = folder.filePath("one.dxf").toStdString();
    const Job job = jobOn(drawing, "two.dxf");
    const auto made = deliverJob(job, file, {}, {false, {outlinesOf(job)->outlines[1].id}});
    QCOMPARE(made.size(), 1U);
    QCOMPARE(readDrawing(file).drawing.outlines.size(), 1U);
    QCOMPARE(lowOf(readDrawing(file).drawing), (Point{15, 10}));
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
