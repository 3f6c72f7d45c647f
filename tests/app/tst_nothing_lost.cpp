// Nothing that was done is lost or overwritten, whatever comes late, whichever button is pressed.

#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPushButton>
#include <QSpinBox>
#include <QTest>

#include "app/steps/colours/sweep_tool.h"
#include "app/steps/export/export_room.h"
#include "app/steps/mend/mend_room.h"
#include "app/steps/picture/picture_room.h"
#include "app/steps/picture/picture_tools.h"
#include "core/io/job/job_file.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

void drop(WindowFixture& f, const QString& file) {
  QMimeData data;
  data.setUrls({QUrl::fromLocalFile(file)});
  f.window->pasteFrom(&data);
}

/// A picture that takes a while to be straightened.
QString largePicture(const QTemporaryDir& folder) {
  QImage image(1600, 1200, QImage::Format_Grayscale8);
  image.fill(Qt::white);
  for (int y = 300; y < 900; ++y) std::fill_n(image.scanLine(y) + 300, 1000, uchar{20});
  const QString file = folder.filePath("large.png");
  image.save(file);
  return file;
}

}  // namespace

class TestNothingLost : public QObject {
  Q_OBJECT

 private slots:
  void aDrawingIsSavedForTheFirstTime() {
    WindowFixture f;
    f.window->openFile(demoFile("spool-plate.dxf"));
    QVERIFY(QTest::qWaitFor([&f] { return f.job().drawing != nullptr && f.session().findings(); }, kPatienceMs));
    f.session().edit("Note", {}, [](job::Job& job) { job.origin = "mine"; });
    QVERIFY(f.session().modified());
    const QString file = f.folder.filePath("plate.snugrim");
    chooseFile(file);
    f.window->actions().save->trigger();
    QVERIFY(f.settle());
    QVERIFY(!f.session().modified());
    const job::Job loaded = io::loadJob(file.toStdString());
    QVERIFY(loaded.drawing->outlines == f.job().drawing->outlines);
    // Closing > Save is the same way.
    f.session().edit("Note", {}, [](job::Job& job) { job.origin = "yours"; });
    answer(QMessageBox::Save);
    QVERIFY(!f.window->close());
    QVERIFY(QTest::qWaitFor([&f] { return !f.window->isVisible(); }, kPatienceMs));
    QCOMPARE(io::loadJob(file.toStdString()).origin, std::string("yours"));
  }

  void openingAnotherAsksAboutChanges_data() {
    QTest::addColumn<int>("way");
    QTest::newRow("dropped") << 0;
    QTest::newRow("opened") << 1;
    QTest::newRow("a demo") << 2;
  }
  void openingAnotherAsksAboutChanges() {
    QFETCH(int, way);
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    thicken(f, 2);
    QVERIFY(f.settle());
    const auto another = [&] {
      if (way == 0) drop(f, demoFile("window-card.png"));
      if (way == 1) f.window->openFile(demoFile("window-card.png"));
      if (way == 2) f.window->openDemo("window-card.png");
    };
    answer(QMessageBox::Cancel);
    another();
    QVERIFY(!f.session().busy());
    QCOMPARE(f.job().original.name, std::string("badge.png"));
    QVERIFY(f.session().modified());
    // Saved first, opened then.
    const QString file = f.folder.filePath("badge.snugrim");
    answer(QMessageBox::Save);
    chooseFile(file);
    another();
    QVERIFY(QTest::qWaitFor([&f] { return f.job().original.name == "window-card.png"; }, kPatienceMs));
    QVERIFY(f.settle());
    QCOMPARE(io::loadJob(file.toStdString()).preparation.size(), std::size_t{1});
    // Discarded it is still a step that can be taken back, and closing asks about it again.
    thicken(f, 1);
    answer(QMessageBox::Discard);
    f.window->openFile(demoFile("badge.png"));
    QVERIFY(QTest::qWaitFor([&f] { return f.job().original.name == "badge.png"; }, kPatienceMs));
    QVERIFY(f.settle());
    f.window->actions().undo->trigger();
    QVERIFY(f.settle());
    QCOMPARE(f.job().original.name, std::string("window-card.png"));
    answer(QMessageBox::Cancel);
    QVERIFY(!f.window->close());
    answer(QMessageBox::Discard);
    QVERIFY(f.window->close());
  }

  void aNameWithADotGetsItsEnding() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    chooseFile(f.folder.filePath("part 2.5"));
    f.window->room<ExportRoom>().actions().exportFile->trigger();
    QVERIFY(f.settle());
    QVERIFY2(QFileInfo::exists(f.folder.filePath("part 2.5.dxf")), qPrintable(f.window->sentence()));
    chooseFile(f.folder.filePath("part 2.5"));
    f.window->actions().saveAs->trigger();
    QVERIFY(f.settle());
    QVERIFY(io::isJobFile(f.folder.filePath("part 2.5.snugrim").toStdString()));
    // What is there already is replaced only when that is wanted.
    const QDateTime written = QFileInfo(f.folder.filePath("part 2.5.dxf")).lastModified();
    QFile old(f.folder.filePath("part 2.5.dxf"));
    QVERIFY(old.open(QIODevice::WriteOnly));
    old.write("old");
    old.close();
    chooseFile(f.folder.filePath("part 2.5"));
    answerWith(QMessageBox::AcceptRole);
    f.window->room<ExportRoom>().actions().exportFile->trigger();
    QVERIFY(f.settle());
    QVERIFY(QFileInfo(f.folder.filePath("part 2.5.dxf")).size() > 100);
    QVERIFY(written.isValid());
  }

  void lightAndDarkShowWhatWasMended() {
    WindowFixture f;
    f.window->openFile(demoFile("spool-plate.dxf"));
    QVERIFY(QTest::qWaitFor([&f] { return f.job().drawing != nullptr && f.session().findings(); }, kPatienceMs));
    f.window->room<MendRoom>().actions().takeProposals->trigger();
    QVERIFY(f.settle());
    QVERIFY(f.job().mended && f.job().mended->outlines.size() < f.job().tracing->outlines.size());
    const QImage before = f.window->bench().grab().toImage();
    f.window->actions().appearance->actions()[static_cast<int>(Appearance::Dark)]->trigger();
    f.window->actions().appearance->actions()[static_cast<int>(Appearance::Light)]->trigger();
    QCOMPARE(f.window->bench().grab().toImage(), before);
  }

  void whatBelongsToAnotherPictureIsDropped() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    int foreign = 0;
    std::size_t last = 0;
    QObject::connect(&f.session(), &Session::bordersFollowed, [&](const std::shared_ptr<const Borders>& borders, int) {
      for (const trace::contour::Border& border : *borders) {
        for (const Point p : border) foreign += p.x > f.job().original.width() + 1 ? 1 : 0;
      }
      last = borders->size();
    });
    // The large picture is overtaken while its borders are on their way.
    for (int round = 0; round < 3; ++round) {
      f.session().open(largePicture(f.folder));
      QVERIFY(QTest::qWaitFor([&f] { return f.job().original.name == "large.png"; }, kPatienceMs));
      f.session().undo();
      f.session().edit("t", {}, [round](job::Job& job) { job.trace.threshold = 100 + round; });
      QVERIFY(f.settle());
    }
    QCOMPARE(foreign, 0);
    QVERIFY(last > 0);
  }

  void aPageComesOnlyToItsOwnPicture() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    QVERIFY(f.open(testPicture("two-pages.tif")));
    f.session().openPage(2);
    f.session().undo();  // back to the badge while the page is on its way
    QCOMPARE(f.job().original.name, std::string("badge.png"));
    QVERIFY(f.settle());
    QCOMPARE(f.job().original.name, std::string("badge.png"));
    QCOMPARE(f.job().original.page, 1);
  }

  void whatMakesItTraceableOverwritesNothingNewer() {
    WindowFixture f;
    f.window->showStep(Step::Picture);
    QVERIFY(f.open(demoFile("window-card-photo.jpg")));
    QStringList busy;
    QObject::connect(&f.session(), &Session::busyChanged, [&](const QString& what, double) { busy << what; });
    f.window->room<PictureRoom>().actions().traceable->trigger();
    QVERIFY(f.session().busy());
    QVERIFY(busy.last().contains("Looking at the picture"));
    thicken(f, 3);
    QVERIFY(f.settle());
    QCOMPARE(f.job().preparation, (std::vector<picture::PreparationStep>{{picture::Thicken{3}}}));
    QVERIFY2(f.window->sentence().contains("in the meantime"), qPrintable(f.window->sentence()));
    // It can be cancelled as well.
    f.window->actions().undo->trigger();
    QVERIFY(f.settle());
    f.window->room<PictureRoom>().actions().traceable->trigger();
    QTest::keyClick(&f.window->bench(), Qt::Key_Escape);
    QVERIFY(!f.session().busy());
    QVERIFY(f.job().preparation.empty());
  }

  void eachButtonEndsOnlyWhatItBegan() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    Bench& bench = f.window->bench();
    BrushTool brush(f.window.get());
    int strokes = 0;
    QObject::connect(&brush, &BrushTool::swept,
                     [&](const picture::BrushStroke& s) { strokes += s.places.size() > 2 ? 1 : 0; });
    bench.setTool(&brush);
    const QPoint middle = bench.rect().center();
    QTest::mousePress(&bench, Qt::LeftButton, {}, middle);
    QTest::mouseMove(&bench, middle + QPoint(20, 0));
    QTest::mousePress(&bench, Qt::MiddleButton, {}, middle + QPoint(20, 0));
    QTest::mouseRelease(&bench, Qt::MiddleButton, {}, middle + QPoint(20, 0));
    QTest::mouseRelease(&bench, Qt::RightButton, {}, middle + QPoint(20, 0));
    QCOMPARE(strokes, 0);
    QTest::mouseMove(&bench, middle + QPoint(40, 0));
    QTest::mouseRelease(&bench, Qt::LeftButton, {}, middle + QPoint(40, 0));
    QCOMPARE(strokes, 1);
    bench.setTool(nullptr);
    // Panning with the middle button goes on when another one is released.
    const Viewport before = bench.viewport();
    QTest::mousePress(&bench, Qt::MiddleButton, {}, middle);
    QTest::mouseRelease(&bench, Qt::RightButton, {}, middle);
    QTest::mouseMove(&bench, middle + QPoint(30, 10));
    QVERIFY(bench.viewport().origin != before.origin);
    QTest::mouseRelease(&bench, Qt::MiddleButton, {}, middle + QPoint(30, 10));
  }

  void spaceDuringASweepIsHarmless() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.png")));
    Bench& bench = f.window->bench();
    SweepTool sweep(f.window.get());
    std::vector<colour::SweepInks> swept;
    QObject::connect(&sweep, &SweepTool::swept, [&](const colour::SweepInks& s) { swept.push_back(s); });
    bench.setTool(&sweep);
    const QPoint middle = bench.rect().center();
    QTest::mousePress(&bench, Qt::LeftButton, {}, middle);
    QTest::keyClick(&bench, Qt::Key_Space);
    QTest::keyClick(&bench, Qt::Key_Space);
    QTest::mouseMove(&bench, middle + QPoint(25, 0));
    QTest::mouseRelease(&bench, Qt::LeftButton, {}, middle + QPoint(25, 0));
    QCOMPARE(swept.size(), std::size_t{1});
    QVERIFY(!swept[0].way.empty());
    bench.setTool(nullptr);
  }

  void cancelledLoadsHoldUpNothing() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const QString large = largePicture(f.folder);
    for (int i = 0; i < 6; ++i) {
      f.session().open(large);
      f.session().cancel();
    }
    QVERIFY(!f.session().busy());
    f.session().saveTo(f.folder.filePath("a.snugrim"));
    QVERIFY(f.settle());
    QVERIFY(io::isJobFile(f.folder.filePath("a.snugrim").toStdString()));
    QCOMPARE(f.job().original.name, std::string("badge.png"));
  }

  void theTypedSizeIsThatOfWhatIsLeftAfterMending() {
    WindowFixture f;
    f.window->openFile(demoFile("spool-plate.dxf"));
    QVERIFY(QTest::qWaitFor([&f] { return f.job().drawing != nullptr && f.session().findings(); }, kPatienceMs));
    f.session().edit("Drop", {}, [](job::Job& job) {
      job.mend.steps.push_back({mend::MendStep::What::Kind, mend::FindingKind::Stray, {}, "drop"});
    });
    QVERIFY(f.settle());
    f.session().edit("Width", {}, [](job::Job& job) { job.size = {job::SizeWish::Of::OutlinesWidth, 100}; });
    QVERIFY(f.settle());
    const Drawing drawing = job::drawingOf(f.job());
    QVERIFY(std::abs(boxOf(pathsOf(drawing)).width() - 100) < 1e-6);
    // Findings lie in the same drawing.
    QVERIFY(QTest::qWaitFor([&f] { return f.session().findings() != nullptr; }, kPatienceMs));
    const Box box = boxOf(pathsOf(drawing));
    for (const mend::Finding& finding : *f.session().findings()) QVERIFY(box.contains(finding.at));
  }
};

RIM_TEST(TestNothingLost)
#include "tst_nothing_lost.moc"
