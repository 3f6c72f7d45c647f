#include <QFile>
#include <QTest>

#include "core/error.h"
#include "core/io/dxf/read_dxf.h"
#include "core/io/read_drawing.h"
#include "support/test_list.h"

using namespace rim;

namespace {

std::string pairs(const QStringList& values) {
  // "code value" a string
  QString text;
  for (const QString& v : values) text += v.section(' ', 0, 0) + "\n" + v.section(' ', 1) + "\n";
  return text.toStdString();
}

std::string drawing(const QStringList& entities, const QStringList& header = {"9 $INSUNITS", "70 4"},
                    const QStringList& blocks = {}, const QStringList& layers = {}) {
  std::string text = pairs({"0 SECTION", "2 HEADER"}) + pairs(header) + pairs({"0 ENDSEC"});
  if (!layers.isEmpty()) {
    text += pairs({"0 SECTION", "2 TABLES", "0 TABLE", "2 LAYER"}) + pairs(layers) + pairs({"0 ENDTAB", "0 ENDSEC"});
  }
  text += pairs({"0 SECTION", "2 BLOCKS"}) + pairs(blocks) + pairs({"0 ENDSEC", "0 SECTION", "2 ENTITIES"});
  return text + pairs(entities) + pairs({"0 ENDSEC", "0 EOF"});
}

QString troubleOf(const std::string& text) {
  try {
    io::dxf::readDxf(text);
  } catch (const InputError& error) {
    return QString::fromUtf8(error.what());
  }
  return {};
}

const QStringList kLine{"0 LINE", "8 a", "10 0", "20 0", "11 3", "21 4"};

}  // namespace

class TestReadDxf : public QObject {
  Q_OBJECT

 private slots:
  void linesArcsAndCircles() {
    const io::ReadResult read =
        io::dxf::readDxf(drawing(kLine + QStringList{"0 ARC", "8 a", "10 0", "20 0", "40 2", "50 350", "51 10",
                                                     "0 CIRCLE", "8 a", "10 5", "20 5", "40 3"}));
    QCOMPARE(read.drawing.outlines.size(), 3U);
    QVERIFY(read.unitKnown);
    QCOMPARE(pathLength(read.drawing.path(0)), 5.0);
    QVERIFY(std::abs(pathLength(read.drawing.path(1)) - 2 * M_PI / 9) < 1e-9);
    QVERIFY(read.drawing.path(2).closed);
    QVERIFY(std::abs(std::abs(signedArea(read.drawing.path(2))) - 9 * M_PI) < 1e-9);
  }

  /// DXF reference, group code 42: the bulge is the tangent of a fourth of the included angle.
  void polylinesOldAndNewWithBulges() {
    const io::ReadResult read = io::dxf::readDxf(drawing(
        {"0 LWPOLYLINE", "8 a", "90 77", "70 1", "10 0",     "20 0", "42 1", "10 10", "20 0",  // the count is wrong
         "0 POLYLINE",   "8 a", "66 1",  "70 0", "0 VERTEX", "8 a",  "10 0", "20 0",  "42 0.5",
         "0 VERTEX",     "8 a", "10 4",  "20 0", "0 VERTEX", "8 a",  "10 4", "20 4",  "0 SEQEND"}));
    QCOMPARE(read.drawing.outlines.size(), 2U);
    QVERIFY(read.drawing.path(0).closed);
    QVERIFY(std::abs(pathLength(read.drawing.path(0)) - (10 + 5 * M_PI)) < 1e-9);
    QVERIFY(!read.drawing.path(1).closed);
    QCOMPARE(read.drawing.path(1).segments.size(), 2U);
    QCOMPARE(read.drawing.path(1).segments[0].bulge, 0.5);
  }

  void ellipsesAndSplines() {
    const io::ReadResult read = io::dxf::readDxf(
        drawing({"0 ELLIPSE", "8 a",  "10 0", "20 0", "11 6", "21 0", "40 0.5", "41 0", "42 6.283185307179586",
                 "0 SPLINE",  "8 a",  "70 8", "71 3", "72 8", "73 4", "40 0",   "40 0", "40 0",
                 "40 0",      "40 1", "40 1", "40 1", "40 1", "10 0", "20 0",   "10 1", "20 2",
                 "10 3",      "20 2", "10 4", "20 0"}));
    QCOMPARE(read.drawing.outlines.size(), 2U);
    QVERIFY(read.drawing.path(0).closed);
    QVERIFY(std::abs(std::abs(signedArea(read.drawing.path(0))) - M_PI * 18) < 0.01);
    const Segment& s = read.drawing.path(1).segments[0];
    QVERIFY(distance(s.handle1, {1, 2}) < 1e-9 && distance(s.handle2, {3, 2}) < 1e-9);
  }

  void blocksAreScaledTurnedAndRepeated() {
    const QStringList block = QStringList{"0 BLOCK", "2 B", "8 0", "10 1", "20 0"} +
                              QStringList{"0 LINE", "8 0", "10 1", "20 0", "11 2", "21 0", "0 ENDBLK"};
    const io::ReadResult read =
        io::dxf::readDxf(drawing({"0 INSERT", "8 red", "2 B", "10 10", "20 0", "41 2", "42 2", "50 90", "70 3", "44 5"},
                                 {"9 $INSUNITS", "70 4"}, block));
    QCOMPARE(read.drawing.outlines.size(), 3U);
    QVERIFY(distance(read.drawing.path(0).start, {10, 0}) < 1e-9);
    QVERIFY(distance(read.drawing.path(0).segments[0].end, {10, 2}) < 1e-9);
    QVERIFY(distance(read.drawing.path(2).start, {10, 10}) < 1e-9);  // columns run along the turned x
    QCOMPARE(read.drawing.layers[read.drawing.outlines[0].layer].name, std::string("red"));
  }

  void mirroredArcsOfAnExtrusion() {
    const io::ReadResult read = io::dxf::readDxf(
        drawing({"0 ARC", "8 a", "10 10", "20 0", "40 2", "50 0", "51 90", "210 0", "220 0", "230 -1"}));
    QVERIFY(distance(read.drawing.path(0).start, {-12, 0}) < 1e-9);
    QVERIFY(distance(read.drawing.path(0).segments.back().end, {-10, 2}) < 1e-9);
  }

  void unitsAreThoseOfTheFile_data() {
    QTest::addColumn<int>("code");
    QTest::addColumn<double>("mm");
    QTest::newRow("inches") << 1 << 25.4;
    QTest::newRow("feet") << 2 << 304.8;
    QTest::newRow("millimetres") << 4 << 1.0;
    QTest::newRow("centimetres") << 5 << 10.0;
    QTest::newRow("metres") << 6 << 1000.0;
  }
  void unitsAreThoseOfTheFile() {
    QFETCH(int, code);
    QFETCH(double, mm);
    const io::ReadResult read = io::dxf::readDxf(drawing(kLine, {"9 $INSUNITS", "70 " + QString::number(code)}));
    QVERIFY(std::abs(pathLength(read.drawing.path(0)) - 5 * mm) < 1e-9);
  }

  void missingUnitsAreTold() {
    const io::ReadResult read = io::dxf::readDxf(drawing(kLine, {}));
    QVERIFY(!read.unitKnown);
    QVERIFY(QString::fromStdString(io::unitChoices(read)).contains("inches 76.2 x 101.6 mm"));
    QVERIFY(std::abs(pathLength(io::dxf::readDxf(drawing(kLine, {}), {10.0}).drawing.path(0)) - 50) < 1e-9);
  }

  void hiddenLayersTextAndPaperAreLeftOut() {
    const QStringList layers{"0 LAYER", "2 off", "70 0",    "62 -3", "0 LAYER", "2 cold",
                             "70 1",    "62 3",  "0 LAYER", "2 a",   "70 0",    "62 1"};
    const io::ReadResult read = io::dxf::readDxf(
        drawing(kLine + QStringList{"0 LINE", "8 off", "10 0", "20 0",   "11 1", "21 1", "0 LINE", "8 cold", "10 0",
                                    "20 0",   "11 1",  "21 1", "0 TEXT", "8 a",  "10 0", "20 0",   "40 2",   "1 hello",
                                    "0 LINE", "67 1",  "8 a",  "10 0",   "20 0", "11 1", "21 1"},
                {"9 $INSUNITS", "70 4"}, {}, layers));
    QCOMPARE(read.drawing.outlines.size(), 1U);
    QCOMPARE(read.notes.size(), 3U);
    QVERIFY(QString::fromStdString(read.notes[0]).contains("1 TEXT"));
    QCOMPARE(read.drawing.layers[0].red, 255);
  }

  void badFilesSayWhatAndWhere_data() {
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<QString>("says");
    const auto row = [](const char* name, const std::string& text, const char* says) {
      QTest::newRow(name) << QByteArray::fromStdString(text) << QString(says);
    };
    row("nothing but words", "hello\nworld\n", "1: a group code is expected");
    row("a DWG", "AC1018 whatever", "save it as DXF");
    row("the beginning of a binary DXF", "AutoCAD Binary DXF\r\n", "cut off");
    row("radius 0", drawing({"0 ARC", "8 a", "10 0", "20 0", "40 0", "50 0", "51 90"}), "arc with radius 0");
    row("not a number", drawing({"0 LINE", "8 a", "10 nan", "20 0", "11 1", "21 1"}), "here stands \"nan\"");
    row("infinity", drawing({"0 LINE", "8 a", "10 inf", "20 0", "11 1", "21 1"}), "here stands \"inf\"");
    row("too large", drawing({"0 LINE", "8 a", "10 1e300", "20 0", "11 1", "21 1"}), "too large");
    row("a block in itself",
        drawing({"0 INSERT", "8 0", "2 B", "10 0", "20 0"}, {},
                {"0 BLOCK", "2 B", "8 0", "10 0", "20 0", "0 INSERT", "8 0", "2 B", "10 0", "20 0", "0 ENDBLK"}),
        "lies within itself");
    row("a block that is not there", drawing({"0 INSERT", "8 0", "2 X", "10 0", "20 0"}), "does not exist");
    row("a spline without knots", drawing({"0 SPLINE", "8 a", "71 3", "10 0", "20 0"}), "do not fit together");
    row("too many copies",
        drawing({"0 INSERT", "8 0", "2 B", "10 0", "20 0", "70 32000", "71 32000"}, {},
                {"0 BLOCK", "2 B", "8 0", "10 0", "20 0", "0 ENDBLK"}),
        "more than 1 000 000");
  }
  void badFilesSayWhatAndWhere() {
    QFETCH(QByteArray, text);
    QFETCH(QString, says);
    const QString trouble = troubleOf(text.toStdString());
    QVERIFY2(trouble.contains(says), qPrintable(trouble));
  }

  void theLineOfAFaultIsTheFilesOwn() {
    const std::string text = drawing(kLine + QStringList{"0 ARC", "8 a", "10 0", "20 0", "40 0", "50 0", "51 90"});
    const auto line = QString::fromStdString(text).split('\n').indexOf("ARC");  // its code stands one line above
    QVERIFY2(troubleOf(text).startsWith(QString::number(line) + ": "), qPrintable(troubleOf(text)));
  }

  void blocksThatMultiplyAreStopped() {
    QStringList blocks{"0 BLOCK", "2 B0", "8 0",  "10 0", "20 0", "0 LINE",
                       "8 0",     "10 0", "20 0", "11 1", "21 1", "0 ENDBLK"};
    for (int k = 1; k <= 12; ++k) {
      blocks << "0 BLOCK"
             << "2 B" + QString::number(k) << "8 0"
             << "10 0"
             << "20 0";
      for (int i = 0; i < 10; ++i)
        blocks << "0 INSERT"
               << "8 0"
               << "2 B" + QString::number(k - 1) << "10 0"
               << "20 0";
      blocks << "0 ENDBLK";
    }
    QVERIFY(
        troubleOf(drawing({"0 INSERT", "8 0", "2 B12", "10 0", "20 0"}, {}, blocks)).contains("more than 5 000 000"));
  }

  void cutOffAtAnyByteItIsRefusedOrWhole() {
    const std::string text = drawing(kLine + QStringList{"0 CIRCLE", "8 a", "10 5", "20 5", "40 3"});
    for (std::size_t n = 0; n + 1 < text.size(); ++n) {
      const QString trouble = troubleOf(text.substr(0, n));
      QVERIFY2(!trouble.isEmpty() || n + 2 >= text.size(), qPrintable(QString("cut at %1").arg(n)));
    }
    QVERIFY(troubleOf(text).isEmpty());
  }
};

RIM_TEST(TestReadDxf)
#include "tst_read_dxf.moc"
