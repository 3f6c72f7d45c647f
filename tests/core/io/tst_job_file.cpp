// Jobs in files: what is saved comes back, and damaged files are told, not trusted.

#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

#include "core/error.h"
#include "core/io/common/zip.h"
#include "core/io/job/job_file.h"
#include "core/job/stages.h"
#include "core/picture/load.h"
#include "core/picture/save.h"
#include "support/pictures.h"
#include "support/test_list.h"
#include "support/zip_parts.h"

using namespace rim;
using namespace rim::test;

namespace {

std::vector<picture::PreparationStep> everyStep() {
  return {{picture::Crop{1, 2, 50, 40}},
          {picture::CropToInk{5}},
          {picture::Turn{-12.5}},
          {picture::Mirror{}, false},
          {picture::Straighten{picture::Quad{Point{1, 2}, Point{40, 3}, Point{41, 30}, Point{2, 31.25}},
                               1.4142135623730951}},
          {picture::Straighten{}},
          {picture::EvenLight{}},
          {picture::Denoise{1.5}},
          {picture::Thicken{-2.5}},
          {picture::FillGaps{3}},
          {picture::FillPinholes{25}},
          {picture::DropSpecks{7}},
          {picture::Enlarge{2}},
          {picture::LocalThreshold{41, 12}},
          {picture::SmoothEdges{1.2}},
          {picture::TouchUp{{{{{1, 2}, {3.5, 4.25}}, 9, true}, {{{7, 8}}, 3, false}}}},
          {picture::ClearFrame{{3, 4, 20, 20}, true}},
          {picture::PickColour{{5, 6}, 33, true, true, true}}};
}

job::Job sampleJob() {
  picture::Picture picture = pictureOf(drawn(60, 48, ring(30, 24, 18, 9)));
  picture.dotsPerInch = 254;
  picture.name = "Rädchen & \"Co\".png";
  job::Job job = job::jobOn(picture);
  job.origin = "drawn by hand,\nno rights reserved – ☂";
  job.trace = {117,
               true,
               0.2,
               9,
               72,
               {true, false, true, false, true},
               trace::TraceMethod::Mixed,
               {12.5, 7, trace::StrokeEnds::Ink}};
  job.size = {job::SizeWish::Of::OutlinesHeight, 123.456};
  return job;
}

std::filesystem::path pathOf(const QTemporaryDir& folder, const char* name) {
  return folder.filePath(name).toStdString();
}

io::ZipParts partsOf(const std::filesystem::path& file) {
  return io::readZip(file, {"picture.png", "job.json", "outlines.svg", "traced.json"}, 1'000'000);
}

std::vector<std::byte> bytesOf(const QByteArray& text) {
  const auto bytes = std::as_bytes(std::span(text.constData(), static_cast<std::size_t>(text.size())));
  return {bytes.begin(), bytes.end()};
}

QByteArray textOf(const std::vector<std::byte>& bytes) {
  return {reinterpret_cast<const char*>(bytes.data()), static_cast<qsizetype>(bytes.size())};
}

}  // namespace

class TestJobFile : public QObject {
  Q_OBJECT

 private slots:
  void thePictureIsPackedOnce() {
    QTemporaryDir folder;
    const auto file = pathOf(folder, "a.snugrim");
    job::Job job = sampleJob();
    const std::vector<std::byte>& packed = picture::pngOf(job.original);
    job.trace.tolerancePx = 0.7;
    QCOMPARE(picture::pngOf(job::Job(job).original).data(), packed.data());
    io::saveJob(job, file);
    QVERIFY(partsOf(file).at("picture.png") == packed);
    // What was opened is saved as it lay in the file, not packed again; other pixels are packed anew.
    const job::Job again = io::loadJob(file);
    QCOMPARE(again.original.packed.size(), packed.size());
    QVERIFY(picture::pngOf(picture::withPixels(again.original, 255 - *again.original.grey)) != packed);
    // Grey levels stay grey levels: no colours are made of them for the file.
    constexpr std::size_t kColourType = 25;  // of a PNG (W3C PNG, section 11.2.2): 0 is greyscale, 2 truecolour
    QCOMPARE(static_cast<int>(packed.at(kColourType)), 2);
    QCOMPARE(static_cast<int>(
                 picture::pngOf(picture::makePicture(cv::Mat(8, 8, CV_8UC1, cv::Scalar(90)), 0, "")).at(kColourType)),
             0);
  }

  void whatIsSavedComesBack() {
    QTemporaryDir folder;
    job::Job job = sampleJob();
    job.preparation = everyStep();
    io::saveJob(job, pathOf(folder, "a.snugrim"));
    QVERIFY(io::isJobFile(pathOf(folder, "a.snugrim")));
    const job::Job back = io::loadJob(pathOf(folder, "a.snugrim"));
    QCOMPARE(back.preparation.size(), job.preparation.size());
    for (std::size_t i = 0; i < job.preparation.size(); ++i)
      QVERIFY2(back.preparation[i] == job.preparation[i], qPrintable(QString::number(i)));
    QVERIFY(back.trace == job.trace);
    QVERIFY(back.size == job.size);
    QCOMPARE(back.origin, job.origin);
    QCOMPARE(back.original.name, job.original.name);
    QCOMPARE(back.original.dotsPerInch, 254.0);
    QCOMPARE(cv::norm(*back.original.bgr, *job.original.bgr, cv::NORM_INF), 0.0);
    QVERIFY(back.picture.empty() && !back.tracing);
  }

  void itsPartsAreOpenFormats() {
    QTemporaryDir folder;
    job::Job job = sampleJob();
    job.trace = {};
    io::saveJob(job, pathOf(folder, "plain.snugrim"));
    QVERIFY(!partsOf(pathOf(folder, "plain.snugrim")).contains("outlines.svg"));
    io::saveJob(job::workedOut(job), pathOf(folder, "traced.snugrim"));
    const io::ZipParts parts = partsOf(pathOf(folder, "traced.snugrim"));
    QVERIFY(textOf(parts.at("outlines.svg")).contains("no rights reserved"));
    QCOMPARE(textOf(parts.at("outlines.svg")).count(" Z"), 2);
    QCOMPARE(picture::loadPicture(parts.at("picture.png"), "x").width(), 60);
    // Another program can read it, too.
    QProcess unzip;
    unzip.start("/usr/bin/python3", {"-c",
                                     "import json,sys,zipfile; z=zipfile.ZipFile(sys.argv[1]); "
                                     "print(z.testzip(), json.loads(z.read('job.json'))['snugrim-job'])",
                                     folder.filePath("traced.snugrim")});
    QVERIFY(unzip.waitForFinished());
    QCOMPARE(unzip.readAllStandardOutput().trimmed(), QByteArray("None 8"));
  }

  void whatTracingGaveComesBackAtOnce() {
    QTemporaryDir folder;
    const auto file = pathOf(folder, "a.snugrim");
    job::Job job = sampleJob();
    job.preparation = {{picture::Thicken{1}}};
    for (const trace::TraceMethod method : {trace::TraceMethod::Outline, trace::TraceMethod::Centreline}) {
      job.trace.method = method;
      const job::Job traced = job::workedOut(job);
      io::saveJob(traced, file);
      const job::Job back = io::loadJob(file);
      QVERIFY(job::hasTracing(back));
      QVERIFY(back.tracing->outlines == traced.tracing->outlines);
      QVERIFY(back.tracing->layers == traced.tracing->layers);
      QCOMPARE(back.tracing->frame, Frame::Pixels);
      QCOMPARE(back.tracing->pageWidth, traced.tracing->pageWidth);
      QCOMPARE(back.threshold, traced.threshold);
      QCOMPARE(back.strokes != nullptr, traced.strokes != nullptr);
      if (back.strokes) QVERIFY(*back.strokes == *traced.strokes);
      // Their size hangs on the prepared picture, which is not there yet.
      QVERIFY(!job::hasOutlines(back));
      int worked = 0;
      job::StageWatch watch;
      watch.done = [&worked](job::StageKind stage, const job::Job&) {
        worked += stage == job::StageKind::Trace ? 1 : 0;
      };
      const job::Job whole = job::workedOut(back, watch);
      QCOMPARE(worked, 0);
      QCOMPARE(whole.tracing, back.tracing);
      // Saved again it is the same, byte for byte, and what is decided otherwise is not there.
      const auto before = partsOf(file);
      io::saveJob(whole, file);
      QVERIFY(partsOf(file) == before);
      job::Job other = whole;
      other.trace.tolerancePx *= 2;
      job::dropStale(other);
      io::saveJob(other, file);
      QVERIFY(!job::hasTracing(io::loadJob(file)));
    }
  }

  /// Whatever somebody does to the parts: outlines never belong to another picture or to other settings.
  void whatTracingGaveBelongsToItsPicture() {
    QTemporaryDir folder;
    const auto file = pathOf(folder, "a.snugrim");
    io::saveJob(job::workedOut(sampleJob()), file);
    const io::ZipParts whole = partsOf(file);
    const auto tracedWith = [&](const char* part, const QByteArray& from, const QByteArray& to) {
      io::ZipParts parts = whole;
      QByteArray text = textOf(parts[part]);
      if (!text.contains(from)) qFatal("%s is not in %s", from.constData(), part);
      parts[part] = bytesOf(text.replace(from, to));
      io::writeZip(file, partsToWrite(parts));
      return job::hasTracing(io::loadJob(file));
    };
    QVERIFY(tracedWith("job.json", "no rights reserved", "all of them"));
    QVERIFY(!tracedWith("job.json", "\"tolerance-px\": 0.2", "\"tolerance-px\": 0.3"));
    QVERIFY(!tracedWith("traced.json", "\"threshold\":", "\"thrash\":"));
    QVERIFY(!tracedWith("traced.json", "\"paths\":", "\"lanes\":"));
    QVERIFY(!tracedWith("traced.json", "{", "["));
    io::ZipParts parts = whole;
    job::Job other = sampleJob();
    parts["picture.png"] = picture::pngOf(picture::withPixels(other.original, 255 - *other.original.grey));
    io::writeZip(file, partsToWrite(parts));
    QVERIFY(!job::hasTracing(io::loadJob(file)));
    QVERIFY(!job::workedOut(io::loadJob(file)).tracing->outlines.empty());
  }

  void aDamagedFileIsToldWhereverItIsCut() {
    QTemporaryDir folder;
    io::saveJob(sampleJob(), pathOf(folder, "whole.snugrim"));
    QFile whole(folder.filePath("whole.snugrim"));
    QVERIFY(whole.open(QIODevice::ReadOnly));
    const QByteArray bytes = whole.readAll();
    QFile cut(folder.filePath("cut.snugrim"));
    for (qsizetype length = 0; length < bytes.size(); length += 7) {
      QVERIFY(cut.open(QIODevice::WriteOnly));
      cut.write(bytes.first(length));
      cut.close();
      QVERIFY_THROWS_EXCEPTION(InputError, io::loadJob(pathOf(folder, "cut.snugrim")));
    }
    // A flipped byte is either told or leaves a job that makes sense.
    for (qsizetype at = 0; at < bytes.size(); at += 5) {
      QByteArray flipped = bytes;
      flipped[at] = static_cast<char>(flipped[at] ^ 0x55);
      QVERIFY(cut.open(QIODevice::WriteOnly));
      cut.write(flipped);
      cut.close();
      try {
        QVERIFY(!io::loadJob(pathOf(folder, "cut.snugrim")).original.empty());
      } catch (const InputError&) {
        continue;
      }
    }
  }

  void wrongSettingsAreTold_data() {
    QTest::addColumn<QByteArray>("from");
    QTest::addColumn<QByteArray>("to");
    QTest::newRow("newer") << QByteArray("\"snugrim-job\": 8") << QByteArray("\"snugrim-job\": 9");
    QTest::newRow("no json") << QByteArray("{") << QByteArray("[");
    QTest::newRow("text for a number") << QByteArray("\"px\": 2.0") << QByteArray("\"px\": \"two\"");
    QTest::newRow("too large") << QByteArray("\"px\": 2.0") << QByteArray("\"px\": 2e300");
    QTest::newRow("unknown step") << QByteArray("thicken") << QByteArray("polish");
    QTest::newRow("unknown size") << QByteArray("outlines-height") << QByteArray("volume");
    QTest::newRow("tolerance 0") << QByteArray("\"tolerance-px\": 0.2") << QByteArray("\"tolerance-px\": 0");
    QTest::newRow("unknown rule") << QByteArray("\"tangent\"") << QByteArray("\"sharp\"");
    QTest::newRow("no trace") << QByteArray("\"trace\"") << QByteArray("\"grace\"");
  }

  void wrongSettingsAreTold() {
    QFETCH(QByteArray, from);
    QFETCH(QByteArray, to);
    QTemporaryDir folder;
    job::Job job = sampleJob();
    job.preparation = {{picture::Thicken{2}}};
    const auto file = pathOf(folder, "a.snugrim");
    io::saveJob(job, file);
    io::ZipParts parts = partsOf(file);
    QByteArray settings = textOf(parts["job.json"]);
    QVERIFY2(settings.contains(from), settings.constData());
    parts["job.json"] = bytesOf(settings.replace(from, to));
    io::writeZip(file, partsToWrite(parts));
    QVERIFY_THROWS_EXCEPTION(InputError, io::loadJob(file));
  }

  void whatIsNoJobIsTold() {
    QTemporaryDir folder;
    const auto file = pathOf(folder, "a.zip");
    io::writeZip(file, {{"letter.txt", bytesOf("Dear kite loft")}});
    QVERIFY_THROWS_EXCEPTION(InputError, io::loadJob(file));
    QVERIFY(!io::isJobFile(TEST_DATA "/pictures/plain.png"));
    QVERIFY(!io::isJobFile(pathOf(folder, "nothing-there")));
    QVERIFY_THROWS_EXCEPTION(InputError, io::saveJob(job::Job{}, file));
    // A part that would unpack to more than is allowed is refused by the directory alone.
    io::writeZip(file, {{"job.json", std::vector<std::byte>(5'000'000)}});
    QVERIFY_THROWS_EXCEPTION(InputError, io::readZip(file, {"job.json"}, 1'000'000));
  }

  void anOlderFileIsKeptWhenSavingFails() {
    QTemporaryDir folder;
    QVERIFY_THROWS_EXCEPTION(WriteError, io::saveJob(sampleJob(), pathOf(folder, "no/such/folder.snugrim")));
    const auto file = pathOf(folder, "a.snugrim");
    io::saveJob(sampleJob(), file);
    job::Job other = sampleJob();
    other.origin = "second";
    io::saveJob(other, file);
    QCOMPARE(io::loadJob(file).origin, std::string("second"));
    QCOMPARE(QDir(folder.path()).entryList(QDir::AllEntries | QDir::Hidden | QDir::NoDotAndDotDot).size(), 1);
  }
};

RIM_TEST(TestJobFile)
#include "tst_job_file.moc"
