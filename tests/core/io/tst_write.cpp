#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTest>
#include <fstream>
#include <numbers>

#include "core/error.h"
#include "core/geometry/circle.h"
#include "core/geometry/elliptic_arc.h"
#include "core/io/export.h"
#include "core/io/read_drawing.h"
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

Path square(double at, double size) {
  return polygonThrough({{at, at}, {at + size, at}, {at + size, at + size}, {at, at + size}});
}

/// Two ellipses of curves, one of them aslant, a circle, and an egg.
Drawing shapes() {
  constexpr double kTurn = 2 * std::numbers::pi;
  const Path level = pathOf(EllipticArc{{20, 20}, {15, 0}, {0, 6}, 0, kTurn}, 1e-5);
  const Path aslant = pathOf(EllipticArc{{60, 20}, {10, 5}, {-2, 4}, 0, kTurn}, 1e-5);
  Path egg{{0, 0},
           {Segment::cubic({0, 8}, {6, 12}, {10, 12}), Segment::cubic({14, 12}, {16, 8}, {16, 0}),
            Segment::cubic({16, -20}, {14, -24}, {8, -24}), Segment::cubic({2, -24}, {0, -20}, {0, 0})},
           true};
  return makeDrawing({level, aslant, circlePathOf({90, 20}, 7, 1), egg});
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
    io::svg::writeSvg(halfDisc(), at("half.svg"));
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
    const QString text = QString::fromStdString(io::svg::svgText(drawing, {}));
    QVERIFY2(text.contains(" d=\"M" + written + ",0 L7,0"), qPrintable(text));
  }

  void dxfHoldsTheBulge() {
    io::dxf::writeDxf(halfDisc(), at("half.dxf"), job::DxfVersion::Dxf2000);
    const QString text = QString::fromStdString(get(at("half.dxf")));
    QVERIFY(text.contains("LWPOLYLINE"));
    QVERIFY(text.contains(QRegularExpression("\\n *42\\n1(\\.0+)?\\n")));
    QVERIFY(text.trimmed().endsWith("EOF"));
  }

  void everyObjectOfADxfHasAHandleOfItsOwnAndAnOwner() {
    const QString text = QString::fromStdString(io::dxf::dxfTextOf(shapes(), job::DxfVersion::Dxf2000));
    QStringList handles;
    QStringList owners;
    auto all = QRegularExpression("\\n +5\\n([0-9A-F]+)\\n330\\n([0-9A-F]+)\\n").globalMatch(text);
    while (all.hasNext()) {
      const auto one = all.next();
      handles << one.captured(1);
      owners << one.captured(2);
    }
    QVERIFY(handles.size() > 20);
    QCOMPARE(QSet<QString>(handles.begin(), handles.end()).size(), handles.size());
    for (const QString& owner : owners) QVERIFY2(owner == "0" || handles.contains(owner), qPrintable(owner));
    const auto seed = QRegularExpression("HANDSEED\\n +5\\n([0-9A-F]+)\\n").match(text);
    for (const QString& handle : handles) QVERIFY(handle.toUInt(nullptr, 16) < seed.captured(1).toUInt(nullptr, 16));
  }

  void r12HasTheSectionsThatReadersAskFor() {
    const QString text = QString::fromStdString(io::dxf::dxfTextOf(halfDisc(), job::DxfVersion::R12));
    QStringList sections;
    auto all = QRegularExpression("SECTION\\n +2\\n([A-Z]+)\\n").globalMatch(text);
    while (all.hasNext()) sections << all.next().captured(1);
    QCOMPARE(sections, (QStringList{"HEADER", "TABLES", "BLOCKS", "ENTITIES"}));
    QVERIFY(text.contains("\n$MODEL_SPACE\n"));
    QVERIFY(!text.contains("AcDb"));
  }

  void numbersOfDxfAreNoLongerThanTheyNeed() {
    Drawing drawing;
    setPaths(drawing, {polygonThrough({{1.0 / 3, 0}, {7, -0.0000001}, {1234.5, 9}})});
    const QString text = QString::fromStdString(io::dxf::dxfTextOf(drawing, job::DxfVersion::Dxf2000));
    QVERIFY(text.contains("\n 10\n0.333333\n 20\n0.0\n 10\n7.0\n 20\n0.0\n 10\n1234.5\n 20\n9.0\n"));
    drawing.frame = Frame::Inches;
    QVERIFY(QString::fromStdString(io::dxf::dxfTextOf(drawing, job::DxfVersion::Dxf2000)).contains("\n0.33333333\n"));
  }

  void anEllipseStandsForItsCurvesOnlyWithinWhatIsAllowed() {
    // Four cubics leave a large ellipse by more than a thousandth of a millimetre.
    constexpr double kTurn = 2 * std::numbers::pi;
    const Drawing large = makeDrawing({pathOf(EllipticArc{{0, 0}, {120, 0}, {0, 60}, 0, kTurn}, 0.1)});
    QVERIFY(QString::fromStdString(io::dxf::dxfTextOf(large, job::DxfVersion::Dxf2000)).contains("\nSPLINE\n"));
    QVERIFY(
        QString::fromStdString(io::dxf::dxfTextOf(large, job::DxfVersion::Dxf2000, {}, 0.1)).contains("\nELLIPSE\n"));
  }

  void ellipsesAndCirclesStandInADxfAsSuch() {
    io::dxf::writeDxf(shapes(), at("shapes.dxf"), job::DxfVersion::Dxf2000);
    const QString text = QString::fromStdString(get(at("shapes.dxf")));
    QCOMPARE(text.count("\nELLIPSE\n"), 2);
    QCOMPARE(text.count("\nCIRCLE\n"), 1);
    QCOMPARE(text.count("\nSPLINE\n"), 1);  // an egg
    const Drawing back = io::readDrawing(at("shapes.dxf")).drawing;
    const Drawing meant = shapes();
    for (std::size_t i = 0; i < meant.outlines.size(); ++i) {
      const Box a = boxOf(back.path(i));
      const Box b = boxOf(meant.path(i));
      QVERIFY(distance(a.low, b.low) < 1e-3 && distance(a.high, b.high) < 1e-3);
    }
  }

  void anSvgPathHoldsWhatIsWished() {
    Drawing drawing = makeDrawing({square(0, 10), square(2, 3), square(6, 2), square(20, 5), square(21, 1)});
    drawing.pageWidth = drawing.pageHeight = 30;
    const auto elements = [&](job::SvgElement element) {
      io::svg::SvgLook look;
      look.element = element;
      io::svg::writeSvg(drawing, at("e.svg"), std::string(), look);
      return QString::fromStdString(get(at("e.svg"))).count("<path ");
    };
    QCOMPARE(elements(job::SvgElement::Layer), 1);
    QCOMPARE(elements(job::SvgElement::Part), 2);
    QCOMPARE(elements(job::SvgElement::Outline), 5);
    // What is open is in no part and still there.
    Path open = square(40, 3);
    open.closed = false;
    add(drawing, open);
    QCOMPARE(elements(job::SvgElement::Part), 3);
  }

  void aNoteOfOriginStandsInTheFileOnRequest() {
    io::svg::writeSvg(halfDisc(), at("note.svg"), "from <Ada> & co");
    QVERIFY(get(at("note.svg")).find("<desc>from &lt;Ada&gt; &amp; co</desc>") != std::string::npos);
    io::dxf::writeDxf(halfDisc(), at("note.dxf"), job::DxfVersion::Dxf2000, "two\nlines");
    QVERIFY(get(at("note.dxf")).find("999\ntwo lines\n") != std::string::npos);
  }

  void r12RefusesCurves() {
    Drawing drawing = halfDisc();
    Path curved = drawing.path(0);
    curved.segments[0] = Segment::cubic({7, 3}, {12, 3}, {15, 2});
    drawing.setPath(0, curved);
    QVERIFY_THROWS_EXCEPTION(InputError, io::dxf::writeDxf(drawing, at("r12.dxf"), job::DxfVersion::R12));
    QVERIFY(!std::filesystem::exists(at("r12.dxf")));
  }

  void theEndingPicksTheKind() {
    QVERIFY(io::fileKindOf("a/b.SVG") == io::FileKind::Svg);
    QVERIFY(io::fileKindOf("b.dxf") == io::FileKind::Dxf);
    QVERIFY_THROWS_EXCEPTION(InputError, io::fileKindOf("b"));
    QVERIFY_THROWS_EXCEPTION(InputError, io::fileKindOf("b.ngc"));
  }

  void theReportSaysWhatIsThere() {
    const std::string report = io::reportJson(halfDisc(), "half\xff.png", 0.5);
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
