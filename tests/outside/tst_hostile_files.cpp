// The command line tool under files that nobody should write: tests/outside/hostile_files.py.

#include <QProcess>
#include <QTest>

#include "support/test_list.h"

class TestHostileFiles : public QObject {
  Q_OBJECT

 private slots:
  void everyFileEndsWithAResultOrASentence() {
    QProcess run;
    run.start("/usr/bin/python3", {SOURCE_FOLDER "/tests/outside/hostile_files.py", CLI_PROGRAM, "--count", "90",
                                   "--seed", "7", "--seconds", "60"});
    QVERIFY(run.waitForFinished(800'000));
    const QByteArray said = run.readAllStandardOutput() + run.readAllStandardError();
    QVERIFY2(run.exitCode() == 0, said.constData());
    QVERIFY2(said.contains("90 files, 0 promises broken"), said.constData());
  }
};

RIM_TEST(TestHostileFiles)
#include "tst_hostile_files.moc"
