#include <QtTest>
#include <set>

#include "core/drawing/drawing.h"
#include "core/mend/decide.h"
#include "core/mend/find/inspect.h"
#include "core/mend/repair/mend.h"
#include "core/trace/trace.h"
#include "support/drawings.h"
#include "support/pictures.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

std::set<OutlineId> idsOf(const Drawing& drawing) {
  std::set<OutlineId> ids;
  for (const Outline& outline : drawing.outlines) ids.insert(outline.id);
  return ids;
}

Path square(Point at, double side) {
  return polygonThrough({at, at + Point{side, 0}, at + Point{side, side}, at + Point{0, side}});
}

Drawing broken(unsigned seed) {
  std::mt19937 random(seed);
  return withDirt(withDoubles(withGaps(takenApart(plate(random), random), 0.3, random), random), random);
}

}  // namespace

class TestDrawing : public QObject {
  Q_OBJECT

 private slots:
  void everyOutlineHasAnIdOfItsOwn() {
    // The very same line three times, once on another layer.
    const Drawing drawing = makeDrawing({square({0, 0}, 5), square({0, 0}, 5), square({0, 0}, 5)},
                                        {{"a", 0, 0, 0}, {"b", 0, 0, 0}}, {0, 0, 1});
    QCOMPARE(idsOf(drawing).size(), 3U);
    QVERIFY(idsOf(drawing).count(OutlineId::None) == 0);
    Drawing more = drawing;
    for (int i = 0; i < 3; ++i) add(more, square({0, 0}, 5));
    QCOMPARE(idsOf(more).size(), 6U);
  }

  void theSameLineIsTheSameOutlineWheneverItIsTraced() {
    const picture::Picture picture = pictureOf(drawn(80, 40, disc(20, 20, 12)));
    const Drawing once = makeDrawing(trace::trace(picture, {}).outlines);
    QVERIFY(idsOf(once) == idsOf(makeDrawing(trace::trace(picture, {}).outlines)));
    trace::TraceSettings other;
    other.threshold = 60;
    const Drawing thinner = makeDrawing(trace::trace(picture, other).outlines);
    QVERIFY2(once.outlines.size() == 1 && idsOf(once) != idsOf(thinner), "another line is another outline");
  }

  void whatComesOfAnOutlineIsMintedOfIt() {
    Drawing drawing = makeDrawing({square({0, 0}, 5)});
    const OutlineId first = drawing.outlines[0].id;
    std::set<OutlineId> all{first};
    for (int i = 1; i <= 50; ++i) {
      Drawing parted = emptyLike(drawing);
      addParts(parted, drawing.outlines[0], {square({0, 0}, 5.0 + i), square({9, 9}, i)});
      QVERIFY(parted.outlines[0].id == first);
      QVERIFY2(all.insert(parted.outlines[1].id).second, "never used twice");
      drawing = parted;
    }
  }

  void anEditCostsOnePath() {
    std::vector<Path> paths;
    for (int i = 0; i < 500; ++i) paths.push_back(square({10.0 * i, 0}, 5));
    const Drawing before = makeDrawing(paths);
    Drawing after = before;
    after.setPath(250, square({2500, 0}, 6));
    const auto changed = changedOutlines(before, after);
    QVERIFY(changed.size() == 1 && changed[0].id == before.outlines[250].id);
    for (std::size_t i = 0; i < 500; ++i) QCOMPARE(after.outlines[i].sharesPath(before.outlines[i]), i != 250);
    after.setPath(250, square({2500, 0}, 6));
    QVERIFY2(changedOutlines(after, after).empty(), "the same path again is no change");
  }

  void aRepairLeavesAllOthersAsTheyAre() {
    for (unsigned seed = 1; seed <= 5; ++seed) {
      const Drawing drawing = broken(seed);
      for (const mend::Finding& f : mend::inspect(drawing, {})) {
        for (const std::string& repair : mend::repairsFor(f)) {
          const Drawing after = mend::repaired(drawing, f, repair, {});
          QCOMPARE(idsOf(after).size(), after.outlines.size());
          for (const Outline& outline : changedOutlines(drawing, after)) {
            const bool concerned = outline.id == f.outline || outline.id == f.other;
            const bool isNew = !placeOf(drawing, outline.id);
            QVERIFY2(concerned || isNew || repair == "nearest", (mend::nameOf(f.kind) + " by " + repair).c_str());
          }
        }
      }
    }
  }

  void mendingKeepsIdsApart() {
    for (unsigned seed = 1; seed <= 5; ++seed) {
      const Drawing drawing = broken(seed);
      for (const Drawing& after : {mend::mended(drawing, {}).drawing, mend::repairedSafely(drawing, {})}) {
        QCOMPARE(idsOf(after).size(), after.outlines.size());
        QVERIFY(idsOf(after).count(OutlineId::None) == 0);
      }
    }
  }

  void anotherFrameIsTheSameDrawing() {
    Drawing px = makeDrawing({square({10, 10}, 5)});
    px.frame = Frame::Pixels;
    px.pageWidth = px.pageHeight = 100;
    px.outlines[0].stroke = {4, 3, 5};
    const Drawing mm = inFrame(px, Frame::Millimetres, 0.5);
    QVERIFY(mm.frame == Frame::Millimetres && mm.pageWidth == 50);
    QVERIFY(mm.outlines[0].id == px.outlines[0].id);
    QVERIFY((mm.outlines[0].stroke == StrokeWidth{2, 1.5, 2.5}));
    QCOMPARE(signedArea(mm.path(0)), 6.25);
    QVERIFY(inFrame(px, Frame::Millimetres, 1).outlines[0].sharesPath(px.outlines[0]));
  }
};

RIM_TEST(TestDrawing)
#include "tst_drawing.moc"
