// Trimming, cutting through, offsets and ways to choose, with the mouse and keys of a real window.
#include <QCheckBox>
#include <QContextMenuEvent>
#include <QLabel>
#include <QMenu>

#include "app/steps/refine/refine_room.h"
#include "core/geometry/segment.h"
#include "refine_fixture.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

namespace {

/// A square of 40 mm with a hole, two lines that cross beside it, and two discs of one size.
Drawing things() {
  return makeDrawing({polygonThrough({{0, 0}, {40, 0}, {40, 40}, {0, 40}}), circlePath({20, 20}, 8),
                      Path{{60, 10}, {Segment::line({100, 10})}, false},
                      Path{{80, 0}, {Segment::line({80, 30})}, false}, circlePath({70, 60}, 6),
                      circlePath({95, 60}, 6)});
}

struct CuttingFixture : RefineFixture {
  CuttingFixture() : RefineFixture(things()) {}
  void move(Point mm) { QTest::mouseMove(&window->bench(), onScreen(mm)); }
  std::size_t count() { return now().outlines.size(); }
  std::size_t chosen() { return hand().selecting().chosen().size(); }
  /// How far everything reaches, mm.
  Box reach() {
    Box box;
    for (const Outline& outline : now().outlines) box.include(boxOf(outline.path()));
    return box;
  }
  void dragAlong(const std::vector<Point>& places, Qt::KeyboardModifiers keys = {}) {
    QTest::mousePress(&window->bench(), Qt::LeftButton, keys, onScreen(places.front()));
    for (const Point place : places) move(place);
    QTest::mouseRelease(&window->bench(), Qt::LeftButton, keys, onScreen(places.back()));
  }
};

}  // namespace

class TestCuttingStep : public QObject {
  Q_OBJECT

 private slots:
  void aPieceIsTrimmed() {
    CuttingFixture f;
    f.key(Qt::Key_I);
    f.move({90, 10});
    QVERIFY(f.hand().tool().hint().contains("lit"));
    f.click({90, 10});
    QVERIFY(f.done());
    QCOMPARE(f.count(), 6U);
    QVERIFY(std::abs(pathLength(f.now().path(2)) - 20) < 0.01);
    // What ends at the other line still bounds what is taken of it.
    f.click({80, 25});
    QVERIFY(f.done());
    QVERIFY(std::abs(pathLength(f.now().path(3)) - 10) < 0.01);
    f.window->actions().undo->trigger();
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QVERIFY(f.job().refine.empty());
    // Nothing crosses a disc: it goes as a whole.
    f.click({76, 60});
    QVERIFY(f.done());
    QCOMPARE(f.count(), 5U);
  }

  void twoClicksAtOnceLoseNothing() {
    CuttingFixture f;
    f.key(Qt::Key_I);
    f.click({95, 10});
    f.click({65, 10});  // before the drawing has the first
    QVERIFY(f.done());
    f.move({65, 10});
    f.click({65, 10});
    QVERIFY(f.done());
    QCOMPARE(f.count(), 5U);
  }

  void anAreaIsCutInTwo() {
    CuttingFixture f;
    f.key(Qt::Key_V);
    f.drag({-2, 20}, {50, 20});
    QVERIFY(f.done());
    // The hole is a part of both halves now.
    QCOMPARE(f.count(), 6U);
    double area = 0;
    for (const Outline& outline : f.now().outlines) {
      if (outline.path().closed && boxOf(outline.path()).high.x < 41) area += std::abs(signedArea(outline.path()));
    }
    QVERIFY2(std::abs(area - (1600 - M_PI * 64)) < 1, qPrintable(QString::number(area)));
    QVERIFY(f.hand().tool().hint().contains("cut"));
    f.drag({-2, 50}, {50, 50});
    QVERIFY(f.hand().tool().hint().contains("Nothing"));
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QCOMPARE(f.count(), 6U);
    QVERIFY(f.job().refine.empty());
    // Two clicks do as well, and Esc lets go of the first.
    f.click({-10, 5});
    f.key(Qt::Key_Escape);
    f.click({95, 50});
    f.click({95, 70});
    QVERIFY(f.done());
    QCOMPARE(f.count(), 7U);
  }

  void anOffsetIsDraggedAndTyped() {
    CuttingFixture f;
    f.key(Qt::Key_O);
    f.drag({0, 30}, {-5, 30});
    QVERIFY(QTest::qWaitFor([&f] { return !f.job().refine.empty(); }, kPatienceMs));
    QVERIFY(f.done());
    QCOMPARE(f.count(), 7U);
    QVERIFY(std::abs(f.reach().low.x + 5) < 0.3);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    // Typed, inside: a disc that is smaller.
    f.click({76, 60});
    for (const char letter : std::string("-2.5")) QTest::keyClick(&f.window->bench(), letter);
    f.key(Qt::Key_Return);
    QVERIFY(QTest::qWaitFor([&f] { return !f.job().refine.empty(); }, kPatienceMs));
    QVERIFY(f.done());
    QCOMPARE(f.count(), 7U);
    QVERIFY(std::abs(boxOf(f.now().path(6)).width() - 7) < 0.02);
    // Too far inside nothing is left, and that is said.
    f.click({101, 60});
    for (const char letter : std::string("-7")) QTest::keyClick(&f.window->bench(), letter);
    QVERIFY(QTest::qWaitFor([&f] { return f.hand().tool().hint().contains("Nothing"); }, kPatienceMs));
    f.key(Qt::Key_Return);
    QVERIFY(f.done());
    QCOMPARE(f.count(), 7U);
  }

  void anOffsetInThePlaceOfALine() {
    CuttingFixture f;
    f.key(Qt::Key_O);
    f.panel().findChild<QCheckBox*>("offsetInstead")->click();
    f.click({70, 10});
    for (const char letter : std::string("2")) QTest::keyClick(&f.window->bench(), letter);
    f.key(Qt::Key_Return);
    QVERIFY(QTest::qWaitFor([&f] { return !f.job().refine.empty(); }, kPatienceMs));
    QVERIFY(f.done());
    QCOMPARE(f.count(), 6U);
    QVERIFY(f.now().path(2).closed);
    QVERIFY(std::abs(signedArea(f.now().path(2)) - (160 + M_PI * 4)) < 0.1);
  }

  void chosenByBoxAndLasso() {
    CuttingFixture f;
    f.key(Qt::Key_5);
    f.drag({55, 50}, {110, 70});
    QCOMPARE(f.chosen(), 2U);
    f.drag({90, -8}, {110, 20});  // over a part of a line
    QCOMPARE(f.chosen(), 0U);
    f.dragAlong({{90, -8}, {100, 5}, {110, 20}}, Qt::ControlModifier);
    QCOMPARE(f.chosen(), 1U);
    f.window->room<RefineRoom>().actions().hand.lasso->trigger();
    f.dragAlong({{62, 50}, {80, 52}, {80, 70}, {60, 70}});
    QCOMPARE(f.chosen(), 1U);
    // The discs lie in the box of this line, but not inside it.
    f.dragAlong({{60, 50}, {61, 72}, {110, 72}, {110, 71}, {62, 71}});
    QCOMPARE(f.chosen(), 0U);
  }

  void chosenByLikeness() {
    CuttingFixture f;
    f.key(Qt::Key_5);
    const auto& alike = f.window->room<RefineRoom>().actions().hand.alike;
    QVERIFY(!alike[0]->isEnabled());
    f.click({76, 60});
    alike[0]->trigger();
    QCOMPARE(f.chosen(), 2U);
    f.click({0, 20});
    alike[4]->trigger();
    QCOMPARE(f.chosen(), 1U);
    alike[3]->trigger();
    QCOMPARE(f.chosen(), 2U);
    alike[7]->trigger();
    QCOMPARE(f.chosen(), 4U);
  }

  void theSecondButtonShowsAMenu() {
    CuttingFixture f;
    f.key(Qt::Key_5);
    const QPoint at = f.onScreen({76, 60});
    QContextMenuEvent asked(QContextMenuEvent::Mouse, at, f.window->bench().mapToGlobal(at));
    QApplication::sendEvent(&f.window->bench(), &asked);
    QCOMPARE(f.chosen(), 1U);
    QMenu& menu = f.hand().menu();
    QVERIFY(menu.isVisible());
    QVERIFY(menu.actions().contains(f.window->room<RefineRoom>().actions().deleteChosen));
    menu.close();
    f.window->room<RefineRoom>().actions().deleteChosen->trigger();
    QVERIFY(f.done());
    QCOMPARE(f.count(), 5U);
    // In another step it has no menu.
    f.window->showStep(Step::Trace);
    QContextMenuEvent again(QContextMenuEvent::Mouse, at, f.window->bench().mapToGlobal(at));
    QApplication::sendEvent(&f.window->bench(), &again);
    QVERIFY(!menu.isVisible());
  }
};

RIM_TEST(TestCuttingStep)
#include "tst_cutting_step.moc"
