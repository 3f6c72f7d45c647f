// Pen strokes on the command line: the demo's ink drawing (demo/make_swallow.py draws 3 closed and 11 open lines, and
// breaks them).

#include <QJsonArray>
#include <QTemporaryDir>
#include <QTest>

#include "run_cli.h"
#include "support/test_list.h"

using namespace rim::test;

class TestCliStrokes : public QObject {
  Q_OBJECT

 private slots:
  void theSwallowIsDrawnAgain() {
    const QJsonObject got =
        report({"trace", demo("swallow.jpg"), "-o", at("s.svg"), "--dpi", "25.4", "--method", "centreline", "--heal",
                "26", "--save-job", at("s.snugrim"), "--receipt", at("s.json"), "--strict"});
    QCOMPARE(got["closed"].toInt(), 3);
    QCOMPARE(got["open"].toInt(), 11);
    const QJsonArray strokes = got["strokes"].toArray();
    QCOMPARE(strokes.size(), 14);
    for (const QJsonValue& stroke : strokes) {
      const QJsonObject s = stroke.toObject();
      // The pen is 9.5 px wide; the scan's ink runs a little.
      QVERIFY2(std::abs(s["width_mm"].toDouble() - 9.5) < 0.5, qPrintable(QString::number(s["width_mm"].toDouble())));
      QVERIFY(s["least_mm"].toDouble() <= s["width_mm"].toDouble() &&
              s["most_mm"].toDouble() >= s["width_mm"].toDouble());
    }
    // As few as the pen drew curves, about: a fifth of what the borders need would do.
    const QJsonObject borders = report({"trace", demo("swallow.jpg"), "-o", at("o.svg"), "--method", "outline"});
    const int nodes = got["nodes"].toInt();
    QVERIFY2(nodes > 0 && 5 * nodes < borders["nodes"].toInt(), qPrintable(QString::number(nodes)));
    const Run checked = cli({"check", at("s.snugrim")});
    QCOMPARE(checked.code, 0);
    QVERIFY2(checked.out.contains("11 of them open lines of a pen"), qPrintable(checked.out));
    QVERIFY(contents(at("s.json")).contains("\"clean\": true"));
    // Unhealed there are as many more pieces as there are breaks in open lines, and the rings are open.
    const QJsonObject broken = report({"trace", demo("swallow.jpg"), "-o", at("b.svg"), "--method", "centreline"});
    QCOMPARE(broken["closed"].toInt(), 1);
    QCOMPARE(broken["outlines"].toInt(), 17);
  }

  void strokesBecomeShapesAgain() {
    QCOMPARE(cli({"trace", demo("swallow.jpg"), "-o", at("s.svg"), "--dpi", "25.4", "--method", "centreline",
                  "--save-job", at("s.snugrim"), "--quiet"})
                 .code,
             0);
    const QJsonObject thick = report({"refine", at("s.snugrim"), "-o", at("t.svg"), "--thicken", "0"});
    QCOMPARE(thick["open"].toInt(), 0);
    QVERIFY(thick["closed"].toInt() >= 17);
  }

  void linesLookAsWished() {
    QCOMPARE(cli({"trace", demo("swallow.jpg"), "-o", at("h.svg"), "--method", "centreline", "--quiet"}).code, 0);
    QVERIFY(contents(at("h.svg")).contains("stroke-width=\"0.1\"") && !contents(at("h.svg")).contains("evenodd"));
    QCOMPARE(cli({"trace", demo("swallow.jpg"), "-o", at("w.svg"), "--method", "centreline", "--stroke-look", "width",
                  "--dpi", "25.4", "--quiet"})
                 .code,
             0);
    QVERIFY(contents(at("w.svg")).contains("stroke-linecap=\"round\""));
    QVERIFY(contents(at("w.svg")).contains("stroke-width=\"9."));
  }

  void areasKeepTheirBorders() {
    // Nothing in the weather vane is a stroke for a narrow limit; all of it for one that is wide enough.
    const QString vane = demo("weather-vane.png");
    const QJsonObject narrow =
        report({"trace", vane, "-o", at("n.svg"), "--method", "mixed", "--stroke-limit", "0.5", "--quiet"});
    QVERIFY(narrow["closed"].toInt() > 0);
    QCOMPARE(narrow["open"].toInt(), 0);
    const QJsonObject wide =
        report({"trace", vane, "-o", at("w.dxf"), "--method", "mixed", "--stroke-limit", "5000", "--quiet"});
    QVERIFY(wide["open"].toInt() > 0 && !wide["strokes"].toArray().isEmpty());
    QVERIFY(contents(at("w.dxf")).contains("lines"));
  }

  void senselessIsRefused_data() {
    QTest::addColumn<QStringList>("options");
    QTest::newRow("no method") << QStringList{"--method", "skeleton"};
    QTest::newRow("no width") << QStringList{"--method", "mixed", "--stroke-limit", "0"};
    QTest::newRow("not a number") << QStringList{"--method", "mixed", "--stroke-limit", "nan"};
    QTest::newRow("heals backwards") << QStringList{"--method", "centreline", "--heal", "-3"};
    QTest::newRow("no ends") << QStringList{"--method", "centreline", "--ends", "pencil"};
    QTest::newRow("inks") << QStringList{"--method", "centreline", "--colours", "auto"};
  }
  void senselessIsRefused() {
    QFETCH(QStringList, options);
    const Run run = cli(QStringList{"trace", demo("swallow.jpg"), "-o", at("x.svg")} + options);
    QCOMPARE(run.code, 2);
    QCOMPARE(run.err.trimmed().count('\n'), 0);
    QVERIFY(!QFile::exists(at("x.svg")));
  }

 private:
  QString at(const char* name) const { return folder_.filePath(name); }
  QTemporaryDir folder_;
};

RIM_TEST(TestCliStrokes)
#include "tst_cli_strokes.moc"
