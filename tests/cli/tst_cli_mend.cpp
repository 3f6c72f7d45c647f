#include <QFile>
#include <QJsonArray>
#include <QTemporaryDir>
#include <QTest>

#include "run_cli.h"
#include "support/test_list.h"

using namespace rim::test;

namespace {

QString plate() { return QStringLiteral(SOURCE_FOLDER "/demo/spool-plate.dxf"); }

}  // namespace

class TestCliMend : public QObject {
  Q_OBJECT

 private slots:
  void checkFindsAndSaysSoByItsExitCode() {
    const Run run = cli({"check", plate()});
    QCOMPARE(run.code, 1);
    for (const char* kind : {"unjoined", "open-end", "double-line", "loop", "spike", "zero-length", "speck", "stray"})
      QVERIFY2(run.out.contains(kind), kind);
    QVERIFY2(run.out.endsWith("32 findings\n"), qPrintable(run.out));
    const QJsonObject json = report({"check", plate()});
    QCOMPARE(json["findings"].toArray().size(), 32);
    // Pieces whose ends meet are told once an outline, not once an end.
    QCOMPARE(run.out.count("unjoined"), 12);
    // What counts as a speck can be said.
    QVERIFY(cli({"check", plate(), "--speck", "0"}).out.count("A speck") <
            cli({"check", plate(), "--speck", "5"}).out.count("A speck"));
    const QJsonObject first = json["findings"].toArray()[0].toObject();
    for (const char* key : {"kind", "at", "outline", "size_mm", "text", "repair"}) QVERIFY2(first.contains(key), key);
  }

  /// Slanted, unevenly lit and noisy; only the picture's own frame is a fault, and not even that of its light parts.
  void aTracedPhotographHasNoFaultsOfItsOwn() {
    const QString photo = SOURCE_FOLDER "/demo/window-card-photo.jpg";
    QCOMPARE(cli({"trace", photo, "-o", at("dark.svg"), "--quiet"}).code, 0);
    const QJsonArray findings = report({"check", at("dark.svg")})["findings"].toArray();
    QCOMPARE(findings.size(), 1);
    QCOMPARE(findings[0].toObject()["kind"].toString(), "frame");
    QCOMPARE(cli({"trace", photo, "--invert", "-o", at("light.svg"), "--quiet"}).code, 0);
    QCOMPARE(cli({"check", at("light.svg")}).code, 0);
  }

  void aWiderGapIsOneFindingAnother() {
    const auto joins = [](const QString& gap) {
      int count = 0;
      for (const auto& f : report({"check", plate(), "--gap", gap})["findings"].toArray())
        count += f.toObject()["repair"].toString() == "join" ? 1 : 0;
      return count;
    };
    QVERIFY(joins("0.5") > joins("0.2"));
  }

  void mendRepairsAndCheckThenFindsNothing_data() {
    QTest::addColumn<QString>("file");
    QTest::newRow("dxf") << "out.dxf";
    QTest::newRow("svg") << "out.svg";
  }
  void mendRepairsAndCheckThenFindsNothing() {
    QFETCH(QString, file);
    const QJsonObject json =
        report({"mend", plate(), "-o", at(file), "--smaller-than", "0.5", "--drop-frame", "--drop-strays", "--strict"});
    QCOMPARE(json["outlines"].toInt(), 11);
    QCOMPARE(json["open"].toInt(), 0);
    QVERIFY(!json["repairs"].toArray().isEmpty());
    const Run check = cli({"check", at(file)});
    QVERIFY2(check.code == 0, qPrintable(check.out));
    QCOMPARE(check.out, QString("11 outlines, all closed, nothing drawn twice.\n"));
    // Once more changes nothing.
    QVERIFY(report({"mend", at(file), "-o", at("again.dxf")})["repairs"].toArray().isEmpty());
  }

  void bowTiesPartOrAreUntangled() {
    QFile file(at("bow.svg"));
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.write(
        "<svg xmlns='http://www.w3.org/2000/svg' width='50mm' height='50mm' viewBox='0 0 50 50'>"
        "<path d='M0 0L40 30L40 0L0 30Z'/></svg>");
    file.close();
    QCOMPARE(report({"mend", at("bow.svg"), "-o", at("split.svg")})["outlines"].toInt(), 2);
    QCOMPARE(cli({"check", at("split.svg")}).code, 0);
    QCOMPARE(report({"mend", at("bow.svg"), "-o", at("one.svg"), "--bow-ties", "untangle"})["outlines"].toInt(), 1);
    QCOMPARE(cli({"mend", at("bow.svg"), "-o", at("x.svg"), "--bow-ties", "knot"}).code, 2);
  }

  void strictTellsWhatIsLeft() {
    QCOMPARE(cli({"mend", plate(), "-o", at("s.dxf"), "--quiet"}).code, 0);
    QCOMPARE(cli({"mend", plate(), "-o", at("s.dxf"), "--quiet", "--strict"}).code, 1);
    QVERIFY(QFile::exists(at("s.dxf")));
  }

  void commonBordersAreDrawnOnceOnRequest() {
    const QString file = at("tiles.svg");
    QFile tiles(file);
    QVERIFY(tiles.open(QFile::WriteOnly));
    tiles.write(
        "<svg xmlns='http://www.w3.org/2000/svg' width='30mm' height='10mm' viewBox='0 0 30 10'>"
        "<path d='M0 0H10V10H0Z'/><path d='M10 0H20V10H10Z'/><path d='M20 0H30V10H20Z'/></svg>");
    tiles.close();
    QCOMPARE(cli({"check", file}).code, 1);
    const QString once = at("once.dxf");
    const QJsonObject json = report({"mend", file, "-o", once, "--borders", "once", "--strict"});
    QVERIFY(std::abs(json["length_mm"].toDouble() - 100) < 1e-6);
    const Run check = cli({"check", once});
    QCOMPARE(check.code, 0);
    QVERIFY2(check.out.contains("3 outlines, 2 of them borders that branch off"), qPrintable(check.out));
    QCOMPARE(cli({"mend", file, "-o", once, "--borders", "twice", "--strict"}).code, 1);
    QCOMPARE(cli({"mend", file, "-o", once, "--borders", "thrice"}).code, 2);
  }

  void convertChangesFormatFormAndUnit() {
    QCOMPARE(cli({"convert", plate(), "-o", at("c.svg"), "--quiet"}).code, 0);
    const QJsonObject svg = report({"check", at("c.svg")});
    const QJsonObject dxf = report({"check", plate()});
    QVERIFY(std::abs(svg["length_mm"].toDouble() - dxf["length_mm"].toDouble()) < 0.01);
    QCOMPARE(cli({"convert", plate(), "-o", at("i.dxf"), "--units", "in", "--dxf", "r12"}).code, 0);
    QFile file(at("i.dxf"));
    QVERIFY(file.open(QIODevice::ReadOnly));
    QVERIFY(file.readAll().replace("\r", "").contains("$INSUNITS\n 70\n1\n"));
    QVERIFY(std::abs(report({"check", at("i.dxf")})["width_mm"].toDouble() - dxf["width_mm"].toDouble()) < 1e-3);
    QCOMPARE(report({"convert", plate(), "-o", at("l.dxf"), "--curves", "lines"})["arcs"].toInt(), 0);
  }

  void bothCommandsAnswerBadInputInOneLine_data() {
    QTest::addColumn<QStringList>("arguments");
    QTest::addColumn<QString>("says");
    QTest::newRow("no file") << QStringList{"check", "none.dxf"} << "none.dxf: the file cannot be opened";
    QTest::newRow("a picture") << QStringList{"check", "x.png"} << "x.png: the ending says";
    QTest::newRow("bad rule") << QStringList{"mend", "x.dxf", "-o", "y.dxf", "--double", "twice"} << "--double";
    QTest::newRow("bad out") << QStringList{"mend", plate(), "-o", "y.txt"} << "y.txt: the ending says";
    QTest::newRow("negative gap") << QStringList{"check", plate(), "--gap", "-1"} << "--gap";
  }
  void bothCommandsAnswerBadInputInOneLine() {
    QFETCH(QStringList, arguments);
    QFETCH(QString, says);
    const Run run = cli(arguments);
    QCOMPARE(run.code, 2);
    QVERIFY2(run.err.contains(says), qPrintable(run.err));
    QCOMPARE(run.err.count('\n'), 1);
  }

  void theLineOfAFaultFollowsTheFile() {
    QFile file(at("bad.dxf"));
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.write("0\nSECTION\n2\nENTITIES\n0\nARC\n8\n0\n10\n0\n20\n0\n40\n0\n50\n0\n51\n90\n0\nENDSEC\n0\nEOF\n");
    file.close();
    QCOMPARE(cli({"check", at("bad.dxf")}).err, "snugrim-cli: " + at("bad.dxf") + ":5: arc with radius 0\n");
  }

  void anOlderFileSurvivesAFailure() {
    QFile file(at("kept.dxf"));
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.write("mine");
    file.close();
    QCOMPARE(cli({"mend", "none.svg", "-o", at("kept.dxf")}).code, 2);
    QVERIFY(file.open(QIODevice::ReadOnly));
    QCOMPARE(file.readAll(), QByteArray("mine"));
  }

  void aSharedExportHoldsNothingTwice() {
    const QString jpeg = QStringLiteral(SOURCE_FOLDER "/demo/badge.jpg");
    QCOMPARE(cli({"trace", jpeg, "-o", at("h.dxf"), "--colours", "auto", "--layout", "shared", "--quiet"}).code, 0);
    for (const auto& f : report({"check", at("h.dxf")})["findings"].toArray())
      QVERIFY(f.toObject()["kind"].toString() != "double-line");
  }

 private:
  QString at(const QString& name) const { return folder_.filePath(name); }

  QTemporaryDir folder_;
};

RIM_TEST(TestCliMend)
#include "tst_cli_mend.moc"
