// Spoiled drawings of known truth come back as they were.

#include <QPointF>
#include <QTest>
#include <algorithm>

#include "core/error.h"
#include "core/geometry/nesting.h"
#include "core/mend/decide.h"
#include "core/mend/find/inspect.h"
#include "core/mend/repair/mend.h"
#include "core/mend/repair/strokes.h"
#include "support/drawings.h"
#include "support/measure.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

using Spoil = Drawing (*)(const Drawing&, std::mt19937&);

std::vector<double> areasOf(const Drawing& drawing) {
  std::vector<double> areas;
  for (const Path& path : pathsOf(drawing)) areas.push_back(std::abs(signedArea(path)));
  std::sort(areas.begin(), areas.end());
  return areas;
}

QString comparedWith(const Drawing& truth, const Drawing& got) {
  const Counts counts = countsOf(pathsOf(got));
  if (counts.open > 0) return QString("%1 open").arg(counts.open);
  if (got.outlines.size() != truth.outlines.size())
    return QString("%1 outlines instead of %2").arg(got.outlines.size()).arg(truth.outlines.size());
  const auto a = areasOf(truth);
  const auto b = areasOf(got);
  for (std::size_t i = 0; i < a.size(); ++i) {
    if (std::abs(a[i] - b[i]) > 0.003 * a[i]) return QString("area %1 instead of %2").arg(b[i]).arg(a[i]);
  }
  const double length = totalLength(pathsOf(truth));
  if (std::abs(totalLength(pathsOf(got)) - length) > 0.005 * length) return "length";
  const Box p = boxOf(pathsOf(truth));
  const Box q = boxOf(pathsOf(got));
  const double off = std::max(distance(p.low, q.low), distance(p.high, q.high));
  return off > 0.05 ? QString("box %1 mm off").arg(off) : QString();
}

QString firstOf(const std::vector<mend::Finding>& findings) {
  return findings.empty()
             ? QString()
             : QString::fromStdString(mend::nameOf(findings[0].kind) + ": " + mend::sentenceOf(findings[0]));
}

}  // namespace
Q_DECLARE_METATYPE(Spoil)

class TestMend : public QObject {
  Q_OBJECT

 private slots:
  void spoiledDrawingsComeBack_data() {
    QTest::addColumn<Spoil>("spoil");
    const auto row = [](const char* name, Spoil spoil) { QTest::newRow(name) << spoil; };
    row("taken apart", [](const Drawing& d, std::mt19937& r) { return takenApart(d, r); });
    row("in many pieces", [](const Drawing& d, std::mt19937& r) { return inPieces(takenApart(d, r), 6, r); });
    row("gaps of 0.45 mm", [](const Drawing& d, std::mt19937& r) { return withGaps(takenApart(d, r), 0.45, r); });
    row("overshoots of 0.4 mm", [](const Drawing& d, std::mt19937& r) { return withOvershoots(d, 0.4, r); });
    row("doubles", [](const Drawing& d, std::mt19937& r) { return withDoubles(takenApart(d, r), r); });
    row("doubles in pieces",
        [](const Drawing& d, std::mt19937& r) { return withDoubles(inPieces(takenApart(d, r), 3, r), r); });
    row("dirt", [](const Drawing& d, std::mt19937& r) { return withDirt(takenApart(d, r), r); });
    row("gaps over doubles", [](const Drawing& d, std::mt19937& r) {
      Drawing both = withGaps(takenApart(d, r), 0.45, r);
      const Drawing again = takenApart(d, r);
      for (const Path& p : pathsOf(again)) {
        if (r() % 3 == 0) add(both, p);
      }
      return both;
    });
  }
  void spoiledDrawingsComeBack() {
    QFETCH(Spoil, spoil);
    for (unsigned seed = 1; seed <= 12; ++seed) {
      std::mt19937 random(seed);
      const Drawing truth = plate(random);
      const Drawing spoiled = spoil(truth, random);
      QVERIFY(!mend::inspect(spoiled, {}).empty());
      const mend::Mended result = mend::mended(spoiled, {});
      QVERIFY2(comparedWith(truth, result.drawing).isEmpty(),
               qPrintable(QString("seed %1: ").arg(seed) + comparedWith(truth, result.drawing)));
      const auto left = mend::inspect(result.drawing, {});
      QVERIFY2(left.empty(), qPrintable(QString("seed %1: ").arg(seed) + firstOf(left)));
    }
  }

  void cleanDrawingsStayAsTheyAre() {
    std::mt19937 random(7);
    const Drawing truth = plate(random);
    QVERIFY2(mend::inspect(truth, {}).empty(), qPrintable(firstOf(mend::inspect(truth, {}))));
    const mend::Mended result = mend::mended(truth, {});
    QVERIFY(result.repairs.empty());
    for (std::size_t i = 0; i < truth.outlines.size(); ++i) {
      const Path& got = result.drawing.path(i);
      QVERIFY(got == truth.path(i) || got == reversed(truth.path(i)));
    }
    QVERIFY(pathsOf(mend::mended(result.drawing, {}).drawing) == pathsOf(result.drawing));
  }

  void outerBordersRunOneWayAndHolesTheOther() {
    std::mt19937 random(3);
    const Drawing got = mend::mended(takenApart(plate(random), random), {}).drawing;
    const Nesting nesting = nestingOf(pathsOf(got));
    for (std::size_t i = 0; i < got.outlines.size(); ++i)
      QCOMPARE(signedArea(got.path(i)) > 0, nesting.depth[i] % 2 == 0);
  }

  void loopsAndSpikesAreCutOff() {
    std::mt19937 random(5);
    Drawing truth;
    setPaths(truth, {polygonThrough({{0, 0}, {20, 0}, {20, 10}, {0, 10}})});
    Drawing spoiled;
    setPaths(spoiled, {polygonThrough({{0, 0},
                                       {20, 0},
                                       {20, 5.2},
                                       {20.4, 5.2},
                                       {20.4, 4.9},
                                       {19.8, 4.9},
                                       {20, 10},
                                       {12, 10},
                                       {12, 10.4},
                                       {12, 10},
                                       {0, 10}})});
    const mend::Mended result = mend::mended(spoiled, {});
    QVERIFY2(comparedWith(truth, result.drawing).isEmpty(), qPrintable(comparedWith(truth, result.drawing)));
    QVERIFY(mend::inspect(result.drawing, {}).empty());
  }

  void aSpikeOverTheStartOfAnOutlineIsCutOff() {
    Drawing truth;
    setPaths(truth, {polygonThrough({{0, 0}, {20, 0}, {20, 10}, {0, 10}})});
    Drawing spoiled;
    setPaths(spoiled, {polygonThrough({{0, -0.3}, {0, 0}, {20, 0}, {20, 10}, {0, 10}})});
    const mend::Mended result = mend::mended(spoiled, {});
    QVERIFY2(comparedWith(truth, result.drawing).isEmpty(), qPrintable(comparedWith(truth, result.drawing)));
    QCOMPARE(result.drawing.path(0).segments.size(), 4U);
  }

  void swappedNodesArePutRight() {
    Drawing truth;
    setPaths(truth, {polygonThrough({{0, 0}, {20, 0}, {22, 12}, {10, 18}, {-3, 11}})});
    Drawing spoiled;
    setPaths(spoiled, {polygonThrough({{0, 0}, {20, 0}, {10, 18}, {22, 12}, {-3, 11}})});
    QCOMPARE(mend::inspect(spoiled, {}).at(0).kind, mend::FindingKind::SelfCrossing);
    mend::MendSettings settings;
    settings.bowTies = mend::BowTieRule::Untangle;
    const mend::Mended result = mend::mended(spoiled, settings);
    QVERIFY2(comparedWith(truth, result.drawing).isEmpty(), qPrintable(comparedWith(truth, result.drawing)));
  }

  void atSeveralCrossingsNothingCrossesAfterwards_data() {
    QTest::addColumn<QList<QPointF>>("corners");
    QTest::newRow("a tab that passes through")
        << QList<QPointF>{{0, 0}, {10, 0}, {10, 10}, {4, 10}, {4, -2}, {6, -2}, {6, 12}, {0, 12}};
    QTest::newRow("a star of five") << QList<QPointF>{{0, 10}, {6, -8}, {-9.5, 3}, {9.5, 3}, {-6, -8}};
    QTest::newRow("round twice") << QList<QPointF>{{0, 0},  {20, 0}, {20, 20}, {-3, 20},
                                                   {-3, 5}, {15, 5}, {15, 15}, {0, 15}};
  }
  void atSeveralCrossingsNothingCrossesAfterwards() {
    QFETCH(QList<QPointF>, corners);
    std::vector<Point> points;
    for (const QPointF& c : corners) points.push_back({c.x(), c.y()});
    Drawing spoiled;
    setPaths(spoiled, {polygonThrough(points)});
    QVERIFY(!mend::inspect(spoiled, {}).empty());
    const mend::Mended result = mend::mended(spoiled, {});
    const auto left = mend::inspect(result.drawing, {});
    QVERIFY2(left.empty(), qPrintable(firstOf(left)));
    QCOMPARE(countsOf(pathsOf(result.drawing)).open, 0U);
  }

  void aPathThatGoesOnOverItsStartIsClosed() {
    Drawing spoiled;
    setPaths(spoiled, {polygonThrough({{0, 0}, {20, 0}, {20, 20}, {0, 20}})});
    Path over = spoiled.path(0);
    over.segments.push_back(Segment::line({20, 0}));
    over.closed = false;
    spoiled.setPath(0, over);
    const mend::Mended result = mend::mended(spoiled, {});
    QCOMPARE(result.drawing.outlines.size(), 1U);
    QVERIFY(result.drawing.path(0).closed);
    for (const mend::RepairCount& r : result.repairs) QVERIFY2(r.count < 5, r.kind.c_str());
  }

  void atABranchTheClosedOutlineStaysClosed() {
    // A square with a tail that goes straight on from one of its sides.
    Drawing spoiled;
    for (const auto& [a, b] : std::vector<std::pair<Point, Point>>{
             {{0, 0}, {10, 0}}, {{10, 0}, {10, 10}}, {{10, 10}, {0, 10}}, {{0, 10}, {0, 0}}, {{10, 0}, {25, 0}}}) {
      add(spoiled, {a, {Segment::line(b)}, false});
    }
    const Drawing got = mend::mended(spoiled, {}).drawing;
    QCOMPARE(got.outlines.size(), 2U);
    QCOMPARE(countsOf(pathsOf(got)).closed, 1U);
  }

  void anEndIsNotTakenFromABetterPartner() {
    // The middle two ends lie 0.1 mm apart; their outer neighbours are 0.3 mm away.
    Drawing spoiled;
    setPaths(spoiled, {{{-10, 0}, {Segment::line({-0.35, 0})}, false},
                       {{-0.05, 0}, {Segment::line({-0.05, 8})}, false},
                       {{0.05, 0}, {Segment::line({0.05, -8})}, false},
                       {{0.35, 0}, {Segment::line({10, 0})}, false}});
    const auto ends = mend::pairEnds(spoiled, {});
    QCOMPARE(ends.pairs.front().a.path + ends.pairs.front().b.path, 3U);
    const auto best =
        std::min_element(ends.pairs.begin(), ends.pairs.end(),
                         [](const mend::EndPair& p, const mend::EndPair& q) { return p.gapMm < q.gapMm; });
    QVERIFY(std::abs(best->gapMm - 0.1) < 1e-9);
    QVERIFY((best->a.path == 1 && best->b.path == 2) || (best->a.path == 2 && best->b.path == 1));
  }

  void strokesBecomeOneLine_data() {
    QTest::addColumn<int>("rule");
    QTest::addColumn<double>("offset");
    QTest::newRow("outer") << static_cast<int>(mend::DoubleRule::Outer) << 0.4;
    QTest::newRow("inner") << static_cast<int>(mend::DoubleRule::Inner) << -0.4;
    QTest::newRow("centre") << static_cast<int>(mend::DoubleRule::Centre) << 0.0;
  }
  void strokesBecomeOneLine() {
    QFETCH(int, rule);
    QFETCH(double, offset);
    // A square frame line and a circle, both drawn with a pen 0.8 mm wide.
    const auto square = [](double o) {
      return polygonThrough({{-o, -o}, {30 + o, -o}, {30 + o, 20 + o}, {-o, 20 + o}});
    };
    Drawing drawn;
    setPaths(drawn, {square(0.4), square(-0.4), circlePath({60, 10}, 8.4), circlePath({60, 10}, 7.6)});
    QCOMPARE(mend::inspect(drawn, {}).size(), 2U);
    mend::MendSettings settings;
    settings.doubles = static_cast<mend::DoubleRule>(rule);
    settings.strokeWidthMm = 1;
    const Drawing got = mend::mended(drawn, settings).drawing;
    QCOMPARE(got.outlines.size(), 2U);
    const double sides[] = {(30 + 2 * offset) * (20 + 2 * offset), M_PI * (8 + offset) * (8 + offset)};
    const auto areas = areasOf(got);
    QVERIFY2(std::abs(areas[0] - sides[1]) < 1e-3 * sides[1], qPrintable(QString::number(areas[0])));
    QVERIFY2(std::abs(areas[1] - sides[0]) < 1e-3 * sides[0], qPrintable(QString::number(areas[1])));
  }

  void aThinRingAmongOtherPartsIsAPart() {
    std::mt19937 random(2);
    Drawing drawing = plate(random);
    add(drawing, circlePath({150, 40}, 8));
    add(drawing, circlePath({150, 40}, 7.2));
    QVERIFY(mend::inspect(drawing, {}).empty());
    drawing.setPath(drawing.outlines.size() - 1, circlePath({150, 40}, 7.75));
    QCOMPARE(mend::inspect(drawing, {}).size(), 1U);
  }

  void whatOnlyOneEdgeShowsIsNamed() {
    Drawing drawn;
    setPaths(
        drawn,
        {polygonThrough({{-0.4, -0.4}, {30.4, -0.4}, {30.4, 10}, {36, 10.2}, {30.4, 10.4}, {30.4, 20.4}, {-0.4, 20.4}}),
         polygonThrough({{0.4, 0.4}, {29.6, 0.4}, {29.6, 19.6}, {0.4, 19.6}})});
    const auto findings = mend::inspect(drawn, {});
    const auto stroke = std::find_if(findings.begin(), findings.end(),
                                     [](const mend::Finding& f) { return f.kind == mend::FindingKind::StrokePair; });
    QVERIFY(stroke != findings.end());
    QVERIFY2(stroke->words.find("whisker") != std::string::npos, stroke->words.c_str());
  }

  void whatHangsOnAStrokeIsKeptAsALine_data() {
    QTest::addColumn<int>("rule");
    QTest::addColumn<double>("side");    // of the box that the pen's middle drew, more or less
    QTest::addColumn<double>("length");  // of the whisker
    QTest::newRow("outer") << int(mend::DoubleRule::Outer) << 0.4 << 9.6;
    QTest::newRow("inner") << int(mend::DoubleRule::Inner) << -0.4 << 10.4;
    QTest::newRow("centre") << int(mend::DoubleRule::Centre) << 0.0 << 10.0;
  }
  void whatHangsOnAStrokeIsKeptAsALine() {
    QFETCH(int, rule);
    QFETCH(double, side);
    QFETCH(double, length);
    // A box of 30 x 20 drawn with a pen of 0.8, and a whisker of 10 that the pen drew from its right side.
    Drawing drawn;
    setPaths(drawn, {polygonThrough({{-0.4, -0.4},
                                     {30.4, -0.4},
                                     {30.4, 9.6},
                                     {40, 9.6},
                                     {40, 10.4},
                                     {30.4, 10.4},
                                     {30.4, 20.4},
                                     {-0.4, 20.4}}),
                     polygonThrough({{0.4, 0.4}, {29.6, 0.4}, {29.6, 19.6}, {0.4, 19.6}})});
    mend::MendSettings settings;
    settings.doubles = static_cast<mend::DoubleRule>(rule);
    settings.strokeWidthMm = 1;
    const mend::Mended got = mend::mended(drawn, settings);
    QCOMPARE(got.drawing.outlines.size(), 2U);
    const Path& box = got.drawing.path(0);
    QVERIFY(box.closed);
    QVERIFY2(std::abs(std::abs(signedArea(box)) - (30 + 2 * side) * (20 + 2 * side)) < 0.2,
             qPrintable(QString::number(signedArea(box))));
    const Path& whisker = got.drawing.path(1);
    QVERIFY(!whisker.closed);
    QVERIFY2(std::abs(pathLength(whisker) - length) < 0.1, qPrintable(QString::number(pathLength(whisker))));
    QVERIFY(std::abs(whisker.start.x - (30 + side)) < 0.05 && std::abs(whisker.start.y - 10) < 0.05);
    QVERIFY(std::abs(got.drawing.outlines[1].stroke.usual - 0.8) < 0.05);
    const auto kept = std::find_if(got.repairs.begin(), got.repairs.end(),
                                   [](const mend::RepairCount& r) { return r.kind == "branch-kept"; });
    QVERIFY(kept != got.repairs.end() && kept->count == 1);
  }

  void bordersOnceLoseNothingBetweenNearBranchings() {
    // Above and below a wall the tiles part 0.3 mm from each other: nearer than the gap that is closed elsewhere.
    const auto tile = [](double x, double y, double w, double h) {
      return polygonThrough({{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}});
    };
    std::vector<Path> tiles{tile(0, 0, 5, 5), tile(5, 0, 5, 5), tile(0, 5, 5.3, 5), tile(5.3, 5, 4.7, 5)};
    mend::MendSettings settings;
    settings.borders = mend::BorderRule::Once;
    std::sort(tiles.begin(), tiles.end(), [](const Path& a, const Path& b) { return a.start.x < b.start.x; });
    for (std::size_t turn = 0; turn < tiles.size(); ++turn) {
      std::rotate(tiles.begin(), tiles.begin() + 1, tiles.end());
      Drawing drawing;
      setPaths(drawing, tiles);
      const Drawing out = mend::mended(drawing, settings).drawing;
      // The edge 40 mm, the wall 10, and two upright borders of 5.
      QVERIFY2(std::abs(totalLength(pathsOf(out)) - 60) < 1e-6, qPrintable(QString::number(totalLength(pathsOf(out)))));
      QVERIFY(mend::inspect(out, {}).empty());
    }
  }

  void aBridgeToAHoleGoes() {
    // Two holes behind each other, bridged to the outline from the middle of its side.
    Drawing drawing;
    setPaths(drawing, {polygonThrough({{20, 0},  {40, 0},  {40, 40}, {0, 40},  {0, 0},   {20, 0},  {20, 10},
                                       {10, 10}, {10, 15}, {20, 15}, {20, 25}, {15, 25}, {15, 30}, {25, 30},
                                       {25, 25}, {20, 25}, {20, 15}, {30, 15}, {30, 10}, {20, 10}})});
    const double area = signedArea(drawing.path(0));
    const Drawing out = mend::mended(drawing, {}).drawing;
    QCOMPARE(out.outlines.size(), 3U);
    double sum = 0;
    for (const Path& path : pathsOf(out)) sum += signedArea(path);
    QVERIFY(std::abs(std::abs(sum) - std::abs(area)) < 1e-6);
    QVERIFY(mend::inspect(out, {}).empty());
    QVERIFY(mend::repairedSafely(drawing, {}).outlines.size() == 3);
  }

  void smallThingsStraysAndFramesGoWhenAsked() {
    std::mt19937 random(2);
    Drawing spoiled = plate(random);
    add(spoiled, circlePath({50, 50}, 0.1));
    add(spoiled, circlePath({600, 300}, 0.5));
    add(spoiled, polygonThrough({{-20, -20}, {140, -20}, {140, 100}, {-20, 100}}));
    mend::MendSettings settings;
    QCOMPARE(mend::mended(spoiled, settings).drawing.outlines.size(), 11U);
    settings.smallerThanMm = 1;
    settings.dropStrays = true;
    settings.dropFrame = true;
    const mend::Mended result = mend::mended(spoiled, settings);
    QCOMPARE(result.drawing.outlines.size(), 8U);
    QVERIFY(mend::inspect(result.drawing, {}).empty());
  }

  void fewestNodesWithinADistance() {
    std::vector<Point> corners;
    for (int k = 0; k < 120; ++k) corners.push_back(Point{std::cos(k * M_PI / 60), std::sin(k * M_PI / 60)} * 10.0);
    Drawing drawn;
    setPaths(drawn, {polygonThrough(corners), polygonThrough({{20, 0}, {25, 0.01}, {30, 0}, {30, 10}, {20, 10}})});
    mend::MendSettings settings;
    settings.simplifyMm = 0.05;
    const Drawing got = mend::mended(drawn, settings).drawing;
    QCOMPARE(got.path(0).segments.size(), 2U);
    QCOMPARE(got.path(1).segments.size(), 4U);
    for (const Point p : corners) QVERIFY(std::abs(length(p) - 10) < 0.05);
  }

  void workCanBeStopped() {
    std::mt19937 random(2);
    std::stop_source stop;
    stop.request_stop();
    const Drawing spoiled = takenApart(plate(random), random);
    QVERIFY_THROWS_EXCEPTION(Cancelled, mend::mended(spoiled, {}, stop.get_token()));
    QVERIFY_THROWS_EXCEPTION(Cancelled, mend::inspect(spoiled, {}, stop.get_token()));
  }
};

RIM_TEST(TestMend)
#include "tst_mend.moc"
