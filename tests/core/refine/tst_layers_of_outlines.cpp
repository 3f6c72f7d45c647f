// Layers: called otherwise, hidden, made, and outlines put on them.

#include <QTest>

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
    const Drawing other = withLayerAs(three(), "fold", {"score", 0, 128, 0});
    QCOMPARE(other.layers[1], (Layer{"score", 0, 128, 0}));
    QCOMPARE(other.outlines[2].layer, 1U);
    QCOMPARE(withLayerAs(three(), "none", {"x", 0, 0, 0}).layers, three().layers);
    // Called like another one, both are one.
    const Drawing one = withLayerAs(three(), "cut", {"fold", 0, 0, 255});
    QCOMPARE(one.layers.size(), 1U);
    for (const Outline& outline : one.outlines) QCOMPARE(outline.layer, 0U);
    const Drawing other2 = withLayerAs(three(), "fold", {"cut", 255, 0, 0});
    QCOMPARE(other2.layers.size(), 1U);
    for (const Outline& outline : other2.outlines) QCOMPARE(outline.layer, 0U);
  }

  void whatIsHiddenIsLeftOut() {
    const Drawing left = withLayerHidden(three(), "fold");
    QCOMPARE(left.outlines.size(), 1U);
    QCOMPARE(left.layers.size(), 2U);
    QCOMPARE(withLayerHidden(three(), "none").outlines.size(), 3U);
  }

  void outlinesArePutOnLayers() {
    const Drawing drawing = three();
    const Drawing moved = onLayer(drawing, {drawing.outlines[2].id}, {"cut", 255, 0, 0});
    QCOMPARE(moved.outlines[2].layer, 0U);
    const Drawing made = onLayer(drawing, {drawing.outlines[0].id}, {"engrave", 1, 2, 3});
    QCOMPARE(made.layers.size(), 3U);
    QCOMPARE(made.outlines[0].layer, 2U);
    // Without layers, what stays behind is on one, too.
    const Drawing plain = makeDrawing({circlePath({0, 0}, 3), circlePath({10, 0}, 3)});
    const Drawing two = onLayer(plain, {plain.outlines[1].id}, {"engrave", 1, 2, 3});
    QCOMPARE(two.layers.size(), 2U);
    QVERIFY(two.outlines[0].layer == 0 && two.outlines[1].layer == 1);
  }

  void asSteps() {
    const Drawing drawing = three();
    const std::vector<Step> steps{PutOnLayer{{markOf(drawing.outlines[0])}, {"engrave", 9, 9, 9}},
                                  EditLayer{"fold", {"score", 0, 0, 1}}, HideLayer{"score"}};
    const Drawing done = refine::done(drawing, steps).drawing;
    QCOMPARE(done.outlines.size(), 1U);
    QCOMPARE(done.layers[done.outlines[0].layer].name, std::string("engrave"));
  }
};

RIM_TEST(TestLayersOfOutlines)
#include "tst_layers_of_outlines.moc"
