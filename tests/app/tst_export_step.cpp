#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QTest>

#include "app/steps/export/export_panel.h"
#include "core/geometry/segment.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

class TestExportStep : public QObject {
  Q_OBJECT

 private slots:
  void aFileIsReadBackAndShownWhatIsInIt() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->show();
    f.window->showStep(MainWindow::kExport);
    QVERIFY(!f.find<QWidget>("receipt")->isVisible());
    const QString file = f.folder.filePath("badge.dxf");
    f.session().exportTo(file, {});
    QVERIFY(f.settle());
    QTRY_VERIFY(f.find<QWidget>("receipt")->isVisible());
    QVERIFY(f.find<QLabel>("receiptTitle")->text().contains("badge.dxf is clean"));
    const QString text = f.find<QLabel>("receiptText")->text();
    for (const char* word : {"DXF 2000", "closed, 0 open, 0 doubled, 0 crossing", "thinnest web", "smallest gap"})
      QVERIFY2(text.contains(word), word);
    // Thin places are looked at from the receipt.
    const double before = f.window->bench().viewport().scale;
    emit f.find<QLabel>("receiptText")->linkActivated("web");
    QVERIFY(f.window->bench().viewport().scale > before);
    f.find<QPushButton>("saveReceipt")->click();
    QFile saved(file + ".receipt.txt");
    QVERIFY(saved.open(QIODevice::ReadOnly));
    QVERIFY(saved.readAll().endsWith("clean\n"));
  }

  void whatIsNotCleanIsSaidWithAWayBack() {
    WindowFixture f;
    Path open = polygonPath({{0, 0}, {30, 0}, {30, 20}, {0, 20}});
    open.closed = false;
    open.segments.pop_back();
    const Drawing drawing = makeDrawing({open, circlePath({60, 10}, 8), circlePath({64, 10}, 8)});
    const QString source = f.folder.filePath("bad.svg");
    writeDrawing(drawing, source.toStdString(), {});
    f.window->openFile(source);
    QVERIFY(QTest::qWaitFor([&f] { return f.job().drawing && f.session().upToDate(); }, 30'000));
    f.window->show();
    f.window->showStep(MainWindow::kExport);
    f.session().exportTo(f.folder.filePath("bad.dxf"), {});
    QVERIFY(f.settle());
    QTRY_VERIFY(f.find<QLabel>("receiptTitle")->text().contains("not clean"));
    QVERIFY(f.find<QLabel>("receiptText")->text().contains("cross"));
    QVERIFY(f.window->sentence().contains("not clean"));
    emit f.find<QLabel>("receiptText")->linkActivated("mend");
    QVERIFY(f.find<QWidget>("totals")->isVisible());
  }

  /// What was refined beyond the picture stands on a page that holds it.
  void refinedOutlinesAreExportedWhole() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.session().edit("Ring", {}, [](Job& job) { job.refine = {refine::AddRing{6, 4, Joins::Round}}; });
    QVERIFY(f.settle());
    const QString file = f.folder.filePath("ringed.svg");
    f.session().exportTo(file, {});
    QVERIFY(f.settle());
    const Drawing read = readDrawing(file.toStdString()).drawing;
    const Box box = boxOf(pathsOf(read));
    QVERIFY(box.low.x >= -1e-6 && box.low.y >= -1e-6 && box.high.x <= read.pageWidth + 1e-6);
    QVERIFY(std::abs(box.width() - boxOf(pathsOf(drawingOf(f.job()))).width()) < 0.01);
  }
};

RIM_TEST(TestExportStep)
#include "tst_export_step.moc"
