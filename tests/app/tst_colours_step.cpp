// The Colours step in the real window.

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <QToolButton>

#include "app/steps/colours/colours_room.h"
#include "app/steps/colours/ink_board.h"
#include "app/steps/trace/trace_room.h"
#include "core/io/job/job_file.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

/// The middle of a row of the board; the ring lies near its left end.
QPoint rowOf(const InkBoard& board, int row, int rows) {
  return {board.width() / 2, board.height() * (2 * row + 1) / (2 * rows)};
}
QPoint ringOf(const InkBoard& board, int row, int rows) { return {16, rowOf(board, row, rows).y()}; }

int keptInks(const job::Job& job) {
  int kept = 0;
  for (const colour::Ink& ink : job.inks->inks) kept += ink.role == colour::InkRole::Keep ? 1 : 0;
  return kept;
}

std::size_t inksThere(const job::Job& job) {
  std::size_t there = 0;
  for (const colour::InkShare& share : *job.inkShares) there += share.pixels > 0 ? 1 : 0;
  return there;
}

}  // namespace

class TestColoursStep : public QObject {
  Q_OBJECT

 private slots:
  void aColouredPictureOpensWithItsInks() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    QVERIFY(f.job().colours.on);
    QCOMPARE(int(inksThere(f.job())), 6);
    QCOMPARE(keptInks(f.job()), 5);
    QCOMPARE(int(f.job().tracing->layers.size()), 5);
    QVERIFY(f.window->room<ColoursRoom>().actions().severalInks->isChecked());
    // What is about two tones says why it cannot be used.
    QVERIFY(!f.window->room<TraceRoom>().actions().automatic->isEnabled());
    QVERIFY(f.window->room<TraceRoom>().actions().automatic->toolTip().contains("two tones"));
    QVERIFY(!f.window->room<TraceRoom>().actions().deviation->isEnabled());
  }

  void blackOnWhiteOpensInTwoTones() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("weather-vane.png")));
    QVERIFY(!f.job().colours.on);
    QVERIFY(!f.window->room<ColoursRoom>().actions().sweep->isEnabled());
  }

  void darkShapesArePartsOrOpenings() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("weather-vane.png")));
    f.window->showStep(Step::Colours);
    const trace::PartsAndHoles dark = trace::partsAndHoles(pathsOf(*f.job().tracing));
    QVERIFY(dark.parts > 1);
    QVERIFY(f.find<QLabel>("twoTones")->text().contains(QStringLiteral("%1 parts with").arg(dark.parts)));
    f.find<QPushButton>("openings")->click();
    QVERIFY(f.settle());
    // Every dark part is an opening now, in the sheet that is the paper.
    QCOMPARE(trace::partsAndHoles(pathsOf(*f.job().tracing)).holes, dark.parts);
    QVERIFY(f.find<QLabel>("twoTones")->text().contains(QStringLiteral("%1 openings").arg(dark.parts)));
  }

  void thereAndBackLosesNothing() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Colours);
    auto* board = f.find<InkBoard>("inkBoard");
    QTest::mouseClick(board, Qt::LeftButton, {}, ringOf(*board, 3, 6));
    QVERIFY(f.settle());
    const auto outlines = f.job().tracing->outlines;
    f.window->room<ColoursRoom>().actions().severalInks->trigger();
    QVERIFY(f.settle());
    QVERIFY(!f.job().colours.on);
    QVERIFY(f.job().tracing->layers.empty());
    f.window->room<ColoursRoom>().actions().severalInks->trigger();
    QVERIFY(f.settle());
    QCOMPARE(int(f.job().colours.steps.size()), 1);
    QVERIFY(f.job().tracing->outlines == outlines);
  }

  void theRingChangesWhatBecomesOfAnInk() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Colours);
    auto* board = f.find<InkBoard>("inkBoard");
    QTest::mouseClick(board, Qt::LeftButton, {}, ringOf(*board, 1, 6));
    QVERIFY(f.settle());
    QCOMPARE(keptInks(f.job()), 4);
    QVERIFY(f.job().inks->inks[1].role == colour::InkRole::Background);
    QCOMPARE(int(f.job().tracing->layers.size()), 4);
    // By keys: Down to the third, Space.
    board->setFocus();
    QTest::keyClick(board, Qt::Key_Down);
    QTest::keyClick(board, Qt::Key_Space);
    QVERIFY(f.settle());
    QCOMPARE(keptInks(f.job()), 3);
    f.window->actions().undo->trigger();
    f.window->actions().undo->trigger();
    QCOMPARE(keptInks(f.job()), 5);
  }

  void draggingOneInkOntoAnotherMergesThem() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Colours);
    auto* board = f.find<InkBoard>("inkBoard");
    const QPoint from = rowOf(*board, 5, 6);
    const QPoint to = rowOf(*board, 0, 6);
    QTest::mousePress(board, Qt::LeftButton, {}, from);
    QMouseEvent drag(QEvent::MouseMove, to, board->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(board, &drag);
    QTest::mouseRelease(board, Qt::LeftButton, {}, to);
    QVERIFY(f.settle());
    QCOMPARE(int(inksThere(f.job())), 5);
    // The single decision can be switched off later.
    auto* decision = f.find<QWidget>("decisionList")->findChild<QCheckBox*>();
    QVERIFY(decision);
    decision->click();
    QVERIFY(f.settle());
    QCOMPARE(int(inksThere(f.job())), 6);
    f.find<QWidget>("decisionList")->findChild<QToolButton*>()->click();
    QVERIFY(f.settle());
    QVERIFY(f.job().colours.steps.empty());
  }

  void keysMergeToo() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Colours);
    auto* board = f.find<InkBoard>("inkBoard");
    board->setFocus();
    QTest::keyClick(board, Qt::Key_M);
    QTest::keyClick(board, Qt::Key_Down);
    QTest::keyClick(board, Qt::Key_M);
    QVERIFY(f.settle());
    QCOMPARE(int(inksThere(f.job())), 5);
    QVERIFY(std::get<colour::MergeInks>(f.job().colours.steps[0].what) == (colour::MergeInks{0, 1}));
  }

  void theSuggestionIsTaken() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Colours);
    f.find<QPushButton>("mergeSuggested")->click();
    QVERIFY(f.settle());
    QCOMPARE(int(inksThere(f.job())), 5);
    QVERIFY(!f.window->room<ColoursRoom>().actions().mergeLikest->isEnabled());
  }

  void aSweepJoinsWhatItCrosses() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->room<ColoursRoom>().actions().sweep->trigger();
    Bench& bench = f.window->bench();
    const auto at = [&bench](double x, double y) { return bench.viewport().toScreen({x, 320 - y}).toPoint(); };
    // Within the kite, from a red sail across the navy spar into a yellow one.
    QTest::mousePress(&bench, Qt::LeftButton, {}, at(150, 130));
    for (const QPoint p : {at(158, 133), at(168, 136), at(176, 136)}) {
      QMouseEvent move(QEvent::MouseMove, p, bench.mapToGlobal(p), Qt::NoButton, Qt::LeftButton, {});
      QApplication::sendEvent(&bench, &move);
    }
    QTest::mouseRelease(&bench, Qt::LeftButton, {}, at(176, 136));
    QVERIFY(f.settle());
    QCOMPARE(int(f.job().colours.steps.size()), 1);
    QVERIFY(std::holds_alternative<colour::SweepInks>(f.job().colours.steps[0].what));
    QVERIFY(inksThere(f.job()) < 6);
    QTest::keyClick(f.window.get(), Qt::Key_Escape);
    QVERIFY(!f.window->room<ColoursRoom>().actions().sweep->isChecked());
  }

  void aSweepByKeys() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->room<ColoursRoom>().actions().sweep->trigger();
    Bench& bench = f.window->bench();
    bench.setFocus();
    QTest::keyClick(&bench, Qt::Key_Space);
    for (int i = 0; i < 4; ++i) QTest::keyClick(&bench, Qt::Key_Right, Qt::ControlModifier);
    QTest::keyClick(&bench, Qt::Key_Space);
    QVERIFY(f.settle());
    QCOMPARE(int(f.job().colours.steps.size()), 1);
  }

  void layoutsAndCounts() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Colours);
    auto* layout = f.find<QComboBox>("layout");
    const double cutOut = totalLength(pathsOf(*f.job().tracing));
    layout->setCurrentIndex(0);
    emit layout->activated(0);
    QVERIFY(f.settle());
    QCOMPARE(int(f.job().tracing->outlines.size()), 1);
    QVERIFY(f.find<QLabel>("made")->text().startsWith("1 part with 0 holes"));
    QVERIFY(f.find<QLabel>("made")->text().contains("1 opening in one sheet"));
    const double silhouette = totalLength(pathsOf(*f.job().tracing));
    emit layout->activated(2);
    QVERIFY(f.settle());
    // Cut out, every inner border is drawn twice.
    QVERIFY(std::abs(totalLength(pathsOf(*f.job().tracing)) - (cutOut + silhouette) / 2) < 1e-6 * cutOut);
    QVERIFY(f.find<QLabel>("made")->text().contains("each drawn once"));
  }

  void theNumberOfInksIsAdjustable() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Colours);
    f.find<QSpinBox>("inkCount")->setValue(3);
    QVERIFY(f.settle());
    QCOMPARE(int(inksThere(f.job())), 3);
    f.find<QPushButton>("automaticInks")->click();
    QVERIFY(f.settle());
    QCOMPARE(int(inksThere(f.job())), 6);
  }

  void jobsKeepTheirColours() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.window->showStep(Step::Colours);
    const std::vector<colour::InkStep> steps{colour::stepFor(colour::MergeInks{5, 0}),
                                             colour::stepFor(colour::SweepInks{{{3, 4}, {5, 6}}, 2, true}),
                                             colour::stepFor(colour::SplitInk{1}),
                                             colour::stepFor(colour::SetInkRole{2, colour::InkRole::Dissolve}),
                                             colour::stepFor(colour::RecolourInk{3, {1, 2, 3}}),
                                             colour::stepFor(colour::RenameInk{3, "sail"})};
    f.session().edit("all kinds", {}, [&steps](job::Job& job) {
      job.colours.steps = steps;
      job.colours.steps[1].on = false;
      job.colours.count = 6;
      job.colours.layout = trace::InkLayout::Shared;
    });
    QVERIFY(f.settle());
    const QString file = f.folder.filePath("badge.snugrim");
    f.session().saveTo(file);
    QVERIFY(f.settle());
    QVERIFY(!f.session().modified());
    const job::Job loaded = io::loadJob(std::filesystem::path(file.toStdString()));
    QVERIFY(loaded.colours == f.job().colours);
  }

  void theChoiceHowPicturesOpenIsRemembered() {
    WindowFixture f(true);
    f.find<QCheckBox>("opensInInks")->setChecked(false);
    QVERIFY(!loadPreferences().opensInInks);
    QVERIFY(f.open(demoFile("badge.jpg")));
    QVERIFY(!f.job().colours.on);
  }
};

RIM_TEST(TestColoursStep)
#include "tst_colours_step.moc"
