// Saving and opening jobs in the window, closing with changes, pages of a document.

#include <QFileDialog>
#include <QMessageBox>
#include <QPushButton>
#include <QSpinBox>
#include <QTimer>

#include "core/io/job/job_file.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

class TestKeeping : public QObject {
  Q_OBJECT

 private slots:
  void aJobIsSavedAndOpenedAgain() {
    WindowFixture f;
    const QString file = f.folder.filePath("job.snugrim");
    QVERIFY(f.open(demoFile("badge.png")));
    QVERIFY(!f.session().modified() && !f.window->isWindowModified());
    thicken(f, 2);
    QVERIFY(f.settle());
    QVERIFY(f.session().modified() && f.window->isWindowModified());
    f.session().saveTo(file);
    QVERIFY(f.settle());
    QVERIFY(!f.session().modified() && !f.window->isWindowModified());
    QVERIFY(f.window->windowTitle().startsWith("job.snugrim"));
    const std::size_t outlines = f.job().tracing->outlines.size();
    // Ctrl+S saves to the same file without asking.
    f.session().edit("Note", {}, [](job::Job& job) { job.origin = "our own drawing"; });
    f.window->actions().save->trigger();
    QVERIFY(f.settle());
    QVERIFY(!f.session().modified());

    WindowFixture other;
    QVERIFY(other.open(file));
    QCOMPARE(other.job().preparation, (std::vector<picture::PreparationStep>{{picture::Thicken{2}}}));
    QCOMPARE(other.job().origin, std::string("our own drawing"));
    QCOMPARE(other.job().tracing->outlines.size(), outlines);
    QVERIFY(!other.session().modified());
    QCOMPARE(loadPreferences().recentFiles.first(), file);
  }

  void anotherPictureIsNotSavedOverTheJob() {
    WindowFixture f;
    const QString file = f.folder.filePath("job.snugrim");
    QVERIFY(f.open(demoFile("badge.png")));
    f.session().saveTo(file);
    QVERIFY(f.settle());
    QVERIFY(f.open(demoFile("window-card.png")));
    QVERIFY(f.session().jobFile().isEmpty());
    QCOMPARE(io::loadJob(file.toStdString()).original.name, std::string("badge.png"));
  }

  void aDamagedJobIsToldAndTheOldOneStays() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const QString file = f.folder.filePath("cut.snugrim");
    f.session().saveTo(file);
    QVERIFY(f.settle());
    QFile cut(file);
    QVERIFY(cut.resize(cut.size() / 2));
    f.window->openFile(file);
    QVERIFY(f.settle());
    QVERIFY2(f.window->sentence().contains("cut.snugrim"), qPrintable(f.window->sentence()));
    QCOMPARE(f.job().original.name, std::string("badge.png"));
  }

  void closingAsksAboutChanges() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    thicken(f, 1);
    QVERIFY(f.settle());
    answer(QMessageBox::Cancel);
    QVERIFY(!f.window->close());
    QVERIFY(f.window->isVisible());
    // Saving first, closing then.
    const QString file = f.folder.filePath("job.snugrim");
    f.session().saveTo(file);
    QVERIFY(f.settle());
    thicken(f, 2);
    QVERIFY(f.settle());
    answer(QMessageBox::Save);
    QVERIFY(!f.window->close());
    QVERIFY(QTest::qWaitFor([&f] { return !f.window->isVisible(); }, kPatienceMs));
    QCOMPARE(io::loadJob(file.toStdString()).preparation.size(), std::size_t{2});
    f.window->show();
    thicken(f, 3);
    answer(QMessageBox::Discard);
    QVERIFY(f.window->close());
    QCOMPARE(io::loadJob(file.toStdString()).preparation.size(), std::size_t{2});
  }

  void anotherPageOfADocumentIsOneStep() {
    WindowFixture f;
    f.window->showStep(Step::Picture);
    QVERIFY(f.open(testPicture("two-pages.tif")));
    auto* page = f.find<QSpinBox>("page");
    QVERIFY(page->isVisible());
    QCOMPARE(page->maximum(), 2);
    QCOMPARE(f.job().picture.width(), 400);
    thicken(f, 1);
    f.session().edit("Crop", {}, [](job::Job& job) { job.preparation.push_back({picture::Crop{0, 0, 300, 200}}); });
    QVERIFY(f.settle());
    page->setValue(2);
    QVERIFY(f.settle());
    QCOMPARE(f.job().picture.width(), 200);
    // What was measured for the first page does not fit the second, what was chosen does.
    QCOMPARE(f.job().preparation, (std::vector<picture::PreparationStep>{{picture::Thicken{1}}}));
    QCOMPARE(f.job().tracing->outlines.size(), std::size_t{1});
    f.window->actions().undo->trigger();
    QVERIFY(f.settle());
    QCOMPARE(f.job().picture.width(), 300);
    QCOMPARE(page->value(), 1);
    answer(QMessageBox::Discard);
    QVERIFY(f.open(demoFile("badge.png")));
    QVERIFY(!page->isVisible());
  }
};

RIM_TEST(TestKeeping)
#include "tst_keeping.moc"
