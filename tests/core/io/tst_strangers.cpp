// Files as strangers write them: entities, code pages, binary files, hostile sizes. Each comes to its outlines or to a
// sentence.

#include <QElapsedTimer>
#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

#include "core/error.h"
#include "core/io/dxf/dxf_text.h"
#include "core/io/read_drawing.h"
#include "support/test_list.h"

using namespace rim;

namespace {

std::string svg(const std::string& content, const std::string& before = {}) {
  return before + "<svg xmlns='http://www.w3.org/2000/svg' width='10mm' height='10mm' viewBox='0 0 10 10'>" + content +
         "</svg>";
}

QString troubleOf(const std::string& bytes, const char* name) {
  try {
    io::readDrawing(bytes, name);
  } catch (const InputError& error) {
    return QString::fromUtf8(error.what());
  }
  return {};
}

std::string repeated(const std::string& text, int count) {
  std::string all;
  for (int i = 0; i < count; ++i) all += text;
  return all;
}

std::string dxf(const std::string& entities, const std::string& blocks = {}, const std::string& header = {},
                const std::string& tables = {}) {
  const auto section = [](const std::string& name, const std::string& content) {
    return "0\nSECTION\n2\n" + name + "\n" + content + "0\nENDSEC\n";
  };
  return section("HEADER", "9\n$INSUNITS\n70\n4\n" + header) + section("TABLES", tables) + section("BLOCKS", blocks) +
         section("ENTITIES", entities) + "0\nEOF\n";
}

std::string line(const std::string& layer) { return "0\nLINE\n8\n" + layer + "\n10\n0\n20\n0\n11\n3\n21\n4\n"; }

std::string block(int number, const std::string& content) {
  return "0\nBLOCK\n8\n0\n2\nB" + std::to_string(number) + "\n70\n0\n10\n0\n20\n0\n" + content + "0\nENDBLK\n";
}

std::string insert(int number, const std::string& more = {}) {
  return "0\nINSERT\n8\n0\n2\nB" + std::to_string(number) + "\n10\n1\n20\n0\n" + more;
}

/// Blocks that hold one another.
std::string chain(int count, const std::string& more = {}) {
  std::string blocks;
  for (int i = 0; i + 1 < count; ++i) blocks += block(i, insert(i + 1, more));
  return blocks + block(count - 1, line("0"));
}

}  // namespace

class TestStrangers : public QObject {
  Q_OBJECT

 private slots:
  /// As a common drawing program writes its SVG: the namespaces are entities of the file's own.
  void namespacesMayBeEntities() {
    const std::string text =
        "<!DOCTYPE svg PUBLIC \"-//W3C//DTD SVG 1.1//EN\" \"http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd\" ["
        "<!ENTITY ns_svg \"http://www.w3.org/2000/svg\"><!ENTITY ns_xlink \"http://www.w3.org/1999/xlink\">]>"
        "<svg xmlns=\"&ns_svg;\" xmlns:xlink=\"&ns_xlink;\" width=\"10mm\" height=\"10mm\" viewBox=\"0 0 10 10\">"
        "<defs><path id=\"a\" d=\"M0,0L5,0L5,5Z\"/></defs><use xlink:href=\"#a\"/></svg>";
    QCOMPARE(io::readDrawing(text, "a.svg").drawing.outlines.size(), 1U);
  }

  void nothingIsFetchedFromOtherFiles() {
    QTemporaryDir folder;
    QFile secret(folder.filePath("secret.txt"));
    QVERIFY(secret.open(QIODevice::WriteOnly));
    secret.write("M0,0L5,0L5,5Z");
    secret.close();
    const std::string text = svg("<path d='&other;'/><path d='M1,1L2,1L2,2Z'/>",
                                 "<!DOCTYPE svg [<!ENTITY other SYSTEM '" + secret.fileName().toStdString() + "'>]>");
    QCOMPARE(io::readDrawing(text, "a.svg").drawing.outlines.size(), 1U);
  }

  void hostileXmlIsRefusedSoon_data() {
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<QString>("says");
    const auto row = [](const char* name, const std::string& text, const char* says) {
      QTest::newRow(name) << QByteArray::fromStdString(text) << QString(says);
    };
    std::string attributes;
    for (int i = 0; i < 20'000; ++i) attributes += " a" + std::to_string(i) + "='1'";
    row("20 000 attributes", svg("<path d='M0,0L5,0L5,5Z'" + attributes + "/>"), "1000 attributes");
    const std::string large = "<!DOCTYPE svg [<!ENTITY e '" + repeated("M0,0L1,1", 3000) + "'>]>";
    row("an entity of 25 kB used 20 000 times", svg(repeated("<path d='&e;'/>", 20'000), large), "64 MB");
    std::string laughs = "<!DOCTYPE svg [<!ENTITY e0 'M0,0L1,1'>";
    for (int i = 1; i < 12; ++i)
      laughs += "<!ENTITY e" + std::to_string(i) + " '" + repeated("&e" + std::to_string(i - 1) + ";", 20) + "'>";
    row("a billion laughs", svg("<path d='&e11;'/>", laughs + "]>"), "64 MB");
    row("a billion laughs as content", svg("<desc>&e11;</desc>", laughs + "]>"), "64 MB");
    row("an entity within itself", svg("<path d='&a;'/>", "<!DOCTYPE svg [<!ENTITY a '&b;'><!ENTITY b '&a;'>]>"), "");
    row("groups in groups", svg(repeated("<g>", 5000) + repeated("</g>", 5000)), "256 deep");
  }
  void hostileXmlIsRefusedSoon() {
    QFETCH(QByteArray, text);
    QFETCH(QString, says);
    const QString trouble = troubleOf(text.toStdString(), "a.svg");
    QVERIFY2(!trouble.isEmpty() && trouble.contains(says), qPrintable(trouble));
  }

  void aDrawingOfManyMegabytesIsRead() {
    std::string d;
    for (int i = 0; i < 60'000; ++i)
      d.append("M")
          .append(std::to_string(i % 300))
          .append(".")
          .append(std::to_string(i % 7))
          .append(",")
          .append(std::to_string(i / 300))
          .append("h.5v.5h-.5zM-10.25,-11.75 ");
    QVERIFY(d.size() > 2'000'000);
    QCOMPARE(io::readDrawing(svg("<path d='" + repeated(d, 6) + "'/>"), "a.svg").drawing.outlines.size() > 1000, true);
  }

  void layersThatAreOffAreOffWhateverTheirCase() {
    // Group 62: a negative colour means that the layer is off.
    const std::string layers =
        "0\nTABLE\n2\nLAYER\n70\n1\n0\nLAYER\n2\nHidden\n70\n0\n62\n-3\n6\nCONTINUOUS\n0\nENDTAB\n";
    const io::ReadResult read =
        io::readDrawing(dxf(line("HIDDEN") + line("hidden") + line("Seen"), {}, {}, layers), "a.dxf");
    QCOMPARE(read.drawing.outlines.size(), 1U);
    QCOMPARE(read.drawing.layers.size(), 1U);
    const io::ReadResult same = io::readDrawing(dxf(line("Cut") + "0\nCIRCLE\n8\nCUT\n10\n9\n20\n9\n40\n2\n"), "a.dxf");
    QCOMPARE(same.drawing.layers.size(), 1U);
  }

  void textIsInTheCodePageThatIsNamed_data() {
    QTest::addColumn<QByteArray>("header");
    QTest::addColumn<QByteArray>("layer");
    QTest::addColumn<QString>("name");
    const auto page = [](const char* version, const char* name) {
      return QByteArray("9\n$ACADVER\n1\n") + version + "\n9\n$DWGCODEPAGE\n3\n" + name + "\n";
    };
    QTest::newRow("Western Europe") << page("AC1015", "ANSI_1252")
                                    << QByteArray(
                                           "Au\xDF"
                                           "en")
                                    << QString::fromUtf8("Außen");
    QTest::newRow("Central Europe") << page("AC1015", "ANSI_1250")
                                    << QByteArray(
                                           "\xF8"
                                           "ez")
                                    << QString::fromUtf8("řez");
    QTest::newRow("Cyrillic") << page("AC1015", "ANSI_1251") << QByteArray("\xF0\xE5\xE7") << QString::fromUtf8("рез");
    QTest::newRow("Japanese") << page("AC1015", "ANSI_932") << QByteArray("\x8D\xB7") << QString::fromUtf8("差");
    QTest::newRow("none named") << QByteArray() << QByteArray("\xE9t\xE9") << QString::fromUtf8("été");
    QTest::newRow("UTF-8 since 2007") << page("AC1021", "ANSI_1252")
                                      << QByteArray(
                                             "Au\xC3\x9F"
                                             "en")
                                      << QString::fromUtf8("Außen");
    QTest::newRow("letters by number") << page("AC1015", "ANSI_1252") << QByteArray("\\U+4E2D\\U+00df")
                                       << QString::fromUtf8("中ß");
    QTest::newRow("no such page") << page("AC1015", "ANSI_99999") << QByteArray("\xE9") << QString::fromUtf8("é");
  }
  void textIsInTheCodePageThatIsNamed() {
    QFETCH(QByteArray, header);
    QFETCH(QByteArray, layer);
    QFETCH(QString, name);
    const io::ReadResult read = io::readDrawing(dxf(line(layer.toStdString()), {}, header.toStdString()), "a.dxf");
    QCOMPARE(QString::fromStdString(read.drawing.layers.at(0).name), name);
  }

  void whatIsNoTextBecomesLettersAllTheSame() {
    QCOMPARE(io::dxf::asUtf8("a\xFF\xC3z\xE2\x82\xAC"), std::string("a\xEF\xBF\xBD\xEF\xBF\xBDz\xE2\x82\xAC"));
    QCOMPARE(io::dxf::asUtf8("\xC0\x80\xED\xA0\x80").find("\xC0"), std::string::npos);
    QCOMPARE(io::dxf::withDxfLetters("\\U+00"), std::string("\\U+00"));
  }

  void blocksWithinBlocksHaveALimit() {
    QCOMPARE(io::readDrawing(dxf(insert(0), chain(100)), "a.dxf").drawing.outlines.size(), 1U);
    const QString trouble = troubleOf(dxf(insert(0), chain(20'000)), "a.dxf");
    QVERIFY2(trouble.contains("500 deep"), qPrintable(trouble));
  }

  void blocksThatGrowWithoutBoundAreRefused() {
    for (const char* scale : {"41\n1000\n42\n1000\n", "41\n0.001\n42\n1000\n", "41\n-1000\n42\n0.001\n"}) {
      const QString trouble = troubleOf(dxf(insert(0), chain(200, scale)), "a.dxf");
      QVERIFY2(trouble.contains("too far away"), qPrintable(trouble));
    }
  }

  /// DXF reference, "Binary DXF Files": written by ezdxf in both forms.
  void binaryDxfIsRead_data() {
    QTest::addColumn<QByteArray>("version");
    QTest::newRow("codes of one byte (R12)") << QByteArray("R12");
    QTest::newRow("codes of two bytes (2000)") << QByteArray("R2000");
    QTest::newRow("2018") << QByteArray("R2018");
  }
  void binaryDxfIsRead() {
    QFETCH(QByteArray, version);
    QTemporaryDir folder;
    QProcess python;
    python.start("/usr/bin/python3",
                 {"-c",
                  "import sys, ezdxf; d = ezdxf.new(sys.argv[1]); d.units = 4; m = d.modelspace(); "
                  "m.add_line((0, 0), (3, 4), dxfattribs={'layer': 'rim'}); m.add_circle((10, 10), 2.5); "
                  "m.add_arc((0, 0), 7, 10, 100); d.layers.add('rim') if 'rim' not in d.layers else 0; "
                  "d.saveas(sys.argv[2], fmt='bin'); d.saveas(sys.argv[3])",
                  version, folder.filePath("binary.dxf"), folder.filePath("text.dxf")});
    QVERIFY(python.waitForFinished(60'000));
    QVERIFY2(python.exitCode() == 0, python.readAllStandardError().constData());
    const io::ReadResult binary = io::readDrawing(folder.filePath("binary.dxf").toStdString());
    const io::ReadResult text = io::readDrawing(folder.filePath("text.dxf").toStdString());
    QCOMPARE(binary.drawing.outlines.size(), 3U);
    QVERIFY(pathsOf(binary.drawing) == pathsOf(text.drawing) && binary.drawing.layers == text.drawing.layers);
    QCOMPARE(binary.mmPerUnit, text.mmPerUnit);
    // Cut anywhere it is told, not trusted.
    QFile whole(folder.filePath("binary.dxf"));
    QVERIFY(whole.open(QIODevice::ReadOnly));
    const QByteArray bytes = whole.readAll();
    for (qsizetype length = 0; length + 40 < bytes.size(); length += 331) {
      const QByteArray cut = bytes.first(length);
      QVERIFY_THROWS_EXCEPTION(InputError, io::readDrawing(cut.toStdString(), "a.dxf"));
    }
  }

  void readingCanBeStopped() {
    std::stop_source stop;
    stop.request_stop();
    io::ReadOptions options;
    options.stop = stop.get_token();
    QVERIFY_THROWS_EXCEPTION(Cancelled, io::readDrawing(svg("<path d='M0,0L5,0L5,5Z'/>"), "a.svg", options));
    QVERIFY_THROWS_EXCEPTION(Cancelled, io::readDrawing(dxf(line("a")), "a.dxf", options));
  }

  void piecesAreToldOncePerOutline() {
    const std::string pieces =
        svg("<path d='M1,1L5,1'/><path d='M5,5L5,1'/><path d='M5,5L1,1'/><path d='M8,8h1v1h-1z'/>");
    const io::ReadResult read = io::readDrawing(pieces, "a.svg");
    QCOMPARE(read.drawing.outlines.size(), 2U);
    QVERIFY(read.drawing.path(0).closed);
    const std::vector<mend::Finding> findings = io::unjoined(read);
    QCOMPARE(findings.size(), 1U);
    QCOMPARE(mend::nameOf(findings[0].kind), std::string("unjoined"));
    QCOMPARE(read.notes, (std::vector<std::string>{"1 outline was in 3 pieces whose ends meet; it is put together."}));
  }
};

RIM_TEST(TestStrangers)
#include "tst_strangers.moc"
