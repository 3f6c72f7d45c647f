// Many pictures by one recipe.

#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QJsonArray>
#include <QTemporaryDir>
#include <QTest>

#include "run_cli.h"
#include "support/test_list.h"

using namespace rim::test;

namespace {

QString picture(const char* name) { return QStringLiteral(TEST_DATA "/pictures/") + name; }

QStringList states(const QJsonObject& report) {
  QStringList all;
  for (const QJsonValue& item : report["pictures"].toArray()) all << item.toObject()["state"].toString();
  return all;
}

}  // namespace

class TestCliBatch : public QObject {
  Q_OBJECT

 private slots:
  void init() {
    folder_ = std::make_unique<QTemporaryDir>();
    const Run saved = cli({"trace", demo("badge.png"), "-o", at("first.svg"), "--width-mm", "50", "--tolerance", "0.5",
                           "--save-recipe", at("r.json"), "--save-job", at("r.snugrim"), "--quiet"});
    QCOMPARE(saved.code, 0);
  }

  void aRecipeAndItsJobSayTheSame() {
    for (const char* recipe : {"r.json", "r.snugrim"}) {
      const QString out = at(recipe) + ".out";
      const Run run = cli({"batch", at(recipe), demo("badge.png"), "-o", out, "--quiet"});
      QCOMPARE(run.code, 0);
      QCOMPARE(contents(out + "/badge.svg"), contents(at("first.svg")));
    }
  }

  void equalStemsDoNotOverwriteEachOther() {
    QVERIFY(QDir().mkpath(at("a")) && QDir().mkpath(at("b")));
    QVERIFY(QFile::copy(demo("badge.png"), at("a/logo.png")) && QFile::copy(demo("window-card.png"), at("b/Logo.png")));
    const QStringList command{"batch",  at("r.json"), at("a/logo.png"), at("b/Logo.png"),
                              "-o",     at("out"),    "--as",           "dxf,svg",
                              "--jobs", "2",          "--quiet"};
    const QJsonObject got = report(command);
    QCOMPARE(states(got), (QStringList{"done", "done"}));
    QCOMPARE(QDir(at("out")).entryList(QDir::Files), (QStringList{"Logo-2.dxf", "Logo-2.svg", "logo.dxf", "logo.svg"}));
    QVERIFY(contents(at("out/logo.svg")) != contents(at("out/Logo-2.svg")));
  }

  void whatIsNewerIsLeftAlone() {
    const QStringList command{"batch", at("r.json"), demo("badge.png"), "-o", at("out"), "--quiet"};
    QCOMPARE(states(report(command)), QStringList{"done"});
    const QDateTime written = QFileInfo(at("out/badge.svg")).lastModified();
    QCOMPARE(states(report(command)), QStringList{"up-to-date"});
    QCOMPARE(QFileInfo(at("out/badge.svg")).lastModified(), written);
    // A recipe that was touched since is done again; so is a picture one of whose files is missing.
    QTest::qWait(20);
    QFile recipe(at("r.json"));
    QVERIFY(recipe.open(QIODevice::ReadWrite) &&
            recipe.setFileTime(QDateTime::currentDateTime(), QFileDevice::FileModificationTime));
    recipe.close();
    QCOMPARE(states(report(command)), QStringList{"done"});
    QCOMPARE(states(report(command + QStringList{"--as", "svg,dxf"})), QStringList{"done"});
  }

  void oneThatFailsStopsNoOther() {
    const QStringList command{"batch",
                              at("r.json"),
                              picture("truncated.png"),
                              picture("not-a-picture.png"),
                              at("missing.png"),
                              demo("badge.png"),
                              "-o",
                              at("out"),
                              "--quiet"};
    const QJsonObject got = report(command);
    QCOMPARE(states(got), (QStringList{"failed", "failed", "failed", "done"}));
    for (int i = 0; i < 3; ++i) QVERIFY(!got["pictures"].toArray()[i].toObject()["why"].toString().isEmpty());
    const Run run = cli(command);
    QCOMPARE(run.code, 1);
    QCOMPARE(run.err.trimmed().split('\n').size(), 3);
    QCOMPARE(QDir(at("out")).entryList(QDir::Files), QStringList{"badge.svg"});
  }

  void senselessIsRefused_data() {
    QTest::addColumn<QStringList>("arguments");
    QTest::newRow("no recipe") << QStringList{"nothing.json", demo("badge.png"), "-o", "out"};
    QTest::newRow("a picture for a recipe") << QStringList{demo("badge.png"), demo("badge.png"), "-o", "out"};
    QTest::newRow("no picture") << QStringList{"r.json", "-o", "out"};
    QTest::newRow("no folder") << QStringList{"r.json", demo("badge.png")};
    QTest::newRow("an unknown kind") << QStringList{"r.json", demo("badge.png"), "-o", "out", "--as", "png"};
    QTest::newRow("no jobs") << QStringList{"r.json", demo("badge.png"), "-o", "out", "--jobs", "0"};
    QTest::newRow("a file for a folder") << QStringList{"r.json", demo("badge.png"), "-o", "r.json"};
  }
  void senselessIsRefused() {
    QFETCH(QStringList, arguments);
    for (QString& argument : arguments) {
      if (argument == "r.json" || argument == "out" || argument == "nothing.json") argument = at(qPrintable(argument));
    }
    const Run run = cli(QStringList{"batch"} + arguments);
    QCOMPARE(run.code, 2);
    QCOMPARE(run.err.trimmed().count('\n'), 0);
  }

 private:
  QString at(const char* name) const { return folder_->filePath(name); }
  std::unique_ptr<QTemporaryDir> folder_;
};

RIM_TEST(TestCliBatch)
#include "tst_cli_batch.moc"
