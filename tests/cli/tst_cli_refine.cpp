#include <QFile>
#include <QJsonArray>
#include <QTemporaryDir>
#include <QTest>
#include <cmath>
#include <numbers>

#include "run_cli.h"
#include "support/test_list.h"

using namespace rim::test;

class TestCliRefine : public QObject {
  Q_OBJECT

 private slots:
  void initTestCase() {
    writeShapes(at("two.svg"), "<path d=\"M10 10H50V40H10Z\"/><path d=\"M40 30H80V70H40Z\"/>");
    writeShapes(at("hole.svg"), "<path d=\"M20 20H30V30H20Z\"/>");
    writeShapes(at("line.svg"), "<path fill=\"none\" stroke=\"black\" d=\"M10 10H50\"/>");
    writeShapes(at("ring.svg"), "<circle cx=\"50\" cy=\"50\" r=\"20.02\"/><circle cx=\"50.05\" cy=\"50\" r=\"10\"/>");
  }

  void stepsAreDoneInTheirOrder_data() {
    QTest::addColumn<QString>("steps");
    QTest::addColumn<double>("width");
    QTest::addColumn<double>("height");
    QTest::addColumn<int>("outlines");
    const auto row = [](const char* steps, double width, double height, int outlines) {
      QTest::newRow(steps) << QString(steps) << width << height << outlines;
    };
    row("--unite", 70, 60, 1);
    row("--unite --offset 2", 74, 64, 1);
    row("--offset -2 --unite", 66, 56, 1);
    row("--unite --offset 2 --joins mitre --offset -2", 70, 60, 1);
    row("--subtract hole.svg", 70, 60, 2);
    row("--intersect hole.svg", 10, 10, 1);
    row("--rotate 90", 60, 70, 2);
    row("--mirror x --mirror y", 70, 60, 2);
    row("--scale 0.5", 35, 30, 2);
    row("--scale 2 --scale 0.25", 35, 30, 2);
    row("--fit 35,100", 35, 30, 2);
    row("--array 2,3,10,5", 150, 190, 12);
    row("--unite --ring 3,2", 80, 70, 3);
    row("--fillet 3", 70, 60, 2);
  }
  void stepsAreDoneInTheirOrder() {
    QFETCH(QString, steps);
    QFETCH(double, width);
    QFETCH(double, height);
    QFETCH(int, outlines);
    QStringList arguments{"refine", at("two.svg"), "-o", at("out.dxf")};
    for (const QString& word : steps.split(' ')) arguments << (word.endsWith(".svg") ? at(word) : word);
    const QJsonObject json = report(arguments);
    QVERIFY(std::abs(json["width_mm"].toDouble() - width) < 1e-6);
    QVERIFY(std::abs(json["height_mm"].toDouble() - height) < 1e-6);
    QCOMPARE(json["outlines"].toInt(), outlines);
    QCOMPARE(cli({"check", at("out.dxf"), "--quiet"}).code,
             steps.contains("unite") || outlines == 1 ? 0 : cli({"check", at("out.dxf")}).code);
  }

  void placesAreTold() {
    const auto lowerLeft = [this](const QStringList& steps) {
      QStringList arguments{"refine", at("two.svg"), "-o", at("placed.dxf")};
      if (cli(arguments + steps).code != 0) return QString("failed");
      QFile file(at("placed.dxf"));
      file.open(QIODevice::ReadOnly);
      const QString text = QString::fromUtf8(file.readAll());
      const QStringList low = text.mid(text.indexOf("$EXTMIN")).split('\n').mid(0, 5);
      return QString("%1,%2").arg(low[2].toDouble()).arg(low[4].toDouble());
    };
    QCOMPARE(lowerLeft({"--place", "5,7"}), QString("5,7"));
    QCOMPARE(lowerLeft({"--place", "-5,7", "--hold", "centre"}), QString("-40,-23"));
    QCOMPARE(lowerLeft({"--place", "0,0", "--hold", "upper-right"}), QString("-70,-60"));
    QCOMPARE(lowerLeft({"--scale", "0.5"}), QString("27.5,45"));
    QCOMPARE(lowerLeft({"--fit", "35,30"}), QString("10,30"));
  }

  void whatWasMadeExactIsReported() {
    const QJsonObject json = report({"refine", at("ring.svg"), "-o", at("o.dxf"), "--true-up", "concentric"});
    const QJsonArray changes = json["changes"].toArray();
    QCOMPARE(changes.size(), 1);
    const QJsonObject change = changes[0].toObject();
    QCOMPARE(change["kind"].toString(), "concentric");
    QCOMPARE(change["outline"].toInt(), 1);
    QVERIFY(std::abs(change["moved_mm"].toDouble() - 0.05) < 1e-6);
    QCOMPARE(change["at"].toArray().size(), 2);
    // Not when it would have to move farther than allowed.
    QCOMPARE(report({"refine", at("ring.svg"), "-o", at("o.dxf"), "--within", "0.01", "--true-up", "all"})["changes"]
                 .toArray()
                 .size(),
             0);
    QVERIFY(report({"refine", at("two.svg"), "-o", at("o.dxf")})["changes"].isArray());
  }

  void whatAStepBrokeIsTold() {
    const QStringList copies{"refine", at("two.svg"), "-o", at("o.dxf"), "--unite", "--array", "2,1,-30,0"};
    const QJsonArray findings = report(copies)["findings"].toArray();
    QVERIFY(!findings.isEmpty());
    for (const QJsonValue& finding : findings) QCOMPARE(finding.toObject()["kind"].toString(), "double-line");
    QVERIFY(cli(copies).out.contains("These faults were not there before"));
    // What was wrong before is none of the step's doing.
    QCOMPARE(report({"refine", at("o.dxf"), "-o", at("p.dxf"), "--scale", "2"})["findings"].toArray().size(), 0);
  }

  void whatCannotBeInspectedIsRefinedAllTheSame() {
    // 330 by 330 lines cross in more places than are looked at.
    QString lines;
    for (int i = 0; i < 330; ++i) {
      lines += QString("<path fill=\"none\" stroke=\"black\" d=\"M0 %1H331\"/>").arg(i + 1);
      lines += QString("<path fill=\"none\" stroke=\"black\" d=\"M%1 0V331\"/>").arg(i + 1);
    }
    writeShapes(at("grid.svg"), lines.toUtf8());
    QCOMPARE(cli({"check", at("grid.svg")}).code, 2);
    const Run run = cli({"refine", at("grid.svg"), "-o", at("o.dxf"), "--scale", "2"});
    QCOMPARE(run.code, 0);
    QVERIFY2(run.err.contains("was not looked for"), qPrintable(run.err));
    QString ring = "<path fill=\"none\" stroke=\"black\" d=\"M";
    for (int i = 0; i < 90; ++i) {
      const double angle = i * std::numbers::pi / 45;
      ring += QString("%1 %2 ").arg(165.5 + 160 * std::cos(angle)).arg(165.5 + 160 * std::sin(angle));
    }
    writeShapes(at("ringed.svg"), (lines + ring + "Z\"/>").toUtf8());
    const QJsonObject trued = report({"refine", at("ringed.svg"), "-o", at("o.dxf"), "--true-up", "circle"});
    QCOMPARE(trued["changes"].toArray().size(), 1);
  }

  void openLinesAreThickened() {
    const QJsonObject json = report({"refine", at("line.svg"), "-o", at("o.dxf"), "--thicken", "4", "--tips", "flat"});
    QCOMPARE(json["closed"].toInt(), 1);
    QVERIFY(std::abs(json["width_mm"].toDouble() - 40) < 1e-6 && std::abs(json["height_mm"].toDouble() - 4) < 1e-6);
  }

  void whatMakesNoSenseIsRefused_data() {
    QTest::addColumn<QString>("steps");
    for (const char* steps : {"--offset -50",
                              "--place 1",
                              "--place 1,2,3",
                              "--joins mitre",
                              "--unite --joins mitre",
                              "--offset nan",
                              "--offset",
                              "--scale 0",
                              "--ring 0,1",
                              "--array 0,1,1,1",
                              "--array 1.5,1,1,1",
                              "--array 1000000,1000000,1,1",
                              "--true-up blob",
                              "--symmetry both",
                              "--hold centre",
                              "--fit 0,5",
                              "--subtract nowhere.svg",
                              "--mirror z",
                              "--tips round",
                              "--rotate 1e400",
                              "--within 0"})
      QTest::newRow(steps) << QString(steps);
  }
  void whatMakesNoSenseIsRefused() {
    QFETCH(QString, steps);
    QFile::remove(at("refused.dxf"));
    const Run run = cli(QStringList{"refine", at("two.svg"), "-o", at("refused.dxf")} + steps.split(' '));
    QCOMPARE(run.code, 2);
    QCOMPARE(run.err.count('\n'), 1);
    QVERIFY(!QFile::exists(at("refused.dxf")));
  }

  void ajobIsADrawingToo() {
    QCOMPARE(cli({"convert", at("two.svg"), "-o", at("plain.svg")}).code, 0);
    QCOMPARE(report({"refine", at("plain.svg"), "-o", at("o.svg"), "--unite"})["outlines"].toInt(), 1);
  }

 private:
  QString at(const QString& name) const { return folder_.filePath(name); }
  QTemporaryDir folder_;
};

RIM_TEST(TestCliRefine)
#include "tst_cli_refine.moc"
