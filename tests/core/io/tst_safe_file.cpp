#include <sys/stat.h>

#include <QTemporaryDir>
#include <QTest>
#include <fstream>

#include "core/error.h"
#include "core/io/common/safe_file.h"
#include "support/test_list.h"

using namespace rim;
namespace fs = std::filesystem;

namespace {

void put(const fs::path& file, const std::string& text) { std::ofstream(file, std::ios::binary) << text; }

std::string get(const fs::path& file) {
  std::ifstream in(file, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

std::size_t filesIn(const fs::path& folder) {
  return static_cast<std::size_t>(std::distance(fs::directory_iterator(folder), fs::directory_iterator()));
}

}  // namespace

class TestSafeFile : public QObject {
  Q_OBJECT

 private slots:
  void init() { folder_ = std::make_unique<QTemporaryDir>(); }

  void aNewFileIsWritten() {
    io::writeBeside(at("new.txt"), [](const fs::path& beside) { put(beside, "new"); });
    QCOMPARE(get(at("new.txt")), std::string("new"));
    QCOMPARE(filesIn(at("")), 1U);
  }

  void aNewFileIsAsReadableAsTheUserWants() {
    const mode_t before = ::umask(027);
    io::writeBeside(at("masked.txt"), [](const fs::path& beside) { put(beside, "new"); });
    ::umask(before);
    QCOMPARE(static_cast<int>(fs::status(at("masked.txt")).permissions()), 0640);
    // One that takes the place of another keeps what that had.
    fs::permissions(at("masked.txt"), fs::perms::owner_read | fs::perms::owner_write);
    io::writeBeside(at("masked.txt"), [](const fs::path& beside) { put(beside, "newer"); });
    QCOMPARE(static_cast<int>(fs::status(at("masked.txt")).permissions()), 0600);
  }

  void anOlderFileSurvivesAFailure() {
    put(at("old.txt"), "old");
    QVERIFY_THROWS_EXCEPTION(WriteError, io::writeBeside(at("old.txt"), [](const fs::path& beside) {
                               put(beside, "half");
                               throw WriteError("the disk is full.");
                             }));
    QCOMPARE(get(at("old.txt")), std::string("old"));
    QCOMPARE(filesIn(at("")), 1U);
  }

  void aSymbolicLinkKeepsPointing() {
    put(at("real.txt"), "old");
    fs::create_symlink(at("real.txt"), at("link.txt"));
    io::writeBeside(at("link.txt"), [](const fs::path& beside) { put(beside, "new"); });
    QVERIFY(fs::is_symlink(at("link.txt")));
    QCOMPARE(get(at("real.txt")), std::string("new"));
  }

  void permissionsAreKept() {
    put(at("mine.txt"), "old");
    fs::permissions(at("mine.txt"), fs::perms::owner_read | fs::perms::owner_write);
    io::writeBeside(at("mine.txt"), [](const fs::path& beside) { put(beside, "new"); });
    QCOMPARE(fs::status(at("mine.txt")).permissions(), fs::perms::owner_read | fs::perms::owner_write);
  }

  void aMissingFolderIsSaid() {
    QVERIFY_THROWS_EXCEPTION(WriteError, io::writeBeside(at("none/file.txt"), [](const fs::path&) {}));
  }

  void aFolderInTheWayIsSaid() {
    fs::create_directory(at("folder"));
    QVERIFY_THROWS_EXCEPTION(WriteError, io::writeBeside(at("folder"), [](const fs::path&) {}));
  }

 private:
  fs::path at(const char* name) const { return fs::path(folder_->path().toStdString()) / name; }

  std::unique_ptr<QTemporaryDir> folder_;
};

RIM_TEST(TestSafeFile)
#include "tst_safe_file.moc"
