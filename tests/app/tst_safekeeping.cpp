// What is in no file yet is kept, and offered when its window ended without saving it.

#include <QDir>
#include <QFile>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>

#include "app/job_lock.h"
#include "app/safekeeping.h"
#include "core/io/job/job_file.h"
#include "core/io/job/kept_work.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

QStringList keptFolders(const QString& state) {
  QStringList kept;
  for (const QFileInfo& folder : QDir(state + "/snugrim/kept").entryInfoList(QDir::Dirs | QDir::NoDotAndDotDot)) {
    if (io::keptNoteIn(folder.absoluteFilePath().toStdString())) kept << folder.absoluteFilePath();
  }
  return kept;
}

bool isKept(const QString& state, const std::string& origin) {
  return QTest::qWaitFor(
      [&] {
        for (const QString& folder : keptFolders(state)) {
          if (io::loadKept(folder.toStdString()).origin == origin) return true;
        }
        return false;
      },
      kPatienceMs);
}

void note(WindowFixture& f, const std::string& text) {
  f.session().edit("Note", {}, [&text](job::Job& job) { job.origin = text; });
}

}  // namespace

class TestSafekeeping : public QObject {
  Q_OBJECT

 private slots:
  void workIsKeptAndOfferedAgain() {
    QTemporaryDir state;
    {
      WindowFixture f(false, state.path());
      QVERIFY(f.open(demoFile("badge.png")));
      QVERIFY2(keptFolders(state.path()).isEmpty(), "what was only opened is lost by nothing");
      thicken(f, 2);
      note(f, "ours");
      QVERIFY(f.settle());
      QVERIFY(isKept(state.path(), "ours"));
      // The window ends without having been closed.
    }
    WindowFixture f(false, state.path());
    auto* bring = f.window->findChild<QPushButton*>("bringBack");
    QVERIFY(bring != nullptr && bring->isVisible());
    bring->click();
    QVERIFY(QTest::qWaitFor([&f] { return f.session().hasWork() && f.session().upToDate(); }, kPatienceMs));
    QCOMPARE(f.job().origin, std::string("ours"));
    QCOMPARE(f.job().preparation, (std::vector<picture::PreparationStep>{{picture::Thicken{2}}}));
    QVERIFY2(f.session().modified(), "it is in no file yet");
    QVERIFY(f.session().jobFile().isEmpty());
    // It is kept for this window now, and no longer for the other.
    QVERIFY(QTest::qWaitFor([&] { return keptFolders(state.path()).size() == 1; }, kPatienceMs));
    QVERIFY(isKept(state.path(), "ours"));
    // Saved, nothing has to be kept.
    f.session().saveTo(f.folder.filePath("job.snugrim"));
    QVERIFY(f.settle());
    QVERIFY(!f.session().modified());
    QVERIFY(QTest::qWaitFor([&] { return keptFolders(state.path()).isEmpty(); }, kPatienceMs));
  }

  void workOnASavedJobKnowsItsFile() {
    QTemporaryDir state;
    QTemporaryDir folder;
    const QString file = folder.filePath("card.snugrim");
    {
      WindowFixture f(false, state.path());
      QVERIFY(f.open(demoFile("window-card.png")));
      f.session().saveTo(file);
      QVERIFY(f.settle());
      note(f, "later");
      QVERIFY(isKept(state.path(), "later"));
    }
    WindowFixture f(false, state.path());
    // From the menu, too.
    QMenu* menu = nullptr;
    for (QMenu* one : f.window->findChildren<QMenu*>()) {
      if (one->title() == "Bring &back") menu = one;
    }
    QVERIFY(menu != nullptr);
    emit menu->aboutToShow();
    QCOMPARE(menu->actions().size(), 1);
    menu->actions().first()->trigger();
    QVERIFY(QTest::qWaitFor([&f] { return f.session().hasWork() && f.session().upToDate(); }, kPatienceMs));
    QCOMPARE(f.session().jobFile(), file);
    QVERIFY(f.session().modified());
    f.window->actions().save->trigger();
    QVERIFY(f.settle());
    QCOMPARE(io::loadJob(file.toStdString()).origin, std::string("later"));
  }

  void aDrawingIsKeptToo() {
    QTemporaryDir state;
    std::shared_ptr<const Drawing> before;
    {
      WindowFixture f(false, state.path());
      QVERIFY(f.openDrawing(demoFile("spool-plate.dxf")));
      before = f.job().drawing;
      note(f, "plate");
      QVERIFY(isKept(state.path(), "plate"));
    }
    WindowFixture f(false, state.path());
    f.window->findChild<QPushButton*>("bringBack")->click();
    QVERIFY(QTest::qWaitFor([&f] { return f.job().drawing && f.session().upToDate(); }, kPatienceMs));
    QCOMPARE(f.job().drawing->outlines.size(), before->outlines.size());
    for (std::size_t i = 0; i < before->outlines.size(); ++i) QCOMPARE(f.job().drawing->path(i), before->path(i));
  }

  void windowsDoNotOfferEachOthersWork() {
    QTemporaryDir state;
    WindowFixture first(false, state.path());
    QVERIFY(first.open(demoFile("badge.png")));
    note(first, "first");
    QVERIFY(isKept(state.path(), "first"));
    WindowFixture second(false, state.path());
    QVERIFY(second.window->findChild<QPushButton*>("bringBack") == nullptr);
    QVERIFY(second.open(demoFile("window-card.png")));
    note(second, "second");
    QVERIFY(isKept(state.path(), "second") && isKept(state.path(), "first"));
  }

  void closingWellLeavesNothing() {
    QTemporaryDir state;
    {
      WindowFixture f(false, state.path());
      QVERIFY(f.open(demoFile("badge.png")));
      note(f, "gone");
      QVERIFY(isKept(state.path(), "gone"));
      answer(QMessageBox::Discard);
      f.window->close();
    }
    QVERIFY(keptFolders(state.path()).isEmpty());
  }

  void closingWhileItIsBeingWrittenLeavesNothingEither() {
    QTemporaryDir state;
    for (const int waited : {998, 1000, 1003, 1010}) {
      WindowFixture f(false, state.path());
      QVERIFY(f.open(demoFile("badge.png")));
      note(f, "gone");
      QTest::qWait(waited);  // what is changed is written a second later
      answer(QMessageBox::Discard);
      f.window->close();
      QVERIFY(keptFolders(state.path()).isEmpty());
    }
  }

  void whatIsLetGoIsGone() {
    QTemporaryDir state;
    {
      WindowFixture f(false, state.path());
      QVERIFY(f.open(demoFile("badge.png")));
      note(f, "x");
      QVERIFY(isKept(state.path(), "x"));
    }
    WindowFixture f(false, state.path());
    answerWith(QMessageBox::AcceptRole);
    f.window->findChild<QPushButton*>("letGo")->click();
    QVERIFY(keptFolders(state.path()).isEmpty());
    QVERIFY(!f.window->findChild<QWidget*>("leftWork")->isVisible());
  }

  void whatIsDamagedIsToldAndNotOffered() {
    QTemporaryDir state;
    {
      WindowFixture f(false, state.path());
      QVERIFY(f.open(demoFile("badge.png")));
      note(f, "x");
      QVERIFY(isKept(state.path(), "x"));
    }
    const QString folder = keptFolders(state.path()).first();
    for (const QFileInfo& file : QDir(folder).entryInfoList({"*.snugrim"}, QDir::Files)) {
      QFile picture(file.absoluteFilePath());
      QVERIFY(picture.resize(100));
    }
    WindowFixture f(false, state.path());
    f.window->findChild<QPushButton*>("bringBack")->click();
    QVERIFY(QTest::qWaitFor([&f] { return f.window->sentence().contains("cannot be brought back"); }, kPatienceMs));
    QVERIFY(!f.session().hasWork());
    // Cut off, what was decided says nothing any more.
    QFile decided(folder + "/decisions.json");
    QVERIFY(decided.resize(20));
    QVERIFY(keptFolders(state.path()).isEmpty());
  }

  void whatCannotBeKeptIsToldOnce() {
    QTemporaryDir state;
    QFile inTheWay(state.filePath("snugrim"));
    QVERIFY(inTheWay.open(QIODevice::WriteOnly));  // where the folder should be
    WindowFixture f(false, state.path());
    QVERIFY(f.open(demoFile("badge.png")));
    note(f, "x");
    QVERIFY(QTest::qWaitFor([&f] { return f.window->sentence().contains("cannot be kept"); }, kPatienceMs));
  }

  void twoWindowsOnOneJobAreTold() {
    QTemporaryDir state;
    QTemporaryDir folder;
    const QString file = folder.filePath("job.snugrim");
    WindowFixture first(false, state.path());
    QVERIFY(first.open(demoFile("badge.png")));
    first.session().saveTo(file);
    QVERIFY(first.settle());
    // As another process would hold it.
    JobLock other(state.path() + "/snugrim/open");
    QVERIFY(!other.hold(file));
    QVERIFY(!other.isOurs());
    WindowFixture second(false, state.path());
    QVERIFY(second.open(file));
    QVERIFY2(second.window->sentence().contains("another window"), qPrintable(second.window->sentence()));
    // Saving asks; over it only when that is meant.
    note(second, "second");
    answerWith(QMessageBox::AcceptRole);
    second.window->actions().save->trigger();
    QVERIFY(second.settle());
    QCOMPARE(io::loadJob(file.toStdString()).origin, std::string("second"));
  }
};

RIM_TEST(TestSafekeeping)
#include "tst_safekeeping.moc"
