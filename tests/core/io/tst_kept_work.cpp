// Work that is in no file yet, kept in a folder: picture and decisions fit each other at every moment.

#include <QDir>
#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include "core/error.h"
#include "core/io/job/job_file.h"
#include "core/io/job/kept_work.h"
#include "support/pictures.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

job::Job jobNamed(const std::string& name, double radius) {
  picture::Picture picture = pictureOf(drawn(60, 40, disc(30, 20, radius)));
  picture.name = name;
  job::Job job = job::jobOn(std::move(picture));
  job.trace.tolerancePx = 0.5;
  job.refine.push_back(refine::Rotate{30});
  return job;
}

int picturesIn(const QString& folder) { return static_cast<int>(QDir(folder).entryList({"*.snugrim"}).size()); }

}  // namespace

class TestKeptWork : public QObject {
  Q_OBJECT

 private slots:
  void whatIsKeptComesBack() {
    const QTemporaryDir folder;
    const std::filesystem::path path = folder.filePath("mine").toStdString();
    io::WorkKeeper keeper(path);
    QVERIFY(!io::keptNoteIn(path).has_value());
    job::Job job = jobNamed("a.png", 12);
    keeper.keep(job, {"a.png", "/tmp/a b.snugrim"});
    job.origin = "later";
    job.refine.push_back(refine::Rotate{40});
    keeper.keep(job, {"a.png", "/tmp/a b.snugrim"});
    QCOMPARE(picturesIn(folder.filePath("mine")), 1);
    QCOMPARE(*io::keptNoteIn(path), (io::KeptNote{"a.png", "/tmp/a b.snugrim"}));
    QVERIFY(std::filesystem::file_time_type::clock::now() - io::keptAt(path) < std::chrono::minutes(1));
    const job::Job kept = io::loadKept(path);
    QCOMPARE(kept.origin, std::string("later"));
    QVERIFY2(kept.refine == job.refine, "each step once");
    QCOMPARE(kept.trace.tolerancePx, 0.5);
    QCOMPARE(cv::countNonZero(*kept.original.grey != *job.original.grey), 0);
    keeper.forget();
    QVERIFY(!io::keptNoteIn(path).has_value());
    QVERIFY_THROWS_EXCEPTION(InputError, io::loadKept(path));
  }

  void thePictureIsWrittenOnce() {
    const QTemporaryDir folder;
    io::WorkKeeper keeper(folder.path().toStdString());
    job::Job job = jobNamed("a.png", 12);
    keeper.keep(job, {"a.png", {}});
    const QString file = QDir(folder.path()).entryInfoList({"*.snugrim"}).first().absoluteFilePath();
    QFile picture(file);
    QVERIFY(picture.open(QIODevice::ReadOnly));
    const QByteArray before = picture.readAll();
    picture.close();
    const QDateTime written = QFileInfo(file).lastModified();
    job.origin = "edited later on";
    QTest::qWait(20);
    keeper.keep(job, {"a.png", {}});
    QCOMPARE(QFileInfo(file).lastModified(), written);
    // Another picture takes its place, with what was decided about it.
    keeper.keep(jobNamed("b.png", 9), {"b.png", {}});
    QCOMPARE(picturesIn(folder.path()), 1);
    QCOMPARE(io::keptNoteIn(folder.path().toStdString())->name, std::string("b.png"));
    QCOMPARE(io::loadKept(folder.path().toStdString()).original.name, std::string("b.png"));
    QVERIFY(!before.isEmpty());
  }

  void drawingsAreKeptWithoutLoss() {
    const QTemporaryDir folder;
    const job::Job job = job::jobOn(makeDrawing({polygonThrough({{0, 0}, {1.0 / 3, 0}, {0, 7.1}})}), "plate.dxf");
    io::WorkKeeper(folder.path().toStdString()).keep(job, {"plate.dxf", {}});
    QCOMPARE(io::loadKept(folder.path().toStdString()).drawing->path(0), job.drawing->path(0));
  }

  void whatIsDamagedIsNoWork_data() {
    QTest::addColumn<QByteArray>("text");
    QTest::newRow("nothing") << QByteArray();
    QTest::newRow("cut off") << QByteArray("{\"picture\": \"wo");
    QTest::newRow("a list") << QByteArray("[1, 2]");
    QTest::newRow("numbers for texts") << QByteArray(R"({"picture": 1, "name": 2, "file": 3, "decided": 4})");
    QTest::newRow("elsewhere") << QByteArray(
        R"({"picture": "../work-1.snugrim", "name": "x", "file": "", "decided": "{}"})");
    QTest::newRow("a picture that is gone")
        << QByteArray(R"({"picture": "work-9.snugrim", "name": "x", "file": "", "decided": "{}"})");
  }
  void whatIsDamagedIsNoWork() {
    QFETCH(QByteArray, text);
    const QTemporaryDir folder;
    const std::filesystem::path path = folder.path().toStdString();
    io::WorkKeeper(path).keep(jobNamed("a.png", 12), {"a.png", {}});
    QFile decisions(folder.filePath("decisions.json"));
    QVERIFY(decisions.open(QIODevice::WriteOnly));
    decisions.write(text);
    decisions.close();
    QVERIFY(!io::keptNoteIn(path).has_value());
    QVERIFY_THROWS_EXCEPTION(InputError, io::loadKept(path));
  }

  void whereNothingCanBeWrittenThatIsSaid() {
    const QTemporaryDir folder;
    QFile inTheWay(folder.filePath("file"));
    QVERIFY(inTheWay.open(QIODevice::WriteOnly));
    io::WorkKeeper keeper(folder.filePath("file/below").toStdString());
    QVERIFY_THROWS_EXCEPTION(WriteError, keeper.keep(jobNamed("a.png", 12), {"a.png", {}}));
  }
};

RIM_TEST(TestKeptWork)
#include "tst_kept_work.moc"
