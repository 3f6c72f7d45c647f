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

MendWork sampleWork() {
  MendWork work;
  work.settings.gapMm = 0.8;
  work.settings.speckMm = 1.5;
  work.steps = {{MendStep::What::Safe, {}, {}, {}},
                {MendStep::What::Kind, FindingKind::OpenEnd, {}, "join"},
                {MendStep::What::One, FindingKind::StrokePair, {12.25, -3.5}, "centre"},
                {MendStep::What::Leave, FindingKind::Speck, {7, 8}, {}}};
  return work;
}

}  // namespace

class TestMendJson : public QObject {
  Q_OBJECT

 private slots:
  void whatIsWrittenComesBack() { QVERIFY(mendWorkFrom(toJson(sampleWork())) == sampleWork()); }

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
    nlohmann::json json = toJson(sampleWork());
    json[nlohmann::json::json_pointer(pointer.toStdString())] = nlohmann::json::parse(value.toStdString());
    QVERIFY_THROWS_EXCEPTION(InputError, mendWorkFrom(json));
  }

  void aJobOnADrawingIsKeptWithItsDecisions() {
    std::mt19937 random(9);
    Drawing drawing = takenApart(plate(random), random);
    Job job = jobOn(drawing, "plate.dxf");
    job.mend.steps = {{MendStep::What::Safe, {}, {}, {}}};
    job = workedOut(std::move(job));
    QVERIFY(hasOutlines(job));
    const QTemporaryDir folder;
    const std::filesystem::path file = folder.filePath("plate.snugrim").toStdString();
    saveJob(job, file);
    Job loaded = loadJob(file);
    QVERIFY(loaded.drawing && loaded.original.empty());
    QCOMPARE(loaded.original.name, std::string("plate.dxf"));
    QVERIFY(loaded.mend == job.mend);
    QVERIFY(!hasOutlines(loaded));
    loaded = workedOut(std::move(loaded));
    QCOMPARE(outlinesOf(loaded)->outlines.size(), 8U);
    QVERIFY(std::abs(totalLength(pathsOf(drawingOf(loaded))) - totalLength(pathsOf(drawingOf(job)))) < 0.01);
    QVERIFY(faultsOf(loaded).ofMended.empty());
  }

  void theSizeOfADrawingCanBeWished() {
    std::mt19937 random(9);
    Job job = jobOn(plate(random), "plate.dxf");
    QCOMPARE(mmPerPixel(job), 1.0);
    job.size = {SizeWish::Of::OutlinesWidth, 60};
    QVERIFY(std::abs(boxOf(pathsOf(drawingOf(job))).width() - 60) < 1e-9);
    QVERIFY(std::abs(boxOf(pathsOf(drawingOf(job))).height() - 40) < 1e-9);
  }

  void decisionsHoldInMillimetresOfTheWishedSize() {
    Drawing drawing;
    setPaths(drawing, {{{0, 0}, {Segment::line({40, 0})}, false},
                       {{40.3, 0}, {Segment::line({40.3, 30}), Segment::line({0, 0})}, false}});
    Job job = jobOn(drawing, "gap.svg");
    job.mend.steps = {{MendStep::What::Kind, FindingKind::OpenEnd, {}, "join"}};
    QCOMPARE(countsOf(pathsOf(*outlinesOf(withMending(job)))).open, 0U);
    // Four times as large the gap is 1.2 mm wide and stays.
    job.size = {SizeWish::Of::OutlinesWidth, 161.2};
    QCOMPARE(countsOf(pathsOf(*outlinesOf(withMending(job)))).open, 1U);
  }
};

RIM_TEST(TestMendJson)
#include "tst_mend_json.moc"
