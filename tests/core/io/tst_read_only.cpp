// Folders and files that may only be read: it is told, and what was there is whole.

#include <unistd.h>

#include <QTemporaryDir>
#include <QTest>
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

/// While it lives a folder may only be read. The administrator may write everywhere, so that the test is somebody else
/// as long.
class ReadOnly {
 public:
  explicit ReadOnly(fs::path folder) : folder_(std::move(folder)) {
    fs::permissions(folder_, fs::perms(0555));
    constexpr uid_t kNobody = 65534;
    changed_ = ::geteuid() == 0 && ::seteuid(kNobody) == 0;
  }
  ~ReadOnly() {
    if (changed_) changed_ = ::seteuid(0) != 0;
    fs::permissions(folder_, fs::perms(0755));
  }
  ReadOnly(const ReadOnly&) = delete;
  ReadOnly& operator=(const ReadOnly&) = delete;

 private:
  fs::path folder_;
  bool changed_ = false;
};

std::string get(const fs::path& file) {
  std::ifstream in(file, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

Drawing square(double side) {
  Drawing drawing = makeDrawing({polygonThrough({{0, 0}, {side, 0}, {side, side}, {0, side}})});
  drawing.pageWidth = drawing.pageHeight = side;
  return drawing;
}

job::Job jobWith(double level) { return job::jobOn(test::pictureOf(cv::Mat(30, 30, CV_8UC1, cv::Scalar(level)))); }

std::ptrdiff_t filesIn(const fs::path& folder) {
  return std::distance(fs::directory_iterator(folder), fs::directory_iterator());
}

}  // namespace

class TestReadOnly : public QObject {
  Q_OBJECT

 private slots:
  void init() { folder_ = std::make_unique<QTemporaryDir>(); }

  void noFormIsWrittenIntoAFolderThatIsRead_data() {
    QTest::addColumn<QString>("name");
    for (const char* name : {"a.dxf", "a.svg", "a.pdf", "a.eps", "a.png"}) QTest::newRow(name) << name;
  }
  void noFormIsWrittenIntoAFolderThatIsRead() {
    QFETCH(QString, name);
    const fs::path file = at(name);
    io::deliver(square(10), file, {}, 0.01);
    const std::string before = get(file);
    {
      const ReadOnly folder(at(""));
      QVERIFY_THROWS_EXCEPTION(WriteError, io::deliver(square(20), file, {}, 0.01));
      QVERIFY_THROWS_EXCEPTION(WriteError, io::deliver(square(20), at("new-" + name), {}, 0.01));
    }
    QVERIFY(get(file) == before);
    QCOMPARE(filesIn(at("")), 1);
  }

  void aJobStaysAsItWas() {
    const fs::path file = at("a.snugrim");
    io::saveJob(jobWith(40), file);
    const std::string before = get(file);
    {
      const ReadOnly folder(at(""));
      QVERIFY_THROWS_EXCEPTION(WriteError, io::saveJob(jobWith(90), file));
      QCOMPARE(io::loadJob(file).original.grey->at<std::uint8_t>(5, 5), std::uint8_t{40});
    }
    QVERIFY(get(file) == before);
    QCOMPARE(filesIn(at("")), 1);
  }

  void keptWorkTellsAndGoesOnLater() {
    io::WorkKeeper keeper(at(""));
    job::Job job = jobWith(40);
    job.origin = "kept";
    keeper.keep(job, {"a.png", {}});
    job.origin = "later";
    {
      const ReadOnly folder(at(""));
      QVERIFY_THROWS_EXCEPTION(WriteError, keeper.keep(job, {"a.png", {}}));
      QVERIFY_THROWS_EXCEPTION(WriteError, io::WorkKeeper(at("none/yet")).keep(job, {"a.png", {}}));
      QCOMPARE(io::loadKept(at("")).origin, std::string("kept"));
    }
    keeper.keep(job, {"a.png", {}});
    QCOMPARE(io::loadKept(at("")).origin, std::string("later"));
  }

  /// Who protects a file wants to keep it, though renaming another over it would be allowed.
  void aProtectedFileIsNotReplaced() {
    const fs::path file = at("a.svg");
    io::deliver(square(10), file, {}, 0.01);
    const std::string before = get(file);
    fs::permissions(file, fs::perms(0444));
    QVERIFY_THROWS_EXCEPTION(WriteError, io::deliver(square(20), file, {}, 0.01));
    QVERIFY(get(file) == before);
    QCOMPARE(filesIn(at("")), 1);
    fs::permissions(file, fs::perms(0644));
    io::deliver(square(20), file, {}, 0.01);
    QVERIFY(get(file) != before);
  }

 private:
  fs::path at(const QString& name) const { return (folder_->path() + "/" + name).toStdString(); }

  std::unique_ptr<QTemporaryDir> folder_;
};

RIM_TEST(TestReadOnly)
#include "tst_read_only.moc"
