// Decisions of the Mend step and drawings in a job file.

#include <QTemporaryDir>
#include <QTest>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/job/job_file.h"
#include "core/io/job/mend_json.h"
#include "core/job/faults.h"
#include "core/job/stages.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

mend::MendWork sampleWork() {
  mend::MendWork work;
  work.settings.gapMm = 0.8;
  work.settings.speckMm = 1.5;
  work.steps = {{mend::MendStep::What::Safe, {}, {}, {}},
                {mend::MendStep::What::Kind, mend::FindingKind::OpenEnd, {}, "join"},
                {mend::MendStep::What::One, mend::FindingKind::StrokePair, {12.25, -3.5}, "centre"},
                {mend::MendStep::What::Leave, mend::FindingKind::Speck, {7, 8}, {}}};
  return work;
}

}  // namespace

class TestMendJson : public QObject {
  Q_OBJECT

 private slots:
  void whatIsWrittenComesBack() { QVERIFY(io::mendWorkFrom(io::toJson(sampleWork())) == sampleWork()); }

  void nonsenseIsTold_data() {
    QTest::addColumn<QString>("pointer");
    QTest::addColumn<QByteArray>("value");
    QTest::newRow("negative gap") << "/gap-mm" << QByteArray("-1");
    QTest::newRow("a gap in words") << "/gap-mm" << QByteArray("\"wide\"");
    QTest::newRow("unknown decision") << "/steps/0/what" << QByteArray("\"maybe\"");
    QTest::newRow("unknown kind") << "/steps/1/kind" << QByteArray("\"hole\"");
    QTest::newRow("no place") << "/steps/2/x" << QByteArray("null");
    QTest::newRow("too far") << "/steps/2/y" << QByteArray("1e300");
  }
  void nonsenseIsTold() {
    QFETCH(QString, pointer);
    QFETCH(QByteArray, value);
    nlohmann::json json = io::toJson(sampleWork());
    json[nlohmann::json::json_pointer(pointer.toStdString())] = nlohmann::json::parse(value.toStdString());
    QVERIFY_THROWS_EXCEPTION(InputError, io::mendWorkFrom(json));
  }

  void aJobOnADrawingIsKeptWithItsDecisions() {
    std::mt19937 random(9);
    Drawing drawing = takenApart(plate(random), random);
    job::Job job = job::jobOn(drawing, "plate.dxf");
    job.mend.steps = {{mend::MendStep::What::Safe, {}, {}, {}}};
    job = job::workedOut(std::move(job));
    QVERIFY(job::hasOutlines(job));
    const QTemporaryDir folder;
    const std::filesystem::path file = folder.filePath("plate.snugrim").toStdString();
    io::saveJob(job, file);
    job::Job loaded = io::loadJob(file);
    QVERIFY(loaded.drawing && loaded.original.empty());
    QCOMPARE(loaded.original.name, std::string("plate.dxf"));
    QVERIFY(loaded.mend == job.mend);
    QVERIFY(!job::hasOutlines(loaded));
    loaded = job::workedOut(std::move(loaded));
    QCOMPARE(job::outlinesOf(loaded)->outlines.size(), 8U);
    QVERIFY(std::abs(totalLength(pathsOf(job::drawingOf(loaded))) - totalLength(pathsOf(job::drawingOf(job)))) < 0.01);
    QVERIFY(job::faultsOf(loaded).ofMended.empty());
  }

  void theSizeOfADrawingCanBeWished() {
    std::mt19937 random(9);
    job::Job job = job::jobOn(plate(random), "plate.dxf");
    QCOMPARE(job::mmPerPixel(job), 1.0);
    job.size = {job::SizeWish::Of::OutlinesWidth, 60};
    QVERIFY(std::abs(boxOf(pathsOf(job::drawingOf(job))).width() - 60) < 1e-9);
    QVERIFY(std::abs(boxOf(pathsOf(job::drawingOf(job))).height() - 40) < 1e-9);
  }

  void decisionsHoldInMillimetresOfTheWishedSize() {
    Drawing drawing;
    setPaths(drawing, {{{0, 0}, {Segment::line({40, 0})}, false},
                       {{40.3, 0}, {Segment::line({40.3, 30}), Segment::line({0, 0})}, false}});
    job::Job job = job::jobOn(drawing, "gap.svg");
    job.mend.steps = {{mend::MendStep::What::Kind, mend::FindingKind::OpenEnd, {}, "join"}};
    QCOMPARE(countsOf(pathsOf(*job::outlinesOf(job::withMending(job)))).open, 0U);
    // Four times as large the gap is 1.2 mm wide and stays.
    job.size = {job::SizeWish::Of::OutlinesWidth, 161.2};
    QCOMPARE(countsOf(pathsOf(*job::outlinesOf(job::withMending(job)))).open, 1U);
  }
};

RIM_TEST(TestMendJson)
#include "tst_mend_json.moc"
