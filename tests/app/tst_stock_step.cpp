// The sheet that is cut from: shown, placed, and what it says about the file.
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>

#include "app/widgets/length_field.h"
#include "core/io/job/job_file.h"
#include "core/io/read_drawing.h"
#include "refine_fixture.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

namespace {

/// Two squares of 20 mm with 1 mm between.
Drawing squares() {
  return makeDrawing(
      {polygonThrough({{0, 0}, {20, 0}, {20, 20}, {0, 20}}), polygonThrough({{21, 0}, {41, 0}, {41, 20}, {21, 20}})});
}

struct StockFixture : RefineFixture {
  StockFixture() : RefineFixture(squares()) {}
  void type(const char* field, const QString& text) {
    auto* line = window->findChild<LengthField*>(field);
    line->setFocus();
    line->selectAll();
    QTest::keyClicks(line, text);
    QTest::keyClick(line, Qt::Key_Return);
  }
  void press(const char* name) { window->findChild<QAbstractButton*>(name)->click(); }
  Box outlines() { return boxOf(pathsOf(now())); }
  QString warnings() { return find<QLabel>("warnings")->text(); }
};

Point middleOf(const Box& box) { return lerp(box.low, box.high, 0.5); }

}  // namespace

class TestStockStep : public QObject {
  Q_OBJECT

 private slots:
  void aStockIsLaidRoundTheOutlines() {
    StockFixture f;
    const double scale = f.window->bench().viewport().scale;
    f.press("hasStock");
    QVERIFY(f.job().stock.has_value());
    QVERIFY(distance(middleOf(job::boxOf(*f.job().stock)), middleOf(f.outlines())) < 1e-6);
    QVERIFY2(f.window->bench().viewport().scale < scale, "all of it is seen");
    f.type("stockWidth", "120");
    f.type("stockHeight", "60 mm");
    f.type("stockLeft", "-5");
    QCOMPARE(f.job().stock->widthMm, 120.0);
    QCOMPARE(f.job().stock->heightMm, 60.0);
    QCOMPARE(f.job().stock->at.x, -5.0);
    f.type("stockWidth", "0");
    QVERIFY(f.window->sentence().contains("out of range"));
    QCOMPARE(f.job().stock->widthMm, 120.0);
    f.press("stockRound");
    QVERIFY(distance(middleOf(job::boxOf(*f.job().stock)), middleOf(f.outlines())) < 1e-6);
    // It is saved, and the next one is as large.
    const std::filesystem::path file = f.folder.filePath("a.snugrim").toStdString();
    io::saveJob(f.job(), file);
    QCOMPARE(io::loadJob(file).stock, f.job().stock);
    f.press("hasStock");
    QVERIFY(!f.job().stock);
    f.press("hasStock");
    QCOMPARE(f.job().stock->widthMm, 120.0);
    f.window->actions().undo->trigger();
    QVERIFY(!f.job().stock);
  }

  void outlinesComeToItsMiddle() {
    StockFixture f;
    f.press("hasStock");
    f.type("stockLeft", "100");
    f.type("stockBelow", "0");
    f.press("centreOnStock");
    QVERIFY(f.done());
    QCOMPARE(f.job().refine.size(), 1U);
    QVERIFY(distance(middleOf(job::boxOf(*f.job().stock)), middleOf(f.outlines())) < 1e-6);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    // One that is chosen comes alone.
    f.key(Qt::Key_5);
    f.click({10, 10});
    f.press("centreOnStock");
    QVERIFY(f.done());
    QVERIFY(distance(middleOf(job::boxOf(*f.job().stock)), middleOf(boxOf(f.now().path(0)))) < 1e-6);
    QVERIFY(std::abs(boxOf(f.now().path(1)).low.x - 21) < 1e-6);
  }

  void theFileLiesOnIt() {
    StockFixture f;
    f.window->showStep(Step::Export);
    f.find<QComboBox>("kind")->setCurrentIndex(2);
    QVERIFY2(!f.find<QCheckBox>("ofStock")->isVisible(), "there is none");
    f.window->showStep(Step::Refine);
    f.press("hasStock");
    f.type("stockWidth", "120");
    f.type("stockHeight", "60");
    f.press("stockRound");
    f.window->showStep(Step::Export);
    f.find<QComboBox>("page")->setCurrentIndex(2);
    QVERIFY(f.job().file->settings.onStock);
    const QString svg = f.folder.filePath("a.svg");
    f.session().exportTo(svg, *f.job().file);
    QVERIFY(f.settle());
    const Drawing read = io::readDrawing(svg.toStdString()).drawing;
    QCOMPARE(read.pageWidth, 120.0);
    QVERIFY(distance(boxOf(pathsOf(read)).low, {39.5, 20}) < 1e-3);
    f.find<QComboBox>("kind")->setCurrentIndex(0);
    f.find<QComboBox>("originAt")->setCurrentIndex(5);
    QVERIFY(f.find<QCheckBox>("ofStock")->isVisible());
    f.press("ofStock");
    const QString dxf = f.folder.filePath("a.dxf");
    f.session().exportTo(dxf, *f.job().file);
    QVERIFY(f.settle());
    QVERIFY(distance(boxOf(pathsOf(io::readDrawing(dxf.toStdString()).drawing)).high, {-39.5, -20}) < 1e-3);
  }

  void whatDoesNotFitIsSaidBefore() {
    StockFixture f;
    f.press("hasStock");
    f.type("stockWidth", "30");
    f.press("stockRound");
    f.window->showStep(Step::Export);
    QVERIFY(f.warnings().contains("beyond the stock by 5.5 mm"));
    QVERIFY(!f.warnings().contains("cutter"));
    f.type("cutter", "2");
    QCOMPARE(f.job().file->cutterMm, 2.0);
    QTRY_VERIFY2(f.warnings().contains("does not get into a gap of 1.00 mm"), qPrintable(f.warnings()));
    QVERIFY(!f.warnings().contains("web"));
    f.type("cutter", "25");
    QTRY_VERIFY_WITH_TIMEOUT(f.warnings().contains("A web of 20.00 mm"), kPatienceMs);
    f.type("cutter", "0.5");
    QVERIFY(!f.warnings().contains("cutter"));
  }
};

RIM_TEST(TestStockStep)
#include "tst_stock_step.moc"
