#include <QComboBox>
#include <QDoubleSpinBox>
#include <QInputDialog>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QTest>
#include <QTimer>

#include "app/steps/mend/finding_list.h"
#include "core/io/read_drawing.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

bool inspected(WindowFixture& f) {
  return QTest::qWaitFor([&f] { return f.session().upToDate() && f.session().findings() != nullptr; }, 60'000);
}

bool openDrawing(WindowFixture& f, const QString& file) {
  f.window->openFile(file);
  return QTest::qWaitFor([&f] { return f.job().drawing != nullptr; }, 60'000) && f.settle() && inspected(f);
}

std::size_t countOf(WindowFixture& f, FindingKind kind) {
  const auto& all = *f.session().findings();
  return static_cast<std::size_t>(
      std::count_if(all.begin(), all.end(), [kind](const Finding& g) { return g.kind == kind; }));
}

QString writeFile(WindowFixture& f, const QString& name, const QByteArray& content) {
  QFile file(f.folder.filePath(name));
  if (!file.open(QIODevice::WriteOnly)) return {};
  file.write(content);
  return file.fileName();
}

const char* const kSquareWithAGap =
    "<svg xmlns='http://www.w3.org/2000/svg' width='50mm' height='50mm' viewBox='0 0 50 50'>"
    "<path d='M10 10h20v20h-19.7M10 30V10.0'/><circle cx='42' cy='42' r='.1'/></svg>";

}  // namespace

class TestMendStep : public QObject {
  Q_OBJECT

 private slots:
  void aDrawingOpensInTheMendStep() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    QVERIFY(f.find<FindingList>("findings")->isVisible());
    QCOMPARE(f.find<QLabel>("outlines")->text(), QString("45"));
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
    const Finding& first = (*f.session().findings())[list.order()[0]];
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
    QCOMPARE(countOf(f, FindingKind::OpenEnd), 1U);
    QCOMPARE(f.session().history().undoName(), QString("Mend: open ends"));
    QVERIFY(f.window->actions().repairAll->isEnabled());
    QTest::keyClick(&f.window->bench(), Qt::Key_Y, Qt::ShiftModifier);
    QCOMPARE(f.session().history().undoName(), QString("Mend all: open ends"));
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, FindingKind::OpenEnd), 0U);
    QCOMPARE(countsOf(outlinesOf(f.job())->outlines).open, 0U);
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
    QCOMPARE(countOf(f, FindingKind::Speck), 0U);
    QCOMPARE(outlinesOf(f.job())->outlines.size(), 3U);
  }

  void aTagOnTheBenchChoosesItsFinding() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "gap.svg", kSquareWithAGap)));
    const Finding& speck = f.session().findings()->back();
    const QPointF place = f.window->bench().viewport().toScreen(speck.at);
    QTest::mouseClick(&f.window->bench(), Qt::LeftButton, {}, (place + QPointF(16, -24)).toPoint());
    QCOMPARE(f.find<FindingList>("findings")->current(), std::optional<std::size_t>(2));
  }

  void settingsSayWhatCounts() {
    WindowFixture f;
    QVERIFY(openDrawing(f, writeFile(f, "gap.svg", kSquareWithAGap)));
    f.find<QSlider>("speck")->setValue(0);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, FindingKind::Speck), 0U);
    f.find<QDoubleSpinBox>("gap")->setValue(0.05);
    QVERIFY(f.settle() && inspected(f));
    QVERIFY(f.session().findings()->front().repair.empty() || f.session().findings()->back().repair.empty());
  }

  void allThatIsSafeAndThenTheRest() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    QTest::keyClick(&f.window->bench(), Qt::Key_S);
    QVERIFY(f.settle() && inspected(f));
    QCOMPARE(countOf(f, FindingKind::DoubleLine), 0U);
    auto& list = *f.find<FindingList>("findings");
    // Everything that is left has a proposal: taken kind by kind until nothing is left.
    for (int round = 0; round < 12 && !f.session().findings()->empty(); ++round) {
      list.choose(0);
      f.window->actions().repairAll->trigger();
      QVERIFY(f.settle() && inspected(f));
    }
    QCOMPARE(f.find<QLabel>("totals")->text(), QString("11 outlines, all closed, nothing drawn twice."));
    QVERIFY(!f.window->actions().mendSafe->isEnabled());
    const QString out = f.folder.filePath("plate.dxf");
    f.session().exportTo(out, {});
    QVERIFY(f.settle());
    QCOMPARE(countsOf(readDrawing(out.toStdString()).drawing.paths).closed, 11U);
  }

  void theJobFileKeepsDrawingAndDecisions() {
    WindowFixture f;
    QVERIFY(openDrawing(f, demoFile("spool-plate.dxf")));
    QTest::keyClick(&f.window->bench(), Qt::Key_S);
    QVERIFY(f.settle() && inspected(f));
    const auto outlines = outlinesOf(f.job())->outlines.size();
    const QString file = f.folder.filePath("plate.snugrim");
    f.session().saveTo(file);
    QVERIFY(f.settle());
    QVERIFY(!f.session().modified());
    WindowFixture g;
    QVERIFY(openDrawing(g, file));
    QCOMPARE(outlinesOf(g.job())->outlines.size(), outlines);
    QCOMPARE(g.job().mend.steps.size(), 1U);
  }

  void aTracedPictureIsInspectedToo() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    QVERIFY(inspected(f));
    QVERIFY(f.session().findings()->empty() || countOf(f, FindingKind::OpenEnd) == 0);
    f.window->showStep(MainWindow::kMend);
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
    QVERIFY(QTest::qWaitFor([&f] { return boxOf(drawingOf(f.job()).paths).width() > 90; }, 30'000));
    QCOMPARE(items.filter("25.4").size(), 1);
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

QTEST_MAIN(TestMendStep)
#include "tst_mend_step.moc"
