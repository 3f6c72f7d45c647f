// Rules, guides and a grid in the Refine step, and reference copies: pulled, moved, typed, snapped to, compared.
#include <QInputDialog>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QTreeWidget>

#include "app/bench/rulers.h"
#include "app/steps/refine/hand/snapping.h"
#include "app/steps/refine/refine_room.h"
#include "app/steps/trace/reference_dialog.h"
#include "core/refine/edit/chosen.h"
#include "refine_fixture.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

namespace {

struct AidsFixture : RefineFixture {
  Bench& bench() { return window->bench(); }
  void pull(QPoint from, QPoint to) {
    QTest::mousePress(&bench(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&bench(), (from + to) / 2);
    QTest::mouseMove(&bench(), to);
    QTest::mouseRelease(&bench(), Qt::LeftButton, {}, to);
  }
  QPoint notchOf(const Guide& guide) {
    const QPoint at = onScreen(guide.upright ? Point{guide.at, 0} : Point{0, guide.at});
    return guide.upright ? QPoint(at.x(), 8) : QPoint(8, at.y());
  }
  /// Answers the next question for a number.
  void answer(double value) {
    QTimer::singleShot(0, window.get(), [value] {
      auto* dialog = qobject_cast<QInputDialog*>(QApplication::activeModalWidget());
      if (dialog == nullptr) return;
      dialog->setDoubleValue(value);
      dialog->accept();
    });
  }
  ReferenceDialog& references() {
    window->actions().references->trigger();
    auto* dialog = window->findChild<ReferenceDialog*>();
    if (!QTest::qWaitFor([dialog] { return !dialog->looking(); }, kPatienceMs)) qFatal("no end of looking");
    return *dialog;
  }
};

}  // namespace

class TestAidsStep : public QObject {
  Q_OBJECT

 private slots:
  void ticksAreRound() {
    QCOMPARE(tickStep(10, 56), 10.0);
    QCOMPARE(tickStep(30, 56), 2.0);
    QCOMPARE(tickStep(1, 56), 100.0);
    QCOMPARE(tickStep(4000, 56), 0.02);
  }

  void guidesArePulledMovedAndTakenBack() {
    AidsFixture f;
    QVERIFY(f.window->room<RefineRoom>().actions().rulers->isChecked());
    // Out of the upper rule a level one, out of the left one an upright one.
    f.pull({300, 8}, {320, f.onScreen({0, 20}).y()});
    QCOMPARE(f.job().guides.size(), 1U);
    QVERIFY(!f.job().guides[0].upright);
    QVERIFY2(std::abs(f.job().guides[0].at - 20) < 0.3, "to a round length");
    f.pull({8, 300}, {f.onScreen({50, 0}).x(), 310});
    QCOMPARE(f.job().guides.size(), 2U);
    QVERIFY(f.job().guides[1].upright);
    // Moved by its notch, typed by a double click on it.
    f.pull(f.notchOf(f.job().guides[1]), QPoint(f.onScreen({70, 0}).x(), 300));
    QVERIFY(std::abs(f.job().guides[1].at - 70) < 0.3);
    f.answer(64.125);
    QTest::mouseDClick(&f.bench(), Qt::LeftButton, {}, f.notchOf(f.job().guides[1]));
    QCOMPARE(f.job().guides[1].at, 64.125);
    f.window->actions().undo->trigger();
    QVERIFY(std::abs(f.job().guides[1].at - 70) < 0.3);
    // Esc leaves it where it was; the other button does not let it go.
    QTest::mousePress(&f.bench(), Qt::LeftButton, {}, f.notchOf(f.job().guides[1]));
    QTest::mouseMove(&f.bench(), {400, 300});
    QTest::mouseRelease(&f.bench(), Qt::RightButton, {}, {400, 300});
    QTest::keyClick(&f.bench(), Qt::Key_Escape);
    QTest::mouseRelease(&f.bench(), Qt::LeftButton, {}, {400, 300});
    QVERIFY(std::abs(f.job().guides[1].at - 70) < 0.3);
    // Brought back into its rule it is gone.
    f.pull(f.notchOf(f.job().guides[0]), QPoint(300, 5));
    QCOMPARE(f.job().guides.size(), 1U);
    QVERIFY(f.job().guides[0].upright);
    f.window->room<RefineRoom>().actions().clearGuides->trigger();
    QVERIFY(f.job().guides.empty());
    f.window->actions().undo->trigger();
    QCOMPARE(f.job().guides.size(), 1U);
    QVERIFY(f.job().refine.empty());
    // A click on the rule pulls nothing.
    QTest::mouseClick(&f.bench(), Qt::LeftButton, {}, {300, 8});
    QCOMPARE(f.job().guides.size(), 1U);
  }

  void rulesShowWhereTheyAreWanted() {
    AidsFixture f;
    QVERIFY(f.window->room<RefineRoom>().rulers().shown());
    f.window->showStep(Step::Trace);
    QVERIFY(!f.window->room<RefineRoom>().rulers().shown());
    f.window->showStep(Step::Refine);
    QVERIFY(f.window->room<RefineRoom>().rulers().shown());
    QTest::keyClick(f.window.get(), Qt::Key_R, Qt::ControlModifier);
    QVERIFY(!f.window->room<RefineRoom>().rulers().shown());
    QVERIFY(!f.window->preferences().rulers);
    // Without them a press there belongs to the tool.
    QTest::mousePress(&f.bench(), Qt::LeftButton, {}, {300, 8});
    QTest::mouseRelease(&f.bench(), Qt::LeftButton, {}, {300, 200});
    QVERIFY(f.job().guides.empty());
  }

  void placesComeToGuidesAndGrid() {
    AidsFixture f;
    f.session().edit("Guides", {}, [](job::Job& job) { job.guides = {{true, 90}, {false, 50}}; });
    f.hand().take(Hand::Draw);
    f.drag({90.4, 50.3}, {100, 58});
    QVERIFY(f.done());
    const Box drawn = f.now().outlines.back().box();
    // A circle round the guides' crossing.
    QVERIFY(distance(lerp(drawn.low, drawn.high, 0.5), {90, 50}) < 1e-6);
    f.answer(10);
    f.window->room<RefineRoom>().actions().grid->trigger();
    QCOMPARE(f.window->preferences().gridMm, 10.0);
    f.drag({100.3, 69.8}, {104, 72});
    QVERIFY(f.done());
    const Box second = f.now().outlines.back().box();
    QVERIFY(distance(lerp(second.low, second.high, 0.5), {100, 70}) < 1e-6);
    f.hand().snapping().want(refine::SnapTo::Grid, false);
    f.drag({100.3, 59.7}, {102, 61});
    QVERIFY(f.done());
    const Box third = f.now().outlines.back().box();
    QVERIFY(distance(lerp(third.low, third.high, 0.5), {100, 60}) > 0.1);
  }

  void copiesAreKeptNamedHiddenAndCompared() {
    AidsFixture f;
    QVERIFY(f.offered());
    ReferenceDialog& dialog = f.references();
    auto* copies = dialog.findChild<QTreeWidget*>("copies");
    QVERIFY(dialog.findChild<QLabel*>("differenceText")->text().contains("No copy"));
    QVERIFY(!dialog.findChild<QPushButton*>("dropCopy")->isEnabled());
    dialog.findChild<QPushButton*>("keepCopy")->click();
    QCOMPARE(f.job().references.size(), 1U);
    QCOMPARE(copies->topLevelItemCount(), 2);
    // The nodes stand side by side.
    QCOMPARE(copies->topLevelItem(0)->text(2), copies->topLevelItem(1)->text(2));
    QVERIFY(QTest::qWaitFor([&dialog] { return !dialog.looking(); }, kPatienceMs));
    QVERIFY(dialog.findChild<QLabel*>("differenceText")->text().contains("Nowhere"));
    // One corner moves by 1.5 mm.
    f.session().edit("Move", {}, [](job::Job& job) {
      const Outline& part = job::outlinesOf(job)->outlines[2];
      Path path = part.path();
      path.segments[1].end = path.segments[1].end + Point{1.5, 0};
      job.refine = refine::withHandwork({}, {refine::madeByHand(markOf(part), {path})});
    });
    QVERIFY(f.done());
    QVERIFY(QTest::qWaitFor([&dialog] { return !dialog.looking(); }, kPatienceMs));
    auto* places = dialog.findChild<QListWidget*>("differences");
    QCOMPARE(places->count(), 1);
    QVERIFY2(places->item(0)->text().startsWith("1.5"), qPrintable(places->item(0)->text()));
    const double before = f.bench().viewport().scale;
    places->setCurrentRow(0);
    QVERIFY(f.bench().viewport().scale > before);
    // Renamed, hidden, a second one, and one that goes.
    copies->topLevelItem(1)->setText(0, "before");
    QVERIFY(f.done());
    QCOMPARE(f.job().references[0].name, std::string("before"));
    copies->topLevelItem(1)->setCheckState(0, Qt::Unchecked);
    QVERIFY(f.done());
    QVERIFY(!f.job().references[0].shown);
    dialog.findChild<QPushButton*>("keepCopy")->click();
    QCOMPARE(f.job().references.size(), 2U);
    copies->setCurrentItem(copies->topLevelItem(1));
    dialog.findChild<QPushButton*>("dropCopy")->click();
    QCOMPARE(f.job().references.size(), 1U);
    QVERIFY(f.job().references[0].name != "before");
    f.window->actions().undo->trigger();
    QCOMPARE(f.job().references.size(), 2U);
    // They are no outlines.
    QCOMPARE(f.now().outlines.size(), 3U);
    dialog.close();
    f.session().edit("Turn", {}, [](job::Job& job) { job.refine.clear(); });
    QVERIFY(f.done());
  }

  void partsOfThePanelFoldAndAreRemembered() {
    RefineFixture f;
    {
      auto* fold = f.find<Fold>("stockPart");
      auto* has = f.find<QWidget>("hasStock");
      QVERIFY(fold->isOpen() && has->isVisible());
      auto* heading = f.find<QWidget>("stockPartHeading");
      heading->setFocus();
      QTest::keyClick(heading, Qt::Key_Space);
      QVERIFY(!fold->isOpen() && !has->isVisible());
      // What is in it is said beside its heading.
      f.session().edit("Stock", {}, [](job::Job& job) { job.stock = job::Stock{120, 60, {}}; });
      const QList<QLabel*> labels = fold->findChildren<QLabel*>();
      QVERIFY(std::any_of(labels.begin(), labels.end(),
                          [](const QLabel* l) { return l->isVisible() && l->text().startsWith("120 "); }));
    }
    QVERIFY(!Fold("stockPart", "Stock", true).isOpen());
    QVERIFY(Fold("neverSeen", "Other", true).isOpen());
  }

  void noMoreAreKeptThanAJobHolds() {
    AidsFixture f;
    for (std::size_t i = 0; i < job::kMostReferences + 1; ++i) f.session().keepReference();
    QCOMPARE(f.job().references.size(), job::kMostReferences);
    QVERIFY(f.window->sentence().contains("at most"));
  }
};

RIM_TEST(TestAidsStep)
#include "tst_aids_step.moc"
