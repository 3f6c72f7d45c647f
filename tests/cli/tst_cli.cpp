#include <QColor>
#include <QFile>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTest>

#include "run_cli.h"
#include "support/test_list.h"

using namespace rim::test;

namespace {

QString picture(const char* name) { return QStringLiteral(TEST_DATA "/pictures/") + name; }
QString badge() { return demo("badge.png"); }

/// The width and height that an SVG says.
/// Whether a layer of a DXF is named by nearly this colour.
bool hasLayerLike(const QByteArray& dxf, const QColor& colour) {
  static const QRegularExpression name("#?([0-9a-f]{6})\\b");
  for (auto found = name.globalMatch(QString::fromLatin1(dxf)); found.hasNext();) {
    const QColor layer("#" + found.next().captured(1));
    const int off = std::max({std::abs(layer.red() - colour.red()), std::abs(layer.green() - colour.green()),
                              std::abs(layer.blue() - colour.blue())});
    if (off <= 3) return true;
  }
  return false;
}

QStringList pageOf(const QString& file) {
  QFile svg(file);
  if (!svg.open(QIODevice::ReadOnly)) return {};
  const QRegularExpression size("width=\"([^\"]+)\" height=\"([^\"]+)\"");
  return size.match(QString::fromUtf8(svg.readAll())).capturedTexts().mid(1);
}

}  // namespace

class TestCli : public QObject {
  Q_OBJECT

 private slots:
  void coloursGiveLayers() {
    const QString jpeg = demo("badge.jpg");
    const QJsonObject cutOut = report({"trace", jpeg, "-o", at("c.svg"), "--colours", "auto"});
    QCOMPARE(cutOut["open"].toInt(), 0);
    QFile svg(at("c.svg"));
    QVERIFY(svg.open(QIODevice::ReadOnly));
    QCOMPARE(svg.readAll().count("<g id=\"ink-"), 5);
    const QJsonObject silhouette =
        report({"trace", jpeg, "-o", at("s.svg"), "--colours", "6", "--layout", "silhouette"});
    QCOMPARE(silhouette["outlines"].toInt(), 1);
    const QJsonObject shared = report({"trace", jpeg, "-o", at("h.svg"), "--colours", "auto", "--layout", "shared"});
    QVERIFY(std::abs(2 * shared["length_mm"].toDouble() - cutOut["length_mm"].toDouble() -
                     silhouette["length_mm"].toDouble()) < 0.01);
    QCOMPARE(cli({"trace", jpeg, "-o", at("c.dxf"), "--colours", "auto"}).code, 0);
    QFile dxf(at("c.dxf"));
    QVERIFY(dxf.open(QIODevice::ReadOnly));
    const QByteArray text = dxf.readAll();
    // Sky, red and yellow as demo/make_demo.py paints them; the JPEG has changed them a little.
    for (const QColor& painted : {QColor(140, 199, 230), QColor(194, 36, 41), QColor(245, 186, 33)})
      QVERIFY2(hasLayerLike(text, painted), qPrintable(painted.name()));
    QCOMPARE(cli({"trace", jpeg, "-o", at("r.dxf"), "--colours", "auto", "--dxf", "r12"}).code, 0);
  }

  void coloursAreKeptMergedAndLeftOut() {
    const QString jpeg = demo("badge.jpg");
    const auto count = [&](const QStringList& more) {
      return report(QStringList{"trace", jpeg, "-o", at("k.svg"), "--colours", "auto"} + more)["outlines"].toInt();
    };
    QCOMPARE(count({"--keep", "#f5ba21"}), 2);
    QCOMPARE(count({"--keep", "#f5ba21,#c22328"}), 6);
    const int all = count({});
    // The cream lettering and rings become paper.
    QVERIFY(count({"--merge", "#faedcc,#fff"}) < all);
    count({"--background", "#8cc7e6"});
    QFile svg(at("k.svg"));
    QVERIFY(svg.open(QIODevice::ReadOnly));
    const QByteArray text = svg.readAll();
    QVERIFY(text.contains("ink-fffffe") && !text.contains("ink-8dc8e4"));
    const struct {
      QStringList arguments;
      const char* says;
    } wrong[] = {{{"--keep", "#00ff00"}, "no ink looks like #00ff00"},
                 {{"--keep", "red"}, "no colour"},
                 {{"--merge", "#fff"}, "two colours"},
                 {{"--merge", "#fff,#fffffe"}, "same ink"},
                 {{"--background", "zebra"}, "no colour"}};
    for (const auto& w : wrong) {
      const Run run = cli(QStringList{"trace", jpeg, "-o", at("w.svg"), "--colours", "auto"} + w.arguments);
      QCOMPARE(run.code, 2);
      QVERIFY2(run.err.contains(w.says), qPrintable(run.err));
      QCOMPARE(run.err.count('\n'), 1);
      QVERIFY(!QFile::exists(at("w.svg")));
    }
    QCOMPARE(cli({"trace", jpeg, "-o", at("w.svg"), "--colours", "1"}).code, 2);
    QCOMPARE(cli({"trace", jpeg, "-o", at("w.svg"), "--colours", "many"}).code, 2);
    QCOMPARE(cli({"trace", jpeg, "-o", at("w.svg"), "--keep", "#fff"}).code, 2);
    QCOMPARE(cli({"trace", jpeg, "-o", at("w.svg"), "--colours", "4", "--layout", "pile"}).code, 2);
  }

  void aTraceReportsWhatItWrote() {
    const QJsonObject r = report({"trace", badge(), "-o", at("a.svg"), "--width-mm", "80"});
    QCOMPARE(r["source"].toString(), badge());
    QVERIFY(r["outlines"].toInt() > 20);
    QCOMPARE(r["closed"], r["outlines"]);
    QCOMPARE(r["open"].toInt(), 0);
    QCOMPARE(r["nodes"].toInt(), r["lines"].toInt() + r["arcs"].toInt() + r["curves"].toInt());
    QVERIFY(qAbs(r["width_mm"].toDouble() - 75) < 0.3);  // the ring takes 300 of 320 px
    QVERIFY(r["length_mm"].toDouble() > 500);
    QVERIFY(r["seconds"].toDouble() > 0);
    QVERIFY(r["findings"].isArray() && r["repairs"].isArray());
    QVERIFY(QFile::exists(at("a.svg")));
  }

  void sizesMeanTheWholePicture_data() {
    QTest::addColumn<QStringList>("size");
    QTest::addColumn<double>("pageMm");
    QTest::newRow("width") << QStringList{"--width-mm", "100"} << 100.0;
    QTest::newRow("height") << QStringList{"--height-mm", "50"} << 50.0;
    QTest::newRow("dpi") << QStringList{"--dpi", "25.4"} << 320.0;
    QTest::newRow("nothing") << QStringList{} << 320 / 96.0 * 25.4;
    QTest::newRow("both, agreeing") << QStringList{"--width-mm", "64", "--height-mm", "64"} << 64.0;
  }
  void sizesMeanTheWholePicture() {
    QFETCH(QStringList, size);
    QFETCH(double, pageMm);
    QCOMPARE(cli(QStringList{"trace", badge(), "-o", at("p.svg"), "--quiet"} + size).code, 0);
    QFile file(at("p.svg"));
    QVERIFY(file.open(QIODevice::ReadOnly));
    const QString text = QString::fromUtf8(file.readAll());
    const auto width = QRegularExpression("width=\"([0-9.]+)mm\"").match(text).captured(1).toDouble();
    QVERIFY2(qAbs(width - pageMm) < 1e-3, qPrintable(QString::number(width)));
  }

  void curvesSayWhatTheOutlinesAreMadeOf() {
    QCOMPARE(report({"trace", badge(), "-o", at("c.svg")})["arcs"].toInt(), 0);
    QCOMPARE(report({"trace", badge(), "-o", at("c.dxf")})["curves"].toInt(), 0);
    const QJsonObject lines = report({"trace", badge(), "-o", at("c.dxf"), "--curves", "lines"});
    QCOMPARE(lines["arcs"].toInt() + lines["curves"].toInt(), 0);
    QVERIFY(report({"trace", badge(), "-o", at("c.dxf"), "--curves", "beziers"})["curves"].toInt() > 0);
  }

  void thresholdInvertAndSmallestPartChangeTheResult() {
    const int plain = report({"trace", badge(), "-o", at("t.svg")})["outlines"].toInt();
    QVERIFY(report({"trace", badge(), "-o", at("t.svg"), "--threshold", "40"})["outlines"].toInt() != plain);
    QVERIFY(report({"trace", badge(), "-o", at("t.svg"), "--invert"})["outlines"].toInt() != plain);
    QVERIFY(report({"trace", badge(), "-o", at("t.svg"), "--min-area", "500"})["outlines"].toInt() < plain);
  }

  void thePictureIsPreparedInTheOrderOfTheHelp() {
    const QString photo = QStringLiteral(SOURCE_FOLDER "/demo/window-card-photo.jpg");
    const QJsonObject clean =
        report({"trace", SOURCE_FOLDER "/demo/window-card.png", "-o", at("c.svg"), "--width-mm", "100"});
    const QJsonObject flat =
        report({"trace", photo, "-o", at("f.svg"), "--width-mm", "100", "--straighten", "--even-light"});
    QCOMPARE(flat["outlines"], clean["outlines"]);
    QVERIFY(qAbs(flat["width_mm"].toDouble() - clean["width_mm"].toDouble()) < 0.6);
    QVERIFY(qAbs(flat["height_mm"].toDouble() - clean["height_mm"].toDouble()) < 0.6);
    // Crop comes before enlarge, wherever they stand.
    const QJsonObject part =
        report({"trace", badge(), "-o", at("p.svg"), "--dpi", "25.4", "--enlarge", "2", "--crop", "100,70,120,100"});
    QVERIFY(part["width_mm"].toDouble() <= 120 && part["outlines"].toInt() > 0);
    // Sizes stay true, and so does the page.
    const QJsonObject same = report({"trace", badge(), "-o", at("q.svg"), "--dpi", "25.4", "--crop", "100,70,120,100"});
    QVERIFY(qAbs(part["width_mm"].toDouble() - same["width_mm"].toDouble()) < 0.5);
    QCOMPARE(pageOf(at("p.svg")).size(), 2);
    QCOMPARE(pageOf(at("p.svg")), pageOf(at("q.svg")));
    const QString small = picture("plain.png");
    QCOMPARE(cli({"trace", small, "-o", at("r.svg"), "--quiet"}).code, 0);
    QCOMPARE(cli({"trace", small, "-o", at("s.svg"), "--enlarge", "4", "--quiet"}).code, 0);
    QCOMPARE(pageOf(at("s.svg")), pageOf(at("r.svg")));
    QVERIFY(report({"trace", badge(), "-o", at("t.svg"), "--thicken", "4"})["outlines"].toInt() !=
            report({"trace", badge(), "-o", at("t.svg")})["outlines"].toInt());
    QVERIFY(report({"trace", badge(), "-o", at("t.svg"), "--auto-crop", "--denoise", "--fill-gaps", "2"})["outlines"]
                .toInt() > 0);
  }

  void aPhotoIsMadeTraceable() {
    const QString photo = SOURCE_FOLDER "/demo/window-card-photo.jpg";
    const QJsonObject whole = report({"trace", photo, "-o", at("p.svg"), "--make-traceable"});
    QCOMPARE(whole["outlines"].toInt(), 27);
    // What is asked for beside it comes after it.
    const QJsonObject cropped =
        report({"trace", photo, "-o", at("p.svg"), "--make-traceable", "--crop", "0,0,400,300", "--dpi", "25.4"});
    QVERIFY(cropped["outlines"].toInt() < 27);
    QVERIFY(cropped["width_mm"].toDouble() <= 400.1);
    QVERIFY(report({"trace", photo, "-o", at("p.svg"), "--straighten", "--lift-shadows", "150"})["outlines"].toInt() >
            20);
    QCOMPARE(cli({"trace", photo, "-o", at("p.svg"), "--lift-shadows", "1"}).code, 2);
  }

  void aBlankPictureIsAResult() {
    const Run run = cli({"trace", picture("all-white.png"), "-o", at("blank.dxf")});
    QCOMPARE(run.code, 0);
    QVERIFY(run.err.contains("no outlines"));
    QCOMPARE(run.err.count('\n'), 1);
    QVERIFY(QFile::exists(at("blank.dxf")));
    QVERIFY(cli({"trace", picture("all-white.png"), "-o", at("blank.svg"), "--quiet"}).err.isEmpty());
  }

  void badInputIsOneLineAndExit2_data() {
    QTest::addColumn<QStringList>("arguments");
    QTest::addColumn<QString>("says");
    const auto trace = [this](const QString& name, const QString& out) {
      return QStringList{"trace", name, "-o", at(qPrintable(out))};
    };
    QTest::newRow("no picture") << trace("/nowhere/none.png", "x.svg") << "no such file";
    QTest::newRow("cut short") << trace(picture("truncated.png"), "x.svg") << "truncated.png: ";
    QTest::newRow("a letter") << trace(picture("not-a-picture.png"), "x.svg") << "not a picture";
    QTest::newRow("too large") << trace(picture("claims-60000.png"), "x.svg") << "megapixels";
    QTest::newRow("unknown ending") << trace(badge(), "x.pdf") << "ending";
    QTest::newRow("no folder") << trace(badge(), "none/x.svg") << "x.svg: ";
    QTest::newRow("no command") << QStringList{} << "--help";
    QTest::newRow("no out") << QStringList{"trace", badge()} << "--help";
    QTest::newRow("threshold") << trace(badge(), "x.svg") + QStringList{"--threshold", "300"} << "--threshold";
    QTest::newRow("threshold word") << trace(badge(), "x.svg") + QStringList{"--threshold", "1e2"} << "--threshold";
    QTest::newRow("tolerance") << trace(badge(), "x.svg") + QStringList{"--tolerance", "-1"} << "--tolerance";
    QTest::newRow("not a number") << trace(badge(), "x.svg") + QStringList{"--min-area", "nan"} << "--min-area";
    QTest::newRow("unknown option") << trace(badge(), "x.svg") + QStringList{"--sparkle"} << "--sparkle";
    QTest::newRow("stretching") << trace(badge(), "x.svg") + QStringList{"--width-mm", "10", "--height-mm", "30"}
                                << "stretch";
    QTest::newRow("crop outside") << trace(badge(), "x.svg") + QStringList{"--crop", "300,0,50,50"}
                                  << "leaves the picture";
    QTest::newRow("crop of three") << trace(badge(), "x.svg") + QStringList{"--crop", "1,2,3"} << "--crop";
    QTest::newRow("no sheet") << trace(badge(), "x.svg") + QStringList{"--straighten"} << "no sheet of paper";
    QTest::newRow("enlarged too far") << trace(picture("one-pixel.png"), "x.svg") + QStringList{"--enlarge", "9"}
                                      << "--enlarge";
    QTest::newRow("nothing to thicken") << trace(picture("all-white.png"), "x.svg") + QStringList{"--thicken", "2"}
                                        << "one tone";
    QTest::newRow("curves in R12") << trace(badge(), "x.dxf") + QStringList{"--dxf", "r12", "--curves", "beziers"}
                                   << "R12";
  }
  void badInputIsOneLineAndExit2() {
    QFETCH(QStringList, arguments);
    QFETCH(QString, says);
    const Run run = cli(arguments);
    QCOMPARE(run.code, 2);
    QVERIFY2(run.err.startsWith("snugrim-cli: ") && run.err.count('\n') == 1, qPrintable(run.err));
    QVERIFY2(run.err.contains(says), qPrintable(run.err));
    QVERIFY(!QFile::exists(at("x.svg")) && !QFile::exists(at("x.dxf")));
  }

  void aFailureLeavesTheOlderFile() {
    QFile old(at("old.svg"));
    QVERIFY(old.open(QIODevice::WriteOnly));
    old.write("old");
    old.close();
    QCOMPARE(cli({"trace", picture("truncated.png"), "-o", at("old.svg")}).code, 2);
    QVERIFY(old.open(QIODevice::ReadOnly));
    QCOMPARE(old.readAll(), QByteArray("old"));
  }

  void helpAndVersionEndWell() {
    QCOMPARE(cli({"--help"}).code, 0);
    QCOMPARE(cli({"--version"}).code, 0);
    const Run help = cli({"trace", "--help"});
    for (const char* option : {"--threshold", "--invert", "--tolerance", "--min-area", "--width-mm", "--height-mm",
                               "--dpi", "--report", "--curves", "--corners", "--quiet"}) {
      QVERIFY2(help.out.contains(option), option);
    }
  }

 private:
  QString at(const char* name) const { return folder_.filePath(name); }
  QTemporaryDir folder_;
};

RIM_TEST(TestCli)
#include "tst_cli.moc"
