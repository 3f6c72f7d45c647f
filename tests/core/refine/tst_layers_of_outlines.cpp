// Layers: called otherwise, hidden, made, and outlines put on them.

#include <QTest>

#include "core/refine/edit/groups.h"
#include "core/refine/edit/layers.h"
#include "core/refine/step.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::refine;
using namespace rim::test;

namespace {

Drawing three() {
  return makeDrawing({circlePath({0, 0}, 3), circlePath({10, 0}, 3), circlePath({20, 0}, 3)},
                     {{"cut", 255, 0, 0}, {"fold", 0, 0, 255}}, {0, 1, 1});
}

}  // namespace

class TestLayersOfOutlines : public QObject {
  Q_OBJECT

 private slots:
  void aLayerIsCalledAndColouredOtherwise() {
    const Drawing other = refine::withLayerAs(three(), "fold", {"score", 0, 128, 0});
    QCOMPARE(other.layers[1], (Layer{"score", 0, 128, 0}));
    QCOMPARE(other.outlines[2].layer, 1U);
    QCOMPARE(refine::withLayerAs(three(), "none", {"x", 0, 0, 0}).layers, three().layers);
    // Called like another one, both are one.
    const Drawing one = refine::withLayerAs(three(), "cut", {"fold", 0, 0, 255});
    QCOMPARE(one.layers.size(), 1U);
    for (const Outline& outline : one.outlines) QCOMPARE(outline.layer, 0U);
    const Drawing other2 = refine::withLayerAs(three(), "fold", {"cut", 255, 0, 0});
    QCOMPARE(other2.layers.size(), 1U);
    for (const Outline& outline : other2.outlines) QCOMPARE(outline.layer, 0U);
  }

  void whatIsHiddenIsLeftOut() {
    const Drawing left = refine::withoutLayers(three(), {"fold"});
    QCOMPARE(left.outlines.size(), 1U);
    QCOMPARE(left.layers.size(), 2U);
    QCOMPARE(refine::withoutLayers(three(), {"none"}).outlines.size(), 3U);
  }

  void outlinesArePutOnLayers() {
    const Drawing drawing = three();
    const Drawing moved = refine::onLayer(drawing, {drawing.outlines[2].id}, {"cut", 255, 0, 0});
    QCOMPARE(moved.outlines[2].layer, 0U);
    const Drawing made = refine::onLayer(drawing, {drawing.outlines[0].id}, {"engrave", 1, 2, 3});
    QCOMPARE(made.layers.size(), 3U);
    QCOMPARE(made.outlines[0].layer, 2U);
    // Without layers, what stays behind is on one, too.
    const Drawing plain = makeDrawing({circlePath({0, 0}, 3), circlePath({10, 0}, 3)});
    const Drawing two = refine::onLayer(plain, {plain.outlines[1].id}, {"engrave", 1, 2, 3});
    QCOMPARE(two.layers.size(), 2U);
    QVERIFY(two.outlines[0].layer == 0 && two.outlines[1].layer == 1);
  }

  void layersComeInAnotherOrder() {
    const Drawing drawing = three();  // one on "cut", two on "fold"
    const Drawing moved = refine::withLayerAt(drawing, "fold", 0);
    QCOMPARE(moved.layers[0].name, std::string("fold"));
    QCOMPARE(moved.layers.size(), drawing.layers.size());
    // Outlines stand in that order, too, and each is on its own layer.
    for (std::size_t i = 0; i < moved.outlines.size(); ++i) {
      const Outline& outline = moved.outlines[i];
      const auto before = placeOf(drawing, outline.id);
      QVERIFY(before.has_value());
      QCOMPARE(moved.layers[outline.layer].name, drawing.layers[drawing.outlines[*before].layer].name);
      QVERIFY(i == 0 || moved.outlines[i - 1].layer <= outline.layer);
    }
    QCOMPARE(refine::withLayerAt(drawing, "cut", 99).layers.back().name, std::string("cut"));
    QCOMPARE(refine::withLayerAt(drawing, "none", 0).layers[0].name, drawing.layers[0].name);
  }

  void groupsAreChosenAsAWhole() {
    const Drawing drawing = three();
    const auto id = [&drawing](std::size_t i) { return drawing.outlines[i].id; };
    const Drawing two = refine::grouped(drawing, {id(0), id(2)});
    QCOMPARE(refine::wholeGroups(two, {id(2)}), (std::set<OutlineId>{id(0), id(2)}));
    QCOMPARE(refine::wholeGroups(two, {id(1)}), (std::set<OutlineId>{id(1)}));
    // One more group is another one; of a single outline there is none.
    QCOMPARE(refine::wholeGroups(refine::grouped(two, {id(1), id(2)}), {id(1)}), (std::set<OutlineId>{id(1), id(2)}));
    QCOMPARE(refine::grouped(drawing, {id(0)}).outlines[0].group, 0U);
    QCOMPARE(refine::wholeGroups(refine::ungrouped(two, {id(0), id(2)}), {id(2)}), (std::set<OutlineId>{id(2)}));
    // As a step, and back; what is made of an outline stays in its group.
    const std::vector<refine::Step> steps{
        refine::Group{{markOf(drawing.outlines[0]), markOf(drawing.outlines[2])}, true},
        refine::ByHand{{refine::madeByHand(markOf(drawing.outlines[2]), {circlePath({9, 9}, 2)})}}};
    const Drawing done = refine::done(drawing, steps).drawing;
    QVERIFY(done.outlines[0].group != 0 && done.outlines[0].group == done.outlines[2].group);
  }

  void asSteps() {
    const Drawing drawing = three();
    const std::vector<refine::Step> steps{refine::PutOnLayer{{markOf(drawing.outlines[0])}, {"engrave", 9, 9, 9}},
                                          refine::EditLayer{"fold", {"score", 0, 0, 1}}, refine::HideLayer{"score"}};
    const Drawing done = refine::done(drawing, steps).drawing;
    QCOMPARE(done.outlines.size(), 1U);
    QCOMPARE(done.layers[done.outlines[0].layer].name, std::string("engrave"));
  }
};

RIM_TEST(TestLayersOfOutlines)
#include "tst_layers_of_outlines.moc"
