#include <QFile>
#include <QImage>
#include <QJsonArray>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTest>

#include "run_cli.h"
#include "support/test_list.h"

using namespace rim::test;

/// What `convert` writes, and what `receipt` says of it.
class TestCliConvert : public QObject {
  Q_OBJECT

 private slots:
  void initTestCase() {
    writeShapes(
        at("two.svg"),
        "<g><title>Schnitt ö</title><path d=\"M10 10H50V40H10Z\"/></g><g><title>cut</title><circle cx=\"70\" cy=\"70\" "
        "r=\"10\"/></g>");
    writeShapes(at("open.svg"), "<path fill=\"none\" stroke=\"black\" d=\"M10 10H50V40\"/>");
  }

  void coordinatesBeginWhereTheyShall_data() {
    QTest::addColumn<QStringList>("options");
    QTest::addColumn<QList<double>>("box");
    QTest::newRow("drawing") << QStringList{} << QList<double>{10, 20, 80, 90};
    QTest::newRow("lower left") << QStringList{"--origin", "lower-left"} << QList<double>{0, 0, 70, 70};
    QTest::newRow("centre") << QStringList{"--origin", "centre"} << QList<double>{-35, -35, 35, 35};
    QTest::newRow("page") << QStringList{"--page", "artwork", "--margin", "5"} << QList<double>{5, 5, 75, 75};
    QTest::newRow("inch") << QStringList{"--units", "in"} << QList<double>{10, 20, 80, 90};
    QTest::newRow("a layer") << QStringList{"--layer", "cut"} << QList<double>{60, 20, 80, 40};
  }
  void coordinatesBeginWhereTheyShall() {
    QFETCH(QStringList, options);
    QFETCH(QList<double>, box);
    QCOMPARE(cli(QStringList{"convert", at("two.svg"), "-o", at("o.dxf")} + options).code, 0);
    const QJsonArray found = report({"receipt", at("o.dxf")})["box_mm"].toArray();
    for (int i = 0; i < 4; ++i)
      QVERIFY2(std::abs(found[i].toDouble() - box[i]) < 1e-6, qPrintable(QString::number(found[i].toDouble())));
  }

  void pagesAreAsLargeAsAsked() {
    QCOMPARE(
        cli({"convert", at("two.svg"), "-o", at("p.svg"), "--page", "artwork", "--margin", "3", "--fill", "none"}).code,
        0);
    const QByteArray svg = read("p.svg");
    QVERIFY2(svg.contains("width=\"76mm\" height=\"76mm\" viewBox=\"0 0 76 76\""), svg.left(300).constData());
    QVERIFY(svg.contains("fill=\"none\"") && svg.contains("stroke-width"));
    QVERIFY(svg.contains("<title>Schnitt ö</title>"));
    QCOMPARE(cli({"convert", at("two.svg"), "-o", at("p.pdf")}).code, 0);
    QVERIFY(read("p.pdf").startsWith("%PDF"));
    QCOMPARE(cli({"convert", at("two.svg"), "-o", at("p.eps")}).code, 0);
    const QByteArray eps = read("p.eps");
    QVERIFY(eps.startsWith("%!PS-Adobe") && eps.contains("%%BoundingBox: 0 0 284 284"));
    QVERIFY(eps.contains("%%HiResBoundingBox: 0 0 283.464"));
    QCOMPARE(cli({"convert", at("two.svg"), "-o", at("p.png"), "--dpi", "254"}).code, 0);
    const QImage image(at("p.png"));
    QCOMPARE(image.size(), QSize(1000, 1000));
    QVERIFY(image.pixelColor(700, 700).lightness() < 128 && image.pixelColor(20, 20).lightness() > 200);
  }

  void circlesAreCirclesAndArcsTurnAQuarterAtMost() {
    writeShapes(at("arc.svg"), "<path d=\"M20 50 A30 30 0 1 1 80 50 L50 80 Z\"/><circle cx=\"50\" cy=\"50\" r=\"5\"/>");
    for (const char* version : {"2000", "r12"}) {
      QCOMPARE(cli({"convert", at("arc.svg"), "-o", at("arc.dxf"), "--dxf", version}).code, 0);
      const QString dxf = QString::fromUtf8(read("arc.dxf"));
      QCOMPARE(dxf.count(QRegularExpression("\nCIRCLE\n")), 1);
      auto bulges = QRegularExpression("\n 42\n([-0-9.e]+)\n").globalMatch(dxf.mid(dxf.indexOf("\nENTITIES\n")));
      int arcs = 0;
      while (bulges.hasNext()) {
        const double bulge = std::abs(bulges.next().captured(1).toDouble());
        QVERIFY2(bulge <= std::tan(M_PI / 8) + 1e-6, qPrintable(QString::number(bulge)));
        arcs += bulge > 0 ? 1 : 0;
      }
      QCOMPARE(arcs, 2);
    }
  }

  void layersKeepTheirNames() {
    QCOMPARE(cli({"convert", at("two.svg"), "-o", at("l.dxf")}).code, 0);
    QVERIFY(read("l.dxf").contains("Schnitt \\U+00F6"));
    const QJsonArray layers = report({"receipt", at("l.dxf"), "--against", at("two.svg")})["layers"].toArray();
    QCOMPARE(layers.size(), 2);
    QCOMPARE(layers[0].toObject()["name"].toString(), QString("Schnitt ö"));
    QCOMPARE(cli({"convert", at("two.svg"), "-o", at("each.svg"), "--file-each", "--quiet"}).code, 0);
    QVERIFY(QFile::exists(at("each-cut.svg")) && QFile::exists(at("each-Schnitt ö.svg")));
  }

  void pathsAndLayersAreAsAsked() {
    writeShapes(
        at("ring.svg"),
        "<path fill-rule=\"evenodd\" d=\"M10 10H50V40H10Z M20 20H30V30H20Z\"/><circle cx=\"70\" cy=\"70\" r=\"10\"/>");
    for (const auto& [what, count] : {std::pair{"layer", 1}, {"part", 2}, {"outline", 3}}) {
      QCOMPARE(cli({"convert", at("ring.svg"), "-o", at("r.svg"), "--paths", what}).code, 0);
      QCOMPARE(read("r.svg").count("<path "), count);
    }
    QCOMPARE(cli({"convert", at("ring.svg"), "-o", at("r.dxf"), "--layers", "role"}).code, 0);
    const QJsonArray layers = report({"receipt", at("r.dxf")})["layers"].toArray();
    QCOMPARE(layers.size(), 2);
    for (const auto& layer : layers) {
      const bool outside = layer.toObject()["name"].toString() == "outside";
      QVERIFY(outside || layer.toObject()["name"].toString() == "inside");
      QCOMPARE(layer.toObject()["outlines"].toInt(), outside ? 2 : 1);
    }
  }

  void aJobIsTheSameBytesAndADrawingToo() {
    QCOMPARE(cli({"convert", at("two.svg"), "-o", at("a.snugrim")}).code, 0);
    QTest::qWait(1100);  // whatever tells the time to a second
    QCOMPARE(cli({"convert", at("two.svg"), "-o", at("b.snugrim")}).code, 0);
    QCOMPARE(read("a.snugrim"), read("b.snugrim"));
    QCOMPARE(cli({"convert", at("a.snugrim"), "-o", at("back.svg"), "--quiet"}).code, 0);
    QCOMPARE(cli({"receipt", at("back.svg"), "--against", at("two.svg"), "--quiet"}).code, 0);
  }

  void receiptsAreWrittenAndJudged() {
    QCOMPARE(cli({"convert", at("two.svg"), "-o", at("o.dxf"), "--receipt", at("r.json"), "--strict"}).code, 0);
    const QJsonObject json = QJsonDocument::fromJson(read("r.json")).object();
    QVERIFY(json["clean"].toBool() && json["deviation_mm"].toDouble() < 0.01);
    QCOMPARE(cli({"receipt", at("open.svg"), "--quiet"}).code, 1);
    QVERIFY(cli({"receipt", at("open.svg")}).out.contains("open"));
    QCOMPARE(cli({"receipt", at("o.dxf"), "--against", at("open.svg"), "--quiet"}).code, 1);
    QCOMPARE(cli({"receipt", at("nowhere.dxf")}).code, 2);
    // A traced picture, with its job.
    const QString badge = SOURCE_FOLDER "/demo/badge.png";
    QCOMPARE(cli({"trace", badge, "-o", at("b.svg"), "--save-job", at("b.snugrim"), "--receipt", at("b.json"),
                  "--strict", "--quiet"})
                 .code,
             0);
    QCOMPARE(cli({"receipt", at("b.svg"), "--against", at("b.snugrim"), "--quiet"}).code, 0);
  }

  void whatMakesNoSenseIsRefused_data() {
    QTest::addColumn<QString>("options");
    for (const char* options :
         {"-o o.xyz", "-o o.svg --layer none", "-o o.svg --margin 3", "-o o.pdf --receipt -",
          "-o o.svg --page artwork --margin -1", "-o o.png --dpi 0", "-o o.png --dpi 9999", "-o o.svg --origin there"})
      QTest::newRow(options) << QString(options);
  }
  void whatMakesNoSenseIsRefused() {
    QFETCH(QString, options);
    QStringList arguments{"convert", at("two.svg")};
    for (const QString& word : options.split(' ')) arguments << (word.startsWith("o.") ? at(word) : word);
    const Run run = cli(arguments);
    QCOMPARE(run.code, 2);
    QCOMPARE(run.err.count('\n'), 1);
  }

 private:
  QString at(const QString& name) const { return folder_.filePath(name); }
  QByteArray read(const QString& name) const {
    QFile file(at(name));
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
  }
  QTemporaryDir folder_;
};

RIM_TEST(TestCliConvert)
#include "tst_cli_convert.moc"
