#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTest>
#include <fstream>

#include "core/error.h"
#include "core/io/export.h"
#include "core/io/report.h"
#include "core/io/svg/write_svg.h"
#include "support/drawings.h"
#include "support/test_list.h"

using namespace rim;

namespace {

Drawing halfDisc() {
  Drawing drawing;
  drawing.pageWidth = 20;
  drawing.pageHeight = 10;
  setPaths(drawing, {{{5, 2}, {Segment::line({15, 2}), Segment::arc({5, 2}, 1)}, true}});
  return drawing;
}

std::string get(const std::filesystem::path& file) {
  std::ifstream in(file, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

}  // namespace

class TestWrite : public QObject {
  Q_OBJECT

 private slots:
  void svgIsWrittenToTheLetter() {
    writeSvg(halfDisc(), at("half.svg"));
    const QString text = QString::fromStdString(get(at("half.svg")));
    QVERIFY(text.contains("width=\"20mm\" height=\"10mm\" viewBox=\"0 0 20 10\""));
    // Counter-clockwise with y up is sweep 0 with y down (SVG 1.1, 8.3.8).
    QVERIFY2(text.contains("d=\"M5,8 L15,8 A5,5 0 0,0 10,3 A5,5 0 0,0 5,8 Z\""), qPrintable(text));
  }

  void numbersOfSvgHaveSixDecimalsAtMost_data() {
    QTest::addColumn<double>("number");
    QTest::addColumn<QString>("written");
    QTest::newRow("nothing") << 0.0 << "0";
    QTest::newRow("less than nothing") << -0.0000004 << "0";
    QTest::newRow("least") << 0.000001 << "0.000001";
    QTest::newRow("zeros before") << -1.05 << "-1.05";
    QTest::newRow("zeros behind") << 120.5 << "120.5";
    QTest::newRow("all six") << 123456.789012 << "123456.789012";
    QTest::newRow("more than six") << 2.0 / 3 << "0.666667";
    QTest::newRow("up to the next") << 999999.9999996 << "1000000";
    QTest::newRow("far off") << -3e12 << "-3000000000000";
  }
  void numbersOfSvgHaveSixDecimalsAtMost() {
    QFETCH(double, number);
    QFETCH(QString, written);
    Drawing drawing;
    setPaths(drawing,
             {Path{{number, 0}, {Segment::line({7, 0}), Segment::line({7, -7}), Segment::line({number, 0})}, true}});
    const QString text = QString::fromStdString(svgText(drawing, {}));
    QVERIFY2(text.contains(" d=\"M" + written + ",0 L7,0"), qPrintable(text));
  }

  void dxfHoldsTheBulge() {
    writeDxf(halfDisc(), at("half.dxf"), DxfVersion::Dxf2000);
    const QString text = QString::fromStdString(get(at("half.dxf")));
    QVERIFY(text.contains("LWPOLYLINE"));
    QVERIFY(text.contains(QRegularExpression("\\n *42\\n1(\\.0+)?\\n")));
    QVERIFY(text.trimmed().endsWith("EOF"));
  }

  void aNoteOfOriginStandsInTheFileOnRequest() {
    writeSvg(halfDisc(), at("note.svg"), "from <Ada> & co");
    QVERIFY(get(at("note.svg")).find("<desc>from &lt;Ada&gt; &amp; co</desc>") != std::string::npos);
    writeDxf(halfDisc(), at("note.dxf"), DxfVersion::Dxf2000, "two\nlines");
    QVERIFY(get(at("note.dxf")).find("999\ntwo lines\n") != std::string::npos);
  }

  void r12RefusesCurves() {
    Drawing drawing = halfDisc();
    Path curved = drawing.path(0);
    curved.segments[0] = Segment::cubic({7, 3}, {12, 3}, {15, 2});
    drawing.setPath(0, curved);
    QVERIFY_THROWS_EXCEPTION(InputError, writeDxf(drawing, at("r12.dxf"), DxfVersion::R12));
    QVERIFY(!std::filesystem::exists(at("r12.dxf")));
  }

  void theEndingPicksTheKind() {
    QVERIFY(fileKindOf("a/b.SVG") == FileKind::Svg);
    QVERIFY(fileKindOf("b.dxf") == FileKind::Dxf);
    QVERIFY_THROWS_EXCEPTION(InputError, fileKindOf("b"));
    QVERIFY_THROWS_EXCEPTION(InputError, fileKindOf("b.ngc"));
  }

  void theReportSaysWhatIsThere() {
    const std::string report = reportJson(halfDisc(), "half\xff.png", 0.5);
    QVERIFY(report.find("\"outlines\": 1") != std::string::npos);
    QVERIFY(report.find("\"lines\": 1") != std::string::npos);
    QVERIFY(report.find("\"width_mm\": 10.0") != std::string::npos);
    QVERIFY(report.find("\"height_mm\": 5.0") != std::string::npos);
    QVERIFY(report.find("\"seconds\": 0.5") != std::string::npos);
  }

 private:
  std::filesystem::path at(const char* name) const { return folder_.filePath(name).toStdString(); }
  QTemporaryDir folder_;
};

RIM_TEST(TestWrite)
#include "tst_write.moc"
