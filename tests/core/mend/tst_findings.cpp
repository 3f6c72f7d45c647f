// Every kind of finding by a drawing that has it, and one like it that does not.

#include <QTest>

#include "core/job/faults.h"
#include "core/job/stages.h"
#include "core/mend/find/inspect.h"
#include "core/mend/repair/join.h"
#include "support/artwork.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

using PathList = std::vector<Path>;

PathList square(double side) { return {polygonThrough({{0, 0}, {side, 0}, {side, side}, {0, side}})}; }

PathList with(PathList paths, const PathList& more) {
  paths.insert(paths.end(), more.begin(), more.end());
  return paths;
}

QString listOf(const std::vector<mend::Finding>& findings) {
  QStringList list;
  for (const mend::Finding& f : findings) list << QString::fromStdString(mend::nameOf(f.kind));
  return list.join(" ");
}

}  // namespace
Q_DECLARE_METATYPE(PathList)

class TestFindings : public QObject {
  Q_OBJECT

 private slots:
  void faultsAreFoundAsWhatTheyAre_data() {
    QTest::addColumn<PathList>("paths");
    QTest::addColumn<QString>("found");
    const auto row = [](const char* name, const PathList& paths, const char* found) {
      QTest::newRow(name) << paths << QString(found);
    };
    row("a clean square", square(20), "");
    row("a line alone", {linePath({0, 0}, {9, 0})}, "open-end open-end");
    row("a gap", {linePath({0, 0}, {9, 0}), linePath({9.3, 0}, {20, 0})}, "open-end open-end open-end");
    row("ends that meet", {linePath({0, 0}, {9, 0}), linePath({9, 0}, {9, 9}), linePath({9, 9}, {0, 0})},
        "open-end open-end open-end");
    row("a hole bridged to its outline",
        {polygonThrough({{0, 0},
                         {40, 0},
                         {40, 40},
                         {0, 40},
                         {0, 20},
                         {10, 20},
                         {10, 30},
                         {30, 30},
                         {30, 10},
                         {10, 10},
                         {10, 20},
                         {0, 20}})},
        "double-line");
    row("a copy", with(square(20), square(20)), "double-line");
    row("a copy a little aside", with(square(20), {polygonThrough({{0.03, 0}, {20.03, 0}, {20.03, 20}, {0.03, 20}})}),
        "double-line");
    row("far enough aside to be another line",
        with(square(20), {polygonThrough({{0.2, 0.2}, {19.8, 0.2}, {19.8, 19.8}, {0.2, 19.8}})}), "stroke-pair");
    row("neighbours with a common side", with(square(20), {polygonThrough({{20, 0}, {40, 0}, {40, 20}, {20, 20}})}),
        "double-line");
    row("neighbours that touch in a corner",
        with(square(20), {polygonThrough({{20, 20}, {40, 20}, {40, 40}, {20, 40}})}), "");
    row("circles that touch", {circlePath({0, 0}, 5), circlePath({10, 0}, 5)}, "");
    row("circles that cross", {circlePath({0, 0}, 5), circlePath({9, 0}, 5)}, "crossing crossing");
    row("a circle that touches a side from within", with(square(20), {circlePath({10, 5}, 5)}), "");
    row("a pointed tip", {polygonThrough({{0, 0}, {30, 0.4}, {0, 0.8}})}, "");
    row("an hourglass", {polygonThrough({{0, 0}, {20, 20}, {20, 0}, {0, 20}})}, "self-crossing");
    row("a loop", {polygonThrough({{0, 0}, {10, 0}, {10.2, 0.2}, {10.2, -0.2}, {10, 0.15}, {20, 5}, {0, 5}})}, "loop");
    row("two nodes in one place", {polygonThrough({{0, 0}, {20, 0}, {20, 0.001}, {20, 20}, {0, 20}})},
        "coincident-node");
    row("a dot", with(square(20), {linePath({5, 5}, {5, 5})}), "zero-length");
    row("out and back", {polygonThrough({{0, 0}, {20, 0}, {20, 10}, {26, 10}, {20, 10}, {20, 20}, {0, 20}})}, "spike");
    row("a speck", with(square(20), {circlePath({5, 5}, 0.1)}), "speck");
    row("a scrap", with(square(20), {linePath({5, 5}, {5.2, 5})}), "speck");
    row("a stray", with(square(20), {circlePath({90, 5}, 0.3)}), "stray");
    row("a stray with more line", with(square(60), {circlePath({200, 5}, 1.7)}), "stray");
    row("a small part aside", with(square(60), {circlePath({200, 5}, 3)}), "");
    row("two parts far apart", with(square(20), {polygonThrough({{500, 0}, {520, 0}, {520, 20}, {500, 20}})}), "");
    PathList washers;
    for (int i = 0; i < 12; ++i) washers.push_back(circlePath({100.0 * (i % 4), 100.0 * (i / 4)}, 2));
    row("small parts all over a sheet", washers, "");
    row("a frame round parts with holes",
        {polygonThrough({{-5, -5}, {45, -5}, {45, 25}, {-5, 25}}), circlePath({10, 10}, 8), circlePath({10, 10}, 4),
         circlePath({30, 10}, 8), circlePath({30, 10}, 4)},
        "frame");
    row("a plate with holes",
        {polygonThrough({{-5, -5}, {45, -5}, {45, 25}, {-5, 25}}), circlePath({10, 10}, 8), circlePath({30, 10}, 8)},
        "");
  }
  void faultsAreFoundAsWhatTheyAre() {
    QFETCH(PathList, paths);
    QFETCH(QString, found);
    Drawing drawing;
    setPaths(drawing, paths);
    QCOMPARE(listOf(mend::inspect(drawing, {})), found);
    // Turned, mirrored in order and begun elsewhere it is the same.
    std::reverse(drawing.outlines.begin(), drawing.outlines.end());
    for (Outline& outline : drawing.outlines)
      outline = outline.with(scaled(reversed(outline.path()), 1, {31.7, -12.3}));
    QCOMPARE(listOf(mend::inspect(drawing, {})), found);
  }

  void sentencesSayWhereAndHowLarge() {
    Drawing gap;
    setPaths(gap, {linePath({0, 0}, {9, 0}), linePath({9.3, 0}, {20, 0})});
    const mend::Finding first = mend::inspect(gap, {})[0];
    QCOMPARE(QString::fromStdString(mend::sentenceOf(first)),
             QString("Two ends are 0.30 mm apart; the outline is open."));
    QVERIFY(distance(first.at, {9.15, 0}) < 1e-9);
    QCOMPARE(first.repair, std::string("join"));
    Drawing stray;
    setPaths(stray, with(square(20), {circlePath({90, 5}, 0.3)}));
    QVERIFY(QString::fromStdString(mend::sentenceOf(mend::inspect(stray, {})[0]))
                .contains("90.30 mm by 20.00 mm instead of 20.00 mm by 20.00 mm"));
  }

  /// A square of 20 with a hub in its middle, three lines leading there; and one with a cross.
  void bordersBetweenAreasMayMeetAndCross() {
    Drawing hub;
    setPaths(hub,
             with(square(20), {linePath({0, 3}, {10, 10}), linePath({10, 10}, {20, 3}), linePath({10, 10}, {10, 20})}));
    QCOMPARE(listOf(mend::inspect(hub, {})), QString());
    const Drawing same = mend::joinEnds(hub, {}).drawing;
    QVERIFY2(same.outlines == hub.outlines, "what has no fault stays as it is");
    Drawing cross;
    setPaths(cross, with(square(20), {linePath({0, 9}, {20, 11}), linePath({9, 0}, {11, 20})}));
    QCOMPARE(listOf(mend::inspect(cross, {})), QString());
    // A line that parts nothing crosses all the same, and ends of two lines that meet are open.
    cross.setPath(cross.outlines.size() - 1, linePath({9, 4}, {11, 16}));
    QCOMPARE(listOf(mend::inspect(cross, {})), QString("open-end open-end crossing"));
    hub.outlines.pop_back();
    QCOMPARE(listOf(mend::inspect(hub, {})), QString("open-end"));
    // One of the lines there is drawn a second time for a part of its way: no third area.
    add(hub, linePath({10, 10}, {5, 6.5}));
    QVERIFY(listOf(mend::inspect(hub, {})).contains("open-end"));
  }

  void sharedBordersOfInksHaveNoFaults() {
    const picture::Picture picture = artwork(160, 160, {{255, 255, 255}, {23, 41, 84}, {194, 35, 40}, {245, 186, 33}},
                                             [](double x, double y) -> std::size_t {
                                               if (std::hypot(x - 80.2, y - 79.7) > 60.4) return 0;
                                               if (y > 79.8) return x < 80.3 ? 1 : 2;
                                               return x < 60.2 ? 3 : x < 80.3 ? 2 : 1;
                                             });
    job::Job job = job::jobOn(picture);
    job.colours.on = true;
    job.colours.layout = trace::InkLayout::Shared;
    job = job::workedOut(std::move(job));
    QVERIFY(countsOf(pathsOf(*job.tracing)).open >= 3);
    QCOMPARE(listOf(job::faultsOf(job).ofMended), QString());
  }

  void layersAreSheetsOfTheirOwn() {
    Drawing drawing;
    setPaths(drawing, with(square(20), square(20)));
    drawing.layers = {{"a", 0, 0, 0}, {"b", 255, 0, 0}};
    setLayers(drawing, {0, 1});
    QVERIFY(mend::inspect(drawing, {}).empty());
    setLayers(drawing, {1, 1});
    QCOMPARE(mend::inspect(drawing, {}).size(), 1U);
  }

  void sizesAreWrittenAsPeopleReadThem() {
    QCOMPARE(mend::sizeText(0.314), std::string("0.31 mm"));
    QCOMPARE(mend::sizeText(0.0123), std::string("0.012 mm"));
    QCOMPARE(mend::sizeText(3e-7), std::string("0 mm"));
    QCOMPARE(mend::sizeText(560.4), std::string("560 mm"));
    QCOMPARE(mend::sizeText(0.314, Unit::Inch), std::string("0.0124 in"));
    const mend::Finding finding{mend::FindingKind::Spike, {}, {}, {}, 25.4, "{} and {}; {}", {25.4, 0.3}, {}};
    QCOMPARE(mend::sentenceOf(finding), std::string("25.40 mm and 0.30 mm; {}"));
    QCOMPARE(mend::sentenceOf(finding, Unit::Inch), std::string("1.0000 in and 0.0118 in; {}"));
  }
};

RIM_TEST(TestFindings)
#include "tst_findings.moc"
