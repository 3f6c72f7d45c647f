// What helps to place and to compare comes back with the job: guides and reference copies.

#include <QDir>
#include <QTemporaryDir>
#include <QTest>

#include "core/error.h"
#include "core/io/common/zip.h"
#include "core/io/job/job_file.h"
#include "core/io/job/kept_work.h"
#include "core/job/stages.h"
#include "support/drawings.h"
#include "support/pictures.h"
#include "support/test_list.h"
#include "support/zip_parts.h"

using namespace rim;
using namespace rim::test;

namespace {

std::string textOf(const std::vector<std::byte>& bytes) {
  return {reinterpret_cast<const char*>(bytes.data()), bytes.size()};
}

}  // namespace

class TestJobAids : public QObject {
  Q_OBJECT

 private slots:
  void init() {
    folder_ = std::make_unique<QTemporaryDir>();
    file_ = folder_->filePath("a.snugrim").toStdString();
  }

  void theyComeBack() {
    job::Job job = job::workedOut(job::jobOn(pictureOf(drawn(60, 48, ring(30, 24, 18, 9)))));
    job.guides = {{true, 12.3456789}, {false, -7}};
    job.references = {{"as traced – ☂", job.tracing, true}, {"", job.tracing, false}};
    io::saveJob(job, file_);
    const job::Job back = io::loadJob(file_);
    QVERIFY(back.guides == job.guides);
    QCOMPARE(back.references.size(), 2U);
    QCOMPARE(back.references[0].name, job.references[0].name);
    QVERIFY(back.references[0].shown && !back.references[1].shown);
    QVERIFY(back.references[0].outlines->outlines == job.tracing->outlines);
    QCOMPARE(back.references[0].outlines->frame, Frame::Pixels);
    // And with work that is only kept.
    io::WorkKeeper keeper(folder_->filePath("kept").toStdString());
    keeper.keep(job, {"a", {}});
    const job::Job kept = io::loadKept(folder_->filePath("kept").toStdString());
    QVERIFY(kept.guides == job.guides && kept.references.size() == 2);
    // They are no outlines: nothing of them is in the part for other programs.
    job::Job plain = job;
    plain.guides.clear();
    plain.references.clear();
    QVERIFY(!job::sameWork(plain, job));
    const auto outlines = [this] { return io::readZip(file_, {"outlines.svg"}, 1'000'000).at("outlines.svg"); };
    const auto with = outlines();
    io::saveJob(plain, file_);
    QVERIFY(outlines() == with);
    QVERIFY(job::forOthers(job).guides.empty() && job::forOthers(job).references.empty());
  }

  void jobsOfTheSeventhVersionAreOpened() {
    job::Job job = job::jobOn(makeDrawing({polygonThrough({{0, 0}, {30, 0}, {30, 20}, {0, 20}})}), "plate.dxf");
    job.stock = job::Stock{90, 60, {1, 2}};
    const job::Job back = withSettings(job, "\"snugrim-job\": 8", "\"snugrim-job\": 7");
    QVERIFY(back.guides.empty() && back.references.empty());
    QCOMPARE(back.stock, job.stock);
  }

  void whatIsDamagedIsTold_data() {
    QTest::addColumn<QString>("from");
    QTest::addColumn<QString>("to");
    QTest::newRow("a text for a place") << "\"at\": 5.0"
                                        << "\"at\": \"five\"";
    QTest::newRow("too far") << "\"at\": 5.0"
                             << "\"at\": 1e300";
    QTest::newRow("no list") << "\"guides\": ["
                             << "\"guides\": 3, \"x\": [";
    QTest::newRow("no copies") << "\"references\": ["
                               << "\"references\": {}, \"x\": [";
    QTest::newRow("more names than copies") << "\"references\": ["
                                            << "\"references\": [{\"name\": \"b\"},";
  }
  void whatIsDamagedIsTold() {
    QFETCH(QString, from);
    QFETCH(QString, to);
    job::Job job = job::jobOn(makeDrawing({polygonThrough({{0, 0}, {30, 0}, {30, 20}, {0, 20}})}), "plate.dxf");
    job.guides = {{true, 5}};
    job.references = {{"copy", job.tracing, true}};
    QVERIFY_THROWS_EXCEPTION(InputError, withSettings(job, from, to));
  }

  void copiesThatAreDamagedAreTold() {
    job::Job job = job::jobOn(makeDrawing({polygonThrough({{0, 0}, {30, 0}, {30, 20}, {0, 20}})}), "plate.dxf");
    job.references = {{"copy", job.tracing, true}};
    io::saveJob(job, file_);
    const io::ZipParts whole = io::readZip(file_, {"drawing.json", "job.json", "references.json"}, 1'000'000);
    const auto with = [&](const std::string& copies) {
      io::ZipParts parts = whole;
      const auto bytes = std::as_bytes(std::span(copies));
      parts["references.json"].assign(bytes.begin(), bytes.end());
      io::writeZip(file_, partsToWrite(parts));
      return io::loadJob(file_).references.size();
    };
    const std::string text = textOf(whole.at("references.json"));
    QCOMPARE(with(text), 1U);
    for (const std::string& other : {std::string("[]"), std::string("{"), std::string("[3]"), "[" + text + "]",
                                     QString::fromStdString(text).replace("L 30 0", "L x 0").toStdString()})
      QVERIFY_THROWS_EXCEPTION(InputError, with(other));
    io::ZipParts without = whole;
    without.erase("references.json");
    io::writeZip(file_, partsToWrite(without));
    QVERIFY_THROWS_EXCEPTION(InputError, io::loadJob(file_));
  }

  void copiesAreKeptWithWhatTheyWere() {
    io::WorkKeeper keeper(folder_->filePath("kept").toStdString());
    job::Job job = job::workedOut(job::jobOn(pictureOf(drawn(60, 48, ring(30, 24, 18, 9)))));
    for (const std::size_t count : {1U, 2U, 0U}) {
      job.references.assign(count, {"copy", job.tracing, true});
      keeper.keep(job, {"a", {}});
      QCOMPARE(io::loadKept(folder_->filePath("kept").toStdString()).references.size(), count);
    }
    // One that is only renamed needs no new base.
    job.references = {{"copy", job.tracing, true}};
    keeper.keep(job, {"a", {}});
    const auto files = [this] { return QDir(folder_->filePath("kept")).entryList({"work-*"}, QDir::Files); };
    const QStringList before = files();
    job.references[0].name = "other";
    keeper.keep(job, {"a", {}});
    QCOMPARE(files(), before);
    QCOMPARE(io::loadKept(folder_->filePath("kept").toStdString()).references[0].name, std::string("other"));
  }

  void moreThanAJobHoldsIsTold() {
    job::Job job = job::jobOn(makeDrawing({polygonThrough({{0, 0}, {30, 0}, {30, 20}, {0, 20}})}), "plate.dxf");
    job.guides.resize(kMostGuides + 1);
    io::saveJob(job, file_);
    QVERIFY_THROWS_EXCEPTION(InputError, io::loadJob(file_));
  }

 private:
  /// The job with something else written in its settings, opened again.
  job::Job withSettings(const job::Job& job, const QString& from, const QString& to) {
    io::saveJob(job, file_);
    io::ZipParts parts = io::readZip(file_, {"drawing.json", "job.json"}, 1'000'000);
    QString text = QString::fromStdString(textOf(parts["job.json"]));
    if (!text.contains(from)) qFatal("%s is not in it", qPrintable(from));
    const std::string changed = text.replace(from, to).toStdString();
    const auto bytes = std::as_bytes(std::span(changed));
    parts["job.json"].assign(bytes.begin(), bytes.end());
    io::writeZip(file_, partsToWrite(parts));
    return io::loadJob(file_);
  }

  std::unique_ptr<QTemporaryDir> folder_;
  std::filesystem::path file_;
};

RIM_TEST(TestJobAids)
#include "tst_job_aids.moc"
