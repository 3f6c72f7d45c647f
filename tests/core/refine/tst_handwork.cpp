// What is done by hand to outlines as one step of the recipe.
#include <QtTest>

#include "core/refine/edit/ends.h"
#include "core/refine/edit/mostly_under.h"
#include "core/refine/edit/nodes.h"
#include "core/refine/step.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::refine;
using namespace rim::test;

class TestHandwork : public QObject {
  Q_OBJECT

 private slots:
  void handworkIsOneStep() {
    const Drawing drawing = makeDrawing({squarePath(10), scaled(squarePath(10), 1, {20, 0})});
    const OutlineMark first = markOf(drawing.outlines[0]);
    std::vector<refine::Step> steps;
    steps = refine::withHandwork(steps,
                                 {refine::madeByHand(first, {refine::withNodesMoved(squarePath(10), {0}, {-1, 0})})});
    steps = refine::withHandwork(steps,
                                 {refine::madeByHand(first, {refine::withNodesMoved(squarePath(10), {0}, {-2, 0})})});
    QCOMPARE(steps.size(), 1U);
    QCOMPARE(std::get<refine::ByHand>(steps[0]).changes.size(), 1U);
    steps = refine::withHandwork(steps, {refine::madeByHand(markOf(drawing.outlines[1]), {})});
    steps = refine::withHandwork(steps, {refine::madeByHand({}, {scaled(squarePath(10), 1, {40, 0})})});
    const refine::Refined refined = refine::done(drawing, steps);
    QCOMPARE(refined.drawing.outlines.size(), 2U);
    QCOMPARE(refined.drawing.path(0).start, (Point{-2, 0}));
    QCOMPARE(refined.drawing.outlines[0].id, drawing.outlines[0].id);
    QCOMPARE(refined.drawing.path(1).start, (Point{40, 0}));
    // Parted: the first part is still the outline, the others are new.
    const auto halves = refine::withoutSegments(squarePath(10), {1, 3});
    const refine::Refined parted =
        refine::done(drawing, refine::Step{refine::ByHand{{refine::madeByHand(first, halves)}}});
    QCOMPARE(parted.drawing.outlines.size(), 3U);
    QCOMPARE(parted.drawing.outlines[0].id, drawing.outlines[0].id);
    QVERIFY(parted.drawing.outlines[1].id != drawing.outlines[0].id);
    QCOMPARE(parted.changes.size(), 1U);
  }

  void whatBelongsToAnOutlineThatIsGoneStays() {
    const Drawing drawing = makeDrawing({squarePath(10)});
    OutlineMark gone = markOf(makeDrawing({scaled(squarePath(10), 1, {200, 0})}).outlines[0]);
    const refine::Refined refined = refine::done(
        drawing, refine::Step{refine::ByHand{{refine::madeByHand(gone, {scaled(squarePath(10), 1, {200, 0})})}}});
    QCOMPARE(refined.drawing.outlines.size(), 2U);
    QCOMPARE(refined.kept.size(), 1U);
    QVERIFY(refined.kept[0].id == gone.id);
  }

  /// What lies under most of the area that was made by hand is what it was made of, whatever its size is now.
  void whatLiesUnderIsNotThereTwice() {
    const Drawing before = makeDrawing({squarePath(10), scaled(squarePath(10), 1, {40, 0})});
    const Path made = refine::withNodesMoved(squarePath(10), {0}, {-1, -1});
    const std::vector<refine::Step> steps{refine::ByHand{{refine::madeByHand(markOf(before.outlines[0]), {made})}}};
    QVERIFY(refine::done(before, steps).kept.empty());
    // A third more area: neither the same box nor the same size.
    const Drawing after = makeDrawing({scaled(squarePath(13), 1, {-1, -1}), scaled(squarePath(10), 1, {40, 0})});
    const refine::Refined refined = refine::done(after, steps);
    QCOMPARE(refined.drawing.outlines.size(), 2U);
    QVERIFY(refined.drawing.path(0) == made);
    QCOMPARE(refined.kept.size(), 1U);
    QCOMPARE(refine::mostlyUnder(after, made), std::optional<std::size_t>(0));
    QVERIFY(!refine::mostlyUnder(after, scaled(squarePath(10), 1, {33, 0})));
    QVERIFY(!refine::mostlyUnder(after, Path{{0, 0}, {Segment::line({9, 9})}, false}));
  }

  /// What was deleted and comes back larger or in pieces is deleted again where that is plain, else told.
  void whatWasDeletedAndIsThereAgainIsTold() {
    const Path deleted = scaled(squarePath(10), 1, {40, 0});
    const Drawing before = makeDrawing({squarePath(10), deleted});
    const OutlineMark mark = markOf(before.outlines[1]);
    const refine::ByHand joined{{refine::madeByHand(mark, {})}};
    for (const refine::Step& step : {refine::Step{refine::Remove{{mark}}}, refine::Step{joined}}) {
      const auto left = [&step](const Path& now) {
        return refine::done(makeDrawing({squarePath(10), now}), std::vector<refine::Step>{step});
      };
      QCOMPARE(refine::done(before, step).drawing.outlines.size(), 1U);
      const refine::Refined larger = left(scaled(squarePath(13), 1, {39, -1}));
      QCOMPARE(larger.drawing.outlines.size(), 1U);
      QCOMPARE(larger.kept.size(), 1U);
      QVERIFY(larger.lost.empty());
      const refine::Refined grown = left(scaled(squarePath(10), 2, {38, -2}));
      QCOMPARE(grown.drawing.outlines.size(), 2U);
      QCOMPARE(grown.lost.size(), 1U);
      QVERIFY(grown.kept.empty() && grown.lost[0] == mark);
      QCOMPARE(left(scaled(squarePath(3), 1, {42, 2})).lost.size(), 1U);
      // Nothing is there: that it was deleted is of no account any more.
      QVERIFY(left(scaled(squarePath(10), 1, {70, 0})).lost.empty());
      QVERIFY(refine::withoutHandworkOn({step}, {mark.id}).empty());
    }
  }

  void aLayerOrAGroupThatFindsNothingIsTold() {
    const Drawing before = makeDrawing({squarePath(10), scaled(squarePath(10), 1, {40, 0})});
    const Drawing after = makeDrawing({squarePath(10), scaled(squarePath(3), 1, {42, 2})});
    const std::vector<OutlineMark> marks{markOf(before.outlines[1])};
    const std::vector<refine::Step> steps{refine::PutOnLayer{marks, {"fine", 0}}, refine::Group{marks, true}};
    QCOMPARE(refine::done(after, steps).lost.size(), 2U);
    QVERIFY(refine::done(before, steps).lost.empty());
    QVERIFY(refine::withoutHandworkOn(steps, {marks[0].id}).empty());
  }

  void handworkIsLetGo() {
    const Drawing drawing = makeDrawing({squarePath(10), scaled(squarePath(10), 1, {20, 0})});
    const OutlineMark first = markOf(drawing.outlines[0]);
    const OutlineMark second = markOf(drawing.outlines[1]);
    std::vector<refine::Step> steps{
        refine::Replace{"circle", {{first, circlePath({5, 5}, 5)}}},
        refine::ByHand{{refine::madeByHand(second, {}), refine::madeByHand({}, {squarePath(3)})}}};
    QCOMPARE(refine::withoutHandworkOn(steps, {first.id}).size(), 1U);
    const auto left = refine::withoutHandworkOn(steps, {first.id, second.id});
    QCOMPARE(left.size(), 1U);
    QCOMPARE(std::get<refine::ByHand>(left[0]).changes.size(), 1U);
    QVERIFY(refine::withoutHandworkOn(steps, {}) == steps);
  }
};

RIM_TEST(TestHandwork)
#include "tst_handwork.moc"
