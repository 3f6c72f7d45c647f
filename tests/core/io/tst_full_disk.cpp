// A disk that takes no more, as RLIMIT_FSIZE makes one (POSIX, setrlimit): it is told, and what was there is whole.

#include <sys/resource.h>

#include <QTemporaryDir>
#include <QTest>
#include <csignal>
#include <fstream>

#include "core/error.h"
#include "core/io/deliver.h"
#include "core/io/job/job_file.h"
#include "core/io/job/kept_work.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
namespace fs = std::filesystem;

namespace {

/// While it lives no file grows beyond so many bytes.
class FullDisk {
 public:
  explicit FullDisk(rlim_t bytes) {
    ::getrlimit(RLIMIT_FSIZE, &before_);
    handler_ = std::signal(SIGXFSZ, SIG_IGN);  // the write fails instead of the program
    const rlimit limit{bytes, before_.rlim_max};
    ::setrlimit(RLIMIT_FSIZE, &limit);
  }
  ~FullDisk() {
    ::setrlimit(RLIMIT_FSIZE, &before_);
    std::signal(SIGXFSZ, handler_);
  }
  FullDisk(const FullDisk&) = delete;
  FullDisk& operator=(const FullDisk&) = delete;

 private:
  rlimit before_{};
  void (*handler_)(int) = nullptr;
};

std::string get(const fs::path& file) {
  std::ifstream in(file, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

/// A comb of many teeth: no form of it is small.
Drawing comb() {
  std::vector<Point> points{{0, 0}};
  for (int k = 0; k < 8000; ++k) points.push_back({k * 0.125, k % 2 == 0 ? 100.123 : 3.456});
  points.push_back({1000, 0});
  Drawing drawing = makeDrawing({polygonThrough(points)});
  drawing.pageWidth = 1000;
  drawing.pageHeight = 101;
  return drawing;
}

job::Job noisyJob(int seed) {
  cv::Mat grey(300, 300, CV_8UC1);
  cv::RNG(static_cast<std::uint64_t>(seed)).fill(grey, cv::RNG::UNIFORM, 0, 255);
  return job::jobOn(test::pictureOf(grey));
}

constexpr rlim_t kRoom = 20'000;

}  // namespace

class TestFullDisk : public QObject {
  Q_OBJECT

 private slots:
  void everyFormTellsAndKeepsTheOlderFile_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"a.dxf", "a.svg", "a.pdf", "a.eps", "a.png"}) QTest::newRow(name) << name;
  }
  void everyFormTellsAndKeepsTheOlderFile() {
    QFETCH(QString, name);
    const QTemporaryDir folder;
    const fs::path file = folder.filePath(name).toStdString();
    job::ExportSettings settings;
    settings.dpi = 100;
    io::deliver(comb(), file, settings, 0.01);
    const std::string before = get(file);
    QVERIFY2(before.size() > kRoom, qPrintable(QString::number(before.size())));
    {
      const FullDisk full(kRoom);
      QVERIFY_THROWS_EXCEPTION(WriteError, io::deliver(comb(), file, settings, 0.01));
    }
    QVERIFY(get(file) == before);
    QCOMPARE(std::distance(fs::directory_iterator(file.parent_path()), fs::directory_iterator()), 1);
  }

  void aJobTellsAndKeepsTheOlderFile() {
    const QTemporaryDir folder;
    const fs::path file = folder.filePath("a.snugrim").toStdString();
    io::saveJob(noisyJob(1), file);
    const std::string before = get(file);
    {
      const FullDisk full(kRoom);
      QVERIFY_THROWS_EXCEPTION(WriteError, io::saveJob(noisyJob(2), file));
    }
    QVERIFY(get(file) == before);
    QCOMPARE(std::distance(fs::directory_iterator(file.parent_path()), fs::directory_iterator()), 1);
  }

  void keptWorkTellsAndWhatWasKeptComesBack() {
    const QTemporaryDir folder;
    const fs::path path = folder.path().toStdString();
    io::WorkKeeper keeper(path);
    job::Job job = noisyJob(1);
    job.origin = "kept";
    keeper.keep(job, {"a.png", {}});
    {
      const FullDisk full(kRoom);
      job::Job another = noisyJob(2);
      another.origin = "not kept";
      QVERIFY_THROWS_EXCEPTION(WriteError, keeper.keep(another, {"b.png", {}}));
      // Nor what was decided, when there is too much of it.
      job.origin = std::string(3 * kRoom, 'x');
      QVERIFY_THROWS_EXCEPTION(WriteError, keeper.keep(job, {"a.png", {}}));
    }
    QCOMPARE(io::loadKept(path).origin, std::string("kept"));
    // With room again the very next change is kept.
    job.origin = "later";
    keeper.keep(job, {"a.png", {}});
    QCOMPARE(io::loadKept(path).origin, std::string("later"));
  }
};

RIM_TEST(TestFullDisk)
#include "tst_full_disk.moc"
