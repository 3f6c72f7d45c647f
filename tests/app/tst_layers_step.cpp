// Layers in the window, and other pictures worked through like the job's.

#include <QDir>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTreeWidget>

#include "app/steps/export/batch_dialog.h"
#include "app/steps/export/export_room.h"
#include "app/steps/refine/refine_room.h"
#include "core/io/read_drawing.h"
#include "refine_fixture.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

namespace {

struct LayersFixture : RefineFixture {
  LayersFixture()
      : RefineFixture(makeDrawing(
            {polygonThrough({{0, 0}, {20, 0}, {20, 20}, {0, 20}}), circlePath({40, 10}, 8), circlePath({70, 10}, 8)},
            {{"cut", 200, 0, 0}, {"fold", 0, 0, 200}}, {0, 1, 1})) {}
  QTreeWidget* list() { return find<QTreeWidget>("layers"); }
};

}  // namespace

class TestLayersStep : public QObject {
  Q_OBJECT

 private slots:
  void layersAreHiddenAndNotWritten() {
    LayersFixture f;
    QVERIFY(f.done());
    QCOMPARE(f.list()->topLevelItemCount(), 2);
    QCOMPARE(f.list()->topLevelItem(1)->text(1), QString("2"));
    f.list()->topLevelItem(1)->setCheckState(0, Qt::Unchecked);
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 1U);
    QCOMPARE(f.list()->topLevelItem(1)->text(1), QString("hidden"));
    // What is hidden cannot be chosen, is not written, and that is said.
    f.click({40, 10});
    QVERIFY(f.hand().selecting().chosen().empty());
    f.window->showStep(Step::Export);
    QVERIFY(f.find<QLabel>("warnings")->text().contains("hidden: fold"));
    const QString file = f.folder.filePath("some.dxf");
    f.session().exportTo(file, {});
    QVERIFY(f.settle());
    QCOMPARE(io::readDrawing(file.toStdString()).drawing.outlines.size(), 1U);
    f.window->showStep(Step::Refine);
    f.list()->topLevelItem(1)->setCheckState(0, Qt::Checked);
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 3U);
    QVERIFY(f.job().refine.empty());
  }

  void nothingLockedIsTakenHoldOf() {
    LayersFixture f;
    QVERIFY(f.done());
    f.list()->setCurrentItem(f.list()->topLevelItem(1));
    f.find<QPushButton>("lockLayer")->click();
    QVERIFY(f.done());
    QCOMPARE(f.list()->topLevelItem(1)->text(1), QString("locked"));
    f.click({40, 10});
    QVERIFY(f.hand().selecting().chosen().empty());
    f.window->room<RefineRoom>().actions().chooseAll->trigger();
    QCOMPARE(f.hand().selecting().chosen().size(), 1U);
    QCOMPARE(f.now().outlines.size(), 3U);  // it is shown and written as ever
    f.list()->topLevelItem(1)->setText(0, "other");
    QVERIFY(f.done());
    QVERIFY(f.window->sentence().contains("Unlock"));
    f.list()->setCurrentItem(f.list()->topLevelItem(1));
    f.find<QPushButton>("lockLayer")->click();
    QVERIFY(f.done());
    QVERIFY(f.job().refine.empty());
    f.click({40, 10});
    QCOMPARE(f.hand().selecting().chosen().size(), 1U);
  }

  void layersChangePlaces() {
    LayersFixture f;
    QVERIFY(f.done());
    f.list()->setCurrentItem(f.list()->topLevelItem(0));
    QVERIFY(!f.find<QPushButton>("layerUp")->isEnabled());
    f.find<QPushButton>("layerDown")->click();
    QVERIFY(f.done());
    QCOMPARE(f.now().layers[0].name, std::string("fold"));
    QCOMPARE(f.list()->currentItem()->text(0), QString("cut"));
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QCOMPARE(f.now().layers[0].name, std::string("cut"));
  }

  void groupsAreTakenHoldOfAsOne() {
    LayersFixture f;
    QVERIFY(f.done());
    auto& tool = f.hand().selecting();
    f.click({10, 10});
    QVERIFY2(!f.window->room<RefineRoom>().actions().hand.group->isEnabled(), "one is no group");
    f.click({40, 10}, Qt::ShiftModifier);
    f.key(Qt::Key_G, Qt::ControlModifier);
    QVERIFY(f.done());
    f.key(Qt::Key_Escape);
    f.click({40, 10});
    QCOMPARE(tool.chosen().size(), 2U);
    f.click({40, 10}, Qt::AltModifier);
    QCOMPARE(tool.chosen().size(), 1U);
    f.key(Qt::Key_Escape);
    f.drag({30, -5}, {50, 25});  // a box round one of them
    QCOMPARE(tool.chosen().size(), 2U);
    f.drag({40, 10}, {45, 10});
    QVERIFY(f.done());
    QVERIFY(std::abs(boxOf(f.now().path(0)).low.x - 5) < 0.5);
    f.key(Qt::Key_G, Qt::ControlModifier | Qt::ShiftModifier);
    QVERIFY(f.done());
    f.key(Qt::Key_Escape);
    f.click({45, 10});
    QCOMPARE(tool.chosen().size(), 1U);
  }

  void aDoubleClickChoosesAllOfALetter() {
    RefineFixture f;
    QVERIFY(f.done());
    QTest::mouseDClick(&f.window->bench(), Qt::LeftButton, {}, f.onScreen({5, 30}));
    QCOMPARE(f.hand().selecting().chosen().size(), 2U);  // the plate and its hole
  }

  void layersAreNamedAndFilled() {
    LayersFixture f;
    QVERIFY(f.done());
    f.list()->topLevelItem(0)->setText(0, "score");
    QVERIFY(f.done());
    QCOMPARE(f.now().layers[0].name, std::string("score"));
    f.list()->topLevelItem(0)->setText(0, "  ");
    QVERIFY(f.done());
    QVERIFY(f.window->sentence().contains("needs a name"));
    QCOMPARE(f.list()->topLevelItem(0)->text(0), QString("score"));
    // What is chosen on the bench goes to a layer that is chosen, or a new one.
    QVERIFY(!f.find<QPushButton>("onLayer")->isEnabled());
    f.click({70, 10});
    f.list()->setCurrentItem(f.list()->topLevelItem(0));
    f.find<QPushButton>("onLayer")->click();
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines[2].layer, 0U);
    QCOMPARE(f.hand().selecting().chosen().size(), 1U);
    f.find<QPushButton>("onNewLayer")->click();
    QVERIFY(f.done());
    QCOMPARE(f.now().layers.size(), 3U);
    QCOMPARE(f.now().outlines[2].layer, 2U);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QCOMPARE(f.now().layers.size(), 2U);
  }

  void otherPicturesAreWorkedThrough() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    // Something by hand, which belongs to this picture alone.
    f.session().edit("Hand", {}, [](job::Job& job) {
      job.refine = refine::withHandwork({}, {refine::madeByHand({}, {circlePath({5, 5}, 3)})});
      job.trace.tolerancePx = 0.6;
    });
    QVERIFY(f.settle());
    f.window->room<ExportRoom>().actions().batch->trigger();
    auto* dialog = f.find<BatchDialog>("batchDialog");
    QVERIFY(dialog != nullptr && dialog->isVisible());
    QVERIFY(!dialog->findChild<QPushButton*>("batchStart")->isEnabled());
    QFile broken(f.folder.filePath("broken.png"));
    QVERIFY(broken.open(QIODevice::WriteOnly));
    broken.write("no picture");
    broken.close();
    dialog->setPictures({demoFile("badge.png"), demoFile("window-card.png"), broken.fileName()});
    const QString folder = f.folder.filePath("out");
    dialog->setFolder(folder);
    dialog->findChild<QPushButton*>("batchStart")->click();
    QVERIFY(dialog->running());
    QVERIFY(QTest::qWaitFor([dialog] { return !dialog->running(); }, kPatienceMs));
    auto* table = dialog->findChild<QTreeWidget*>("batchTable");
    QCOMPARE(table->topLevelItem(0)->text(1), QString("written"));
    QCOMPARE(table->topLevelItem(0)->text(3), QString("clean"));
    QVERIFY(table->topLevelItem(2)->text(1).size() > 10);
    QVERIFY(dialog->findChild<QLabel*>("batchSummary")->text().contains("3 pictures worked through, 2 clean"));
    QCOMPARE(QDir(folder).entryList({"*.dxf"}).size(), 2);
    const auto alone = job::outlinesOf(f.job())->outlines.size();
    QCOMPARE(io::readDrawing(QString(folder + "/badge.dxf").toStdString()).drawing.outlines.size(), alone - 1);
  }

  void aBatchCanBeStopped() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    BatchDialog dialog(f.job(), {}, f.folder.filePath("out"));
    QStringList many;
    for (int i = 0; i < 40; ++i) {
      many << f.folder.filePath(QStringLiteral("%1.png").arg(i));
      QVERIFY(QFile::copy(demoFile("window-card.png"), many.last()));
    }
    dialog.setPictures(many);
    dialog.setPictures(many);
    QCOMPARE(dialog.findChild<QTreeWidget*>("batchTable")->topLevelItemCount(), 40);
    dialog.start();
    dialog.findChild<QPushButton*>("batchStop")->click();
    QVERIFY(!dialog.running());
    QVERIFY(dialog.findChild<QLabel*>("batchSummary")->text().contains("Stopped"));
  }
};

RIM_TEST(TestLayersStep)
#include "tst_layers_step.moc"
