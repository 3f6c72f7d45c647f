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
    const job::Stock stock{100, 60, {-10, -15}};
    const std::vector<std::tuple<job::OriginAt, Point, Point>> all{
        {job::OriginAt::Drawing, {10, 5}, {10, 5}},      {job::OriginAt::LowerLeft, {0, 0}, {20, 20}},
        {job::OriginAt::Centre, {-15, -10}, {-30, -10}}, {job::OriginAt::LowerRight, {-30, 0}, {-80, 20}},
        {job::OriginAt::UpperLeft, {0, -20}, {20, -40}}, {job::OriginAt::UpperRight, {-30, -20}, {-80, -40}}};
    for (const auto& [origin, ofOutlines, ofStock] : all) {
      job::ExportSettings settings;
      settings.origin = origin;
      QCOMPARE(lowOf(io::arranged(box(), settings, stock)), ofOutlines);
      settings.ofStock = true;
      QCOMPARE(lowOf(io::arranged(box(), settings, stock)), ofStock);
      QCOMPARE(lowOf(io::arranged(box(), settings)), ofOutlines);  // without a stock
    }
  }

  void layersSayWhereToCut() {
    Drawing drawing = box();
    add(drawing, polygonThrough({{15, 10}, {20, 10}, {20, 15}}));
    add(drawing, polygonThrough({{16, 11}, {18, 11}, {18, 13}}));
    add(drawing, Path{{60, 0}, {Segment::line({70, 5})}, false});
    job::ExportSettings settings;
    settings.byRole = true;
    const Drawing all = io::arranged(drawing, settings);
    std::vector<std::string> names;
    for (const Outline& outline : all.outlines) names.push_back(all.layers[outline.layer].name);
    QCOMPARE(names, (std::vector<std::string>{"outside", "inside", "outside", "line"}));
    // A layer that nothing is on is not there.
    const Drawing plate = io::arranged(box(), settings);
    QCOMPARE(plate.layers.size(), 1U);
    QCOMPARE(plate.layers[0].name, std::string("outside"));
  }

  void onlyWhatIsNamedIsWritten() {
    Drawing drawing = box();
    add(drawing, polygonThrough({{15, 10}, {20, 10}, {20, 15}}));
    const QTemporaryDir folder;
    const std::string file = folder.filePath("one.dxf").toStdString();
    const job::Job job = job::jobOn(drawing, "two.dxf");
    const auto made = io::deliverJob(job, file, {}, {false, {job::outlinesOf(job)->outlines[1].id}});
    QCOMPARE(made.size(), 1U);
    QCOMPARE(io::readDrawing(file).drawing.outlines.size(), 1U);
    QCOMPARE(lowOf(io::readDrawing(file).drawing), (Point{15, 10}));
  }

  void thePageIsTheStock() {
    job::ExportSettings settings;
    settings.onStock = true;
    const Drawing page = io::arranged(box(), settings, job::Stock{100, 60, {-10, -15}});
    QCOMPARE(page.pageWidth, 100.0);
    QCOMPARE(page.pageHeight, 60.0);
    QCOMPARE(lowOf(page), (Point{20, 20}));
    QCOMPARE(io::arranged(box(), settings).pageWidth, 50.0);
    settings.onStock = false;
    settings.marginMm = 3;
    const Drawing round = io::arranged(box(), settings);
    QCOMPARE(round.pageWidth, 36.0);
    QCOMPARE(lowOf(round), (Point{3, 3}));
  }
};

RIM_TEST(TestArrange)
#include "tst_arrange.moc"
