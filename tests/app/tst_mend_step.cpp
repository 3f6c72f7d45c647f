#include <QComboBox>
#include <QInputDialog>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QTest>
#include <QTimer>

#include "app/steps/mend/finding_list.h"
#include "app/steps/mend/mend_panel.h"
#include "app/steps/mend/mend_room.h"
#include "app/widgets/length_field.h"
#include "core/io/read_drawing.h"
#include "support/drawings.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

bool inspected(WindowFixture& f) {
  return QTest::qWaitFor([&f] { return f.session().upToDate() && f.session().findings() != nullptr; }, kPatienceMs);
}

bool openDrawing(WindowFixture& f, const QString& file) {
  f.window->openFile(file);
  return QTest::qWaitFor([&f] { return f.job().drawing != nullptr; }, kPatienceMs) && f.settle() && inspected(f);
}

std::size_t countOf(WindowFixture& f, mend::FindingKind kind) {
  const auto& all = *f.session().findings();
  return static_cast<std::size_t>(
      std::count_if(all.begin(), all.end(), [kind](const mend::Finding& g) { return g.kind == kind; }));
}

QString writeFile(WindowFixture& f, const QString& name, const QByteArray& content) {
  QFile file(f.folder.filePath(name));
  if (!file.open(QIODevice::WriteOnly)) return {};
  file.write(content);
  return file.fileName();
}

const char* const kSquareWithAGap =
    "<svg xmlns='http://www.w3.org/2000/svg' width='50mm' height='50mm' viewBox='0 0 50 50'>"
    "<path d='M10 10h20v20h-19.7M10 30V10.2'/><circle cx='42' cy='42' r='.1'/></svg>";

const char* const kTiles =
    "<svg xmlns='http://www.w3.org/2000/svg' width='30mm' height='10mm' viewBox='0 0 30 10'>"
    "<path d='M0 0H10V10H0Z'/><path d='M10 0H20V10H10Z'/><path d='M20 0H30V10H20Z'/></svg>";

}  // namespace

class TestMendStep : public QObject {
  Q_OBJECT

 private slots:
  void allProposalsAreTakenInOneGo() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    QVERIFY2(f.window->sentence().contains("12 outlines were in 34 pieces"), qPrintable(f.window->sentence()));
    QSignalSpy previewed(&f.session(), &Session::repairPreviewed);
    f.session().previewProposals();
    QVERIFY(previewed.wait(kPatienceMs));
    const std::size_t before = f.session().findings()->size();
    QTest::keyClick(&f.window->bench(), Qt::Key_S, Qt::ShiftModifier);
    QVERIFY(f.settle() && inspected(f));
    QVERIFY(f.session().findings()->size() < before / 4);
    for (const mend::Finding& finding : *f.session().findings()) QVERIFY(finding.repair.empty());
    QCOMPARE(f.session().history().undoName(), "Take all proposals");
    // The same as the command line makes of it but for the specks, which it keeps unless told otherwise.
    f.window->actions().undo->trigger();
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(f.session().findings()->size(), before);
  }

  void everyRowHasWords() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    auto* list = f.find<FindingList>("findings");
    int rows = 0;
    for (int g = 0; g < list->topLevelItemCount(); ++g) {
      for (int i = 0; i < list->topLevelItem(g)->childCount(); ++i) {
        const QString words = list->topLevelItem(g)->child(i)->text(0);
        QVERIFY2(words.section(' ', 1).trimmed().size() > 2, qPrintable(words));
        ++rows;
      }
    }
    QCOMPARE(std::size_t(rows), f.session().findings()->size());
  }

  void aDrawingOpensInTheMendStep() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    QVERIFY(f.find<FindingList>("findings")->isVisible());
    QCOMPARE(f.find<QLabel>("outlines")->text(), QString("23"));
    QCOMPARE(f.find<QLabel>("double")->text(), QString("3"));
    QVERIFY(f.find<QLabel>("totals")->text().contains("findings"));
    QVERIFY(f.find<FindingList>("findings")->topLevelItemCount() >= 6);
    QVERIFY(f.window->windowTitle().startsWith("spool-plate.dxf"));
    QVERIFY(!f.session().modified());
  }

  void keysWalkFromFindingToFinding() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    auto& list = *f.find<FindingList>("findings");
    QTest::keyClick(&f.window->bench(), Qt::Key_E);
    QCOMPARE(list.current(), std::optional<std::size_t>(0));
    const double near = f.window->bench().viewport().scale;
    QVERIFY(near > 5 * f.window->bench().fittingScale());
    QTest::keyClick(&f.window->bench(), Qt::Key_E);
    QCOMPARE(list.current(), std::optional<std::size_t>(1));
    QTest::keyClick(&f.window->bench(), Qt::Key_E, Qt::ShiftModifier);
    QCOMPARE(list.current(), std::optional<std::size_t>(0));
    const mend::Finding& first = (*f.session().findings())[list.order()[0]];
    const QPointF middle = QRectF(f.window->bench().rect()).center();
    QVERIFY(distance(f.window->bench().viewport().toPicture(middle), first.at) < 0.1);
    QVERIFY(!f.find<QLabel>("sentence")->text().isEmpty());
  }

  void oneIsRepairedAndTakenBack() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "gap.svg", kSquareWithAGap)));
    QCOMPARE(f.session().findings()->size(), 3U);
    QTest::keyClick(&f.window->bench(), Qt::Key_E);
    QTest::keyClick(&f.window->bench(), Qt::Key_Y);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, mend::FindingKind::OpenEnd), 1U);
    QCOMPARE(f.session().history().undoName(), QString("Mend: open ends"));
    QVERIFY(f.window->room<MendRoom>().actions().repairAll->isEnabled());
    QTest::keyClick(&f.window->bench(), Qt::Key_Y, Qt::ShiftModifier);
    QCOMPARE(f.session().history().undoName(), QString("Mend all: open ends"));
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, mend::FindingKind::OpenEnd), 0U);
    QCOMPARE(countsOf(pathsOf(*job::outlinesOf(f.job()))).open, 0U);
    QVERIFY(f.find<QLabel>("before")->text().contains("2 open"));
    f.window->actions().undo->trigger();
    f.window->actions().undo->trigger();
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(f.session().findings()->size(), 3U);
  }

  void whatIsLeftStaysLeft() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "gap.svg", kSquareWithAGap)));
    auto& list = *f.find<FindingList>("findings");
    list.choose(2);
    QTest::keyClick(&f.window->bench(), Qt::Key_Q);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, mend::FindingKind::Speck), 0U);
    QCOMPARE(job::outlinesOf(f.job())->outlines.size(), 3U);
  }

  void aTagOnTheBenchChoosesItsFinding() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "gap.svg", kSquareWithAGap)));
    const mend::Finding& speck = f.session().findings()->back();
    const QPointF place = f.window->bench().viewport().toScreen(speck.at);
    QTest::mouseClick(&f.window->bench(), Qt::LeftButton, {}, (place + QPointF(16, -24)).toPoint());
    QCOMPARE(f.find<FindingList>("findings")->current(), std::optional<std::size_t>(2));
  }

  void settingsSayWhatCounts() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "gap.svg", kSquareWithAGap)));
    f.find<QSlider>("speck")->setValue(0);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, mend::FindingKind::Speck), 0U);
    auto* gap = f.find<LengthField>("gap");
    gap->setFocus();
    gap->selectAll();
    QTest::keyClicks(gap, "0.05");
    QTest::keyClick(gap, Qt::Key_Return);
    QVERIFY(f.settle() && inspected(f));
    QVERIFY(f.session().findings()->front().repair.empty() || f.session().findings()->back().repair.empty());
  }

  void lengthsAreInTheUnitThatIsChosen() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "gap.svg", kSquareWithAGap)));
    auto& list = *f.find<FindingList>("findings");
    list.choose(1);
    QCOMPARE(f.find<LengthField>("gap")->text(), QString("0.5"));
    QVERIFY(f.find<QLabel>("sentence")->text().contains("0.30 mm"));
    f.window->actions().unit->trigger();
    QCOMPARE(f.find<LengthField>("gap")->text(), QString("0.01969"));
    list.choose(1);
    QVERIFY2(f.find<QLabel>("sentence")->text().contains("0.0118 in"), qPrintable(f.find<QLabel>("sentence")->text()));
    QVERIFY(list.topLevelItem(0)->child(1)->text(0).contains("0.0118 in"));
    auto* gap = f.find<LengthField>("gap");
    gap->setFocus();
    gap->selectAll();
    QTest::keyClicks(gap, "30 in");
    QTest::keyClick(gap, Qt::Key_Return);
    QVERIFY(f.window->sentence().contains("out of range"));
    f.window->actions().unit->trigger();
  }

  void aClickKeepsASpeckAndAnotherLetsItGo() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "gap.svg", kSquareWithAGap)));
    const QPoint place = f.window->bench().viewport().toScreen(f.session().findings()->back().at).toPoint();
    QTest::mouseClick(&f.window->bench(), Qt::LeftButton, {}, place);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, mend::FindingKind::Speck), 0U);
    QCOMPARE(f.session().history().undoName(), QString("Keep a speck"));
    QTest::mouseClick(&f.window->bench(), Qt::LeftButton, {}, place);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, mend::FindingKind::Speck), 1U);
  }

  void aChoiceForStrokesIsShownForAllOfThem() {
    WindowFixture f;
    QByteArray rings = "<svg xmlns='http://www.w3.org/2000/svg' width='90mm' height='30mm' viewBox='0 0 90 30'>";
    for (int i = 0; i < 3; ++i) {
      for (const double r : {8.0, 8.6})
        rings += QString("<circle cx='%1' cy='15' r='%2'/>").arg(15 + 30 * i).arg(r).toLatin1();
    }
    QVERIFY(openDrawing(f, writeFile(f, "rings.svg", rings + "</svg>")));
    QCOMPARE(countOf(f, mend::FindingKind::StrokePair), 3U);
    std::size_t shown = 0;
    QObject::connect(&f.session(), &Session::repairPreviewed, f.window.get(),
                     [&shown](const RepairPreview& preview) { shown = preview.comes.size(); });
    f.find<FindingList>("findings")->choose(0);
    auto* repair = f.find<QComboBox>("repair");
    repair->setCurrentIndex(repair->findData("centre"));
    QVERIFY(QTest::qWaitFor([&shown] { return shown == 3; }, kPatienceMs));
    // One by itself, then the rest.
    QTest::keyClick(&f.window->bench(), Qt::Key_Y);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, mend::FindingKind::StrokePair), 2U);
    QVERIFY(QTest::qWaitFor([&shown] { return shown == 2; }, kPatienceMs));
    QTest::keyClick(&f.window->bench(), Qt::Key_Y, Qt::ShiftModifier);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(job::outlinesOf(f.job())->outlines.size(), 3U);
    const double area = std::abs(signedArea(job::outlinesOf(f.job())->path(0)));
    QVERIFY(std::abs(area - M_PI * 8.3 * 8.3) < 0.1);
  }

  void commonBordersAreDrawnOnceOrKeptTwice() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "tiles.svg", kTiles)));
    QCOMPARE(countOf(f, mend::FindingKind::DoubleLine), 2U);
    f.find<FindingList>("findings")->choose(0);
    auto* repair = f.find<QComboBox>("repair");
    repair->setCurrentIndex(repair->findData("twice"));
    f.window->room<MendRoom>().actions().repairThis->trigger();
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, mend::FindingKind::DoubleLine), 1U);
    QCOMPARE(countsOf(pathsOf(*job::outlinesOf(f.job()))).closed, 3U);
    f.window->actions().undo->trigger();
    QVERIFY(f.settle() && inspected(f));
    f.find<FindingList>("findings")->choose(0);
    repair->setCurrentIndex(repair->findData("once"));
    f.window->room<MendRoom>().actions().repairAll->trigger();
    QVERIFY(f.settle() && inspected(f));
    QVERIFY(std::abs(totalLength(pathsOf(*job::outlinesOf(f.job()))) - 100) < 1e-6);
    QCOMPARE(f.find<QLabel>("totals")->text(),
             QString("3 outlines, 2 of them borders between others; nothing drawn twice."));
  }

  void anEndThatReachesNoOtherSaysSo() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "shut.svg",
                                     "<svg xmlns='http://www.w3.org/2000/svg' width='50mm' height='50mm' viewBox='0 0 "
                                     "50 50' fill='none' stroke='#000'><circle cx='15' cy='25' r='8'/><path d='M12 "
                                     "25h6M30 25h15'/></svg>")));
    auto& list = *f.find<FindingList>("findings");
    list.choose(0);
    f.find<QComboBox>("repair")->setCurrentIndex(0);
    // Its own other end is no way out for a single line, and the circle is in the way of the other line.
    QVERIFY(
        QTest::qWaitFor([&f] { return f.find<QLabel>("sentence")->text().contains("can be reached"); }, kPatienceMs));
    QVERIFY(!f.window->room<MendRoom>().actions().repairThis->isEnabled());
  }

  void longListsSayWhatTheyLeaveOut() {
    FindingList list;
    std::vector<mend::Finding> many(6000);
    Drawing drawing;
    setPaths(drawing, {Path{{0, 0}, {Segment::line({1, 0})}, false}});
    list.show(std::make_shared<const std::vector<mend::Finding>>(many), drawing, false, Unit::Millimetre);
    const auto* group = list.topLevelItem(0);
    QCOMPARE(group->childCount(), 5001);
    QCOMPARE(group->child(5000)->text(0), QString("and 1000 more, listed as these are mended"));
    QVERIFY(!group->child(4999)->icon(0).isNull());
    list.step(-1);
    QCOMPARE(list.current(), std::optional<std::size_t>(4999));
  }

  void allThatIsSafeAndThenTheRest() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    QTest::keyClick(&f.window->bench(), Qt::Key_S);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, mend::FindingKind::DoubleLine), 0U);
    auto& list = *f.find<FindingList>("findings");
    // Everything that is left has a proposal: taken kind by kind until nothing is left.
    for (int round = 0; round < 12 && !f.session().findings()->empty(); ++round) {
      list.choose(0);
      f.window->room<MendRoom>().actions().repairAll->trigger();
      QVERIFY(f.settle() && inspected(f));
    }
    QCOMPARE(f.find<QLabel>("totals")->text(), QString("11 outlines, all closed, nothing drawn twice."));
    QVERIFY(!f.window->room<MendRoom>().actions().mendSafe->isEnabled());
    const QString out = f.folder.filePath("plate.dxf");
    f.session().exportTo(out, {});
    QVERIFY(f.settle());
    QCOMPARE(countsOf(pathsOf(io::readDrawing(out.toStdString()).drawing)).closed, 11U);
  }

  void theJobFileKeepsDrawingAndDecisions() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    QTest::keyClick(&f.window->bench(), Qt::Key_S);
    QVERIFY(f.settle() && inspected(f));
    const auto outlines = job::outlinesOf(f.job())->outlines.size();
    const QString file = f.folder.filePath("plate.snugrim");
    f.session().saveTo(file);
    QVERIFY(f.settle());
    QVERIFY(!f.session().modified());
    WindowFixture g;
    QVERIFY(openDrawing(g, file));
    QCOMPARE(job::outlinesOf(g.job())->outlines.size(), outlines);
    QCOMPARE(g.job().mend.steps.size(), 1U);
  }

  void aTracedPictureIsInspectedToo() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    QVERIFY(inspected(f));
    QVERIFY(f.session().findings()->empty() || countOf(f, mend::FindingKind::OpenEnd) == 0);
    f.window->showStep(Step::Mend);
    QVERIFY(f.find<QLabel>("totals")->isVisible());
    QCOMPARE(f.find<QLabel>("double")->text(), QString("0"));
  }

  void aMissingUnitIsAskedFor() {
    WindowFixture f;
    const QString file = writeFile(
        f, "no-unit.svg", "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 96 96'><path d='M0 0h96v96z'/></svg>");
    QTimer poll;
    QStringList items;
    QObject::connect(&poll, &QTimer::timeout, [&] {
      auto* dialog = f.find<QInputDialog>("unitDialog");
      if (dialog == nullptr) return;
      poll.stop();
      items = dialog->comboBoxItems();
      dialog->setTextValue(items.filter("millimetres").value(0));
      dialog->accept();
    });
    poll.start(50);
    QVERIFY(openDrawing(f, file));
    QVERIFY(QTest::qWaitFor([&f] { return boxOf(pathsOf(job::drawingOf(f.job()))).width() > 90; }, kPatienceMs));
    QCOMPARE(items.filter("25.4").size(), 1);
  }

  /// A repair whose outline is gone is told, looked at, and can be forgotten; leaving it means the same.
  void aDecisionThatFindsNothingIsListed() {
    for (const bool leave : {false, true}) {
      WindowFixture f;
      QVERIFY(openDrawing(f, writeFile(f, "gap.svg", kSquareWithAGap)));
      f.window->showStep(Step::Mend);
      f.session().edit("t", {}, [](job::Job& job) {
        job.mend.steps = {
            {mend::MendStep::What::One, mend::FindingKind::Loop, {40, 5}, "cut off", static_cast<OutlineId>(7)}};
      });
      QVERIFY(f.settle() && inspected(f));
      QCOMPARE(countOf(f, mend::FindingKind::LostDecision), 1U);
      auto& list = f.window->findChild<MendPanel*>()->list();
      list.choose(f.session().findings()->size() - 1);
      QVERIFY(f.find<QLabel>("sentence")->text().contains("finds nothing to repair any more"));
      QCOMPARE(f.find<QComboBox>("repair")->currentText(), QString("Forget the decision"));
      (leave ? f.window->room<MendRoom>().actions().leaveThis : f.window->room<MendRoom>().actions().repairThis)
          ->trigger();
      QVERIFY(f.settle() && inspected(f));
      QVERIFY(f.job().mend.steps.empty());
      QCOMPARE(countOf(f, mend::FindingKind::LostDecision), 0U);
      f.window->actions().undo->trigger();
      QVERIFY(f.settle() && inspected(f));
      QCOMPARE(countOf(f, mend::FindingKind::LostDecision), 1U);
    }
  }

  void aBadDrawingLeavesTheJobAsItWas() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    f.window->openFile(writeFile(f, "bad.dxf", "hello\nworld\n"));
    QVERIFY(f.settle());
    QVERIFY(f.window->sentence().contains("bad.dxf"));
    QVERIFY(f.job().drawing != nullptr);
  }
};

RIM_TEST(TestMendStep)
#include "tst_mend_step.moc"
