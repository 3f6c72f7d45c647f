// Windows that are killed while they work and save: no job file is ever unreadable, and of what was done no more than
// five seconds are lost.

#include <QDir>
#include <QElapsedTimer>
#include <QFileInfo>
#include <QProcess>
#include <QProcessEnvironment>
#include <QTemporaryDir>
#include <QTest>
#include <random>

#include "core/io/job/job_file.h"
#include "core/io/job/kept_work.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

/// The number of the edit that a job holds; 0: none.
int editIn(const job::Job& job) {
  const std::string begin = "edit ";
  return job.origin.starts_with(begin) ? std::stoi(job.origin.substr(begin.size())) : 0;
}

/// The newest edit that is anywhere on the disk; throws where something cannot be read.
int newestIn(const QString& state, const QString& job) {
  int newest = 0;
  if (QFileInfo::exists(job)) newest = editIn(io::loadJob(job.toStdString()));
  for (const QFileInfo& folder : QDir(state + "/snugrim/kept").entryInfoList(QDir::Dirs | QDir::NoDotAndDotDot)) {
    const std::string path = folder.absoluteFilePath().toStdString();
    if (io::keptNoteIn(path)) newest = std::max(newest, editIn(io::loadKept(path)));
  }
  return newest;
}

}  // namespace

class TestKilled : public QObject {
  Q_OBJECT

 private slots:
  void littleIsLost() {
    // RIM_KILLS says how often; more than some eighty need a longer QTEST_FUNCTION_TIMEOUT.
    const int kills = qEnvironmentVariableIntValue("RIM_KILLS") > 0 ? qEnvironmentVariableIntValue("RIM_KILLS") : 8;
    std::mt19937 random(20261130);
    double worst = 0;
    for (int k = 0; k < kills; ++k) {
      QTemporaryDir folder;
      const QString job = folder.filePath("work.snugrim");
      QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
      environment.insert("XDG_STATE_HOME", folder.path());
      QProcess child;
      child.setProcessEnvironment(environment);
      child.start(KILL_CHILD, {QStringLiteral(SOURCE_FOLDER "/demo/window-card.png"), job, folder.path(),
                               QString::number(random())});
      QVERIFY(child.waitForStarted());
      // When each edit was told, ms.
      std::vector<qint64> told{0};
      QElapsedTimer clock;
      clock.start();
      qint64 end = 60'000;  // until the first edit is told
      while (clock.elapsed() < end) {
        child.waitForReadyRead(20);
        while (child.canReadLine()) {
          const auto number = static_cast<std::size_t>(child.readLine().trimmed().toInt());
          if (told.size() == 1) end = clock.elapsed() + 200 + static_cast<qint64>(random() % 4000);
          told.resize(std::max(told.size(), number + 1), clock.elapsed());
        }
      }
      child.kill();
      child.waitForFinished();
      const qint64 killed = clock.elapsed();
      QVERIFY2(told.size() > 1, child.readAllStandardError().constData());
      int newest = 0;
      try {
        newest = newestIn(folder.path(), job);
      } catch (const std::exception& error) {
        QFAIL(error.what());
      }
      // Lost is what was told after the newest edit that is on the disk.
      const std::size_t lost = static_cast<std::size_t>(newest) + 1;
      const double seconds = lost < told.size() ? static_cast<double>(killed - told[lost]) / 1000 : 0;
      worst = std::max(worst, seconds);
      QVERIFY2(seconds < 5, qPrintable(QStringLiteral("%1 s lost").arg(seconds)));
    }
    qInfo("%d windows killed; at most %.2f s lost", kills, worst);
  }
};

RIM_TEST(TestKilled)
#include "tst_killed.moc"
