#include <QTemporaryDir>
#include <QTest>

#include "core/error.h"
#include "core/io/svg/read_svg.h"
#include "core/io/svg/write_svg.h"
#include "support/drawings.h"
#include "support/test_list.h"

using namespace rim;

namespace {

/// A document of 100 x 80 mm with user units of a millimetre.
std::string document(const char* content) {
  return std::string(
             "<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" "
             "width=\"100mm\" height=\"80mm\" viewBox=\"0 0 100 80\">") +
         content + "</svg>";
}

Path only(const char* content) {
  const io::ReadResult read = io::svg::readSvg(document(content));
  return read.drawing.outlines.size() == 1 ? read.drawing.path(0) : Path{};
}

QString troubleOf(const std::string& text) {
  try {
    io::svg::readSvg(text);
  } catch (const InputError& error) {
    return QString::fromUtf8(error.what());
  }
  return {};
}

}  // namespace

class TestReadSvg : public QObject {
  Q_OBJECT

 private slots:
  void shapesBecomeOutlines_data() {
    QTest::addColumn<QString>("shape");
    QTest::addColumn<double>("area");
    QTest::addColumn<double>("length");
    QTest::newRow("rect") << "<rect x='1' y='2' width='10' height='5'/>" << 50.0 << 30.0;
    QTest::newRow("rounded rect") << "<rect width='10' height='6' rx='2'/>" << 60 - (4 - M_PI) * 4 << 16 + 4 * M_PI;
    QTest::newRow("circle") << "<circle cx='20' cy='20' r='5'/>" << 25 * M_PI << 10 * M_PI;
    QTest::newRow("ellipse") << "<ellipse cx='20' cy='20' rx='5' ry='2'/>" << 10 * M_PI << 0.0;
    QTest::newRow("polygon") << "<polygon points='0,0 4,0 4,3'/>" << 6.0 << 12.0;
    QTest::newRow("path") << "<path d='M0 0h4v3z'/>" << 6.0 << 12.0;
    QTest::newRow("half disc") << "<path d='M0 0a5 5 0 0 1 10 0z'/>" << 12.5 * M_PI << 10 + 5 * M_PI;
    QTest::newRow("without a namespace") << "<g xmlns=''><rect width='3' height='4'/></g>" << 0.0 << 0.0;
  }
  void shapesBecomeOutlines() {
    QFETCH(QString, shape);
    QFETCH(double, area);
    QFETCH(double, length);
    const Path path = only(shape.toUtf8().constData());
    if (area == 0) return;
    QVERIFY(path.closed);
    QVERIFY2(std::abs(std::abs(signedArea(path)) - area) < 1e-3, qPrintable(QString::number(signedArea(path))));
    if (length > 0) QVERIFY(std::abs(pathLength(path) - length) < 1e-3);
  }

  void yTurnsUpOnThePage() {
    const Path path = only("<path d='M10 10L20 10'/>");
    QVERIFY(distance(path.start, {10, 70}) < 1e-9);
    QVERIFY(!path.closed);
  }

  void transformsNest() {
    const Path path = only(
        "<g transform='translate(10 0)'><g transform='rotate(90)'><path transform='scale(2)' "
        "d='M1 0L2 0'/></g></g>");
    QVERIFY(distance(path.start, {10, 78}) < 1e-9);
    QVERIFY(distance(path.segments[0].end, {10, 76}) < 1e-9);
  }

  void useAndSymbol() {
    const io::ReadResult read = io::svg::readSvg(
        document("<defs><rect id='r' width='4' height='2'/><symbol id='s' viewBox='0 0 1 1'><circle cx='.5' cy='.5' "
                 "r='.5'/></symbol></defs><use xlink:href='#r' x='10' y='10'/><use href='#r' x='30' y='10'/><use "
                 "xlink:href='#s' x='50' y='10' width='20' height='20'/>"));
    QCOMPARE(read.drawing.outlines.size(), 3U);
    QVERIFY(std::abs(boxOf(read.drawing.path(1)).low.x - 30) < 1e-9);
    QVERIFY(std::abs(std::abs(signedArea(read.drawing.path(2))) - 100 * M_PI) < 1e-3);
  }

  void hiddenThingsAreLeftOutAndTextIsNamed() {
    const io::ReadResult read = io::svg::readSvg(document(
        "<style>.gone { fill: red; display: none }</style><rect class='a gone' width='1' height='1'/><rect "
        "style='display:none' width='1' height='1'/><g visibility='hidden'><rect width='1' height='1'/></g><rect "
        "width='2' height='2'/><text>hi</text><image href='http://x.invalid/y.png'/>"));
    QCOMPARE(read.drawing.outlines.size(), 1U);
    QCOMPARE(read.notes.size(), 2U);
    QVERIFY(QString::fromStdString(read.notes[0]).contains("1 texts"));
    QVERIFY(QString::fromStdString(read.notes[1]).contains("other files"));
  }

  void whatTheFillHidesIsLeftOut_data() {
    QTest::addColumn<QString>("content");
    QTest::addColumn<int>("outlines");
    QTest::addColumn<int>("hidden");
    // SVG 1.1, 11.3: the same two squares as a hole or not, by the direction that they run and by the rule.
    const QString same = "d='M0 0H10V10H0Z M2 2H8V8H2Z'";
    const QString opposed = "d='M0 0H10V10H0Z M2 2V8H8V2Z'";
    QTest::newRow("same way round") << "<path " + same + "/>" << 1 << 1;
    QTest::newRow("the other way round") << "<path " + opposed + "/>" << 2 << 0;
    QTest::newRow("even-odd") << "<path fill-rule='evenodd' " + same + "/>" << 2 << 0;
    QTest::newRow("even-odd from around") << "<g fill-rule='evenodd'><path " + same + "/></g>" << 2 << 0;
    QTest::newRow("even-odd in a style") << "<path style='fill-rule:evenodd' " + same + "/>" << 2 << 0;
    QTest::newRow("even-odd by class") << "<style>.a{fill-rule:evenodd}</style><path class='a' " + same + "/>" << 2
                                       << 0;
    QTest::newRow("no fill") << "<path fill='none' " + same + "/>" << 2 << 0;
    QTest::newRow("no fill by class") << "<style>/* cut */ .st0, .st1 { fill : none; stroke:#000 }</style><path "
                                         "class='x st1' " +
                                             same + "/>"
                                      << 2 << 0;
    QTest::newRow("no fill by name") << "<style>path{fill:none !important}</style><path " + same + "/>" << 2 << 0;
    QTest::newRow("with a stroke") << "<g stroke='red'><path " + same + "/></g>" << 2 << 0;
    QTest::newRow("a style goes before an attribute") << "<path fill='none' style='fill:#123' " + same + "/>" << 1 << 1;
    QTest::newRow("one that crosses") << "<path d='M0 0H10V10H0Z M5 2H12V8H5Z'/>" << 2 << 0;
    QTest::newRow("beside") << "<path d='M0 0H10V10H0Z M20 2H22V8H20Z'/>" << 2 << 0;
    QTest::newRow("the same again") << "<path d='M0 0H10V10H0Z M0 0H10V10H0Z'/>" << 2 << 0;
    QTest::newRow("three deep") << "<path d='M0 0H20V20H0Z M2 2H18V18H2Z M4 4V16H16V4Z'/>" << 1 << 2;
    QTest::newRow("four deep") << "<path d='M0 0H20V20H0Z M2 2V18H18V2Z M4 4H16V16H4Z M6 6H12V12H6Z'/>" << 3 << 1;
    QTest::newRow("two shapes") << "<path d='M0 0H10V10H0Z'/><path d='M2 2H8V8H2Z'/>" << 2 << 0;
  }
  void whatTheFillHidesIsLeftOut() {
    QFETCH(QString, content);
    QFETCH(int, outlines);
    QFETCH(int, hidden);
    const io::ReadResult read = io::svg::readSvg(document(content.toUtf8().constData()));
    QCOMPARE(static_cast<int>(read.drawing.outlines.size()), outlines);
    QCOMPARE(read.notes.empty(), hidden == 0);
    if (hidden == 0) return;
    const QString note = QString::fromStdString(read.notes[0]);
    QVERIFY2(note.contains("fill rule nonzero") && note.contains(QString("%1 outline").arg(hidden)), qPrintable(note));
  }

  void styleSheetsHideWhatTheyAreFor() {
    const auto left = [](const char* sheet) {
      const std::string content = std::string("<style>") + sheet +
                                  "</style><g class='a b'><rect class='c' width='1' height='1'/></g><circle r='3'/>";
      return io::svg::readSvg(document(content.c_str())).drawing.outlines.size();
    };
    QCOMPARE(left(".a{display:none}"), std::size_t{1});
    QCOMPARE(left(".b .c{visibility:hidden}"), std::size_t{1});
    QCOMPARE(left(".c .b{visibility:hidden}"), std::size_t{1});
    QCOMPARE(left("circle,rect.c{display:none}"), std::size_t{0});
    QCOMPARE(left("#x{display:none} .d{display:none} .a{color:red"), std::size_t{2});
    QCOMPARE(left("circle{display:none} circle{display:inline}"), std::size_t{2});
  }

  void unitsComeFromWidthAndHeight_data() {
    QTest::addColumn<QString>("size");
    QTest::addColumn<double>("mm");
    QTest::addColumn<bool>("known");
    QTest::newRow("mm") << "width='50mm' height='50mm'" << 5.0 << true;
    QTest::newRow("inches") << "width='1in' height='1in'" << 2.54 << true;
    QTest::newRow("px") << "width='96' height='96'" << 2.54 << false;  // CSS: 96 px an inch
    QTest::newRow("none") << "" << 2.54 * 100 / 96 << false;
  }
  void unitsComeFromWidthAndHeight() {
    QFETCH(QString, size);
    QFETCH(double, mm);
    QFETCH(bool, known);
    const io::ReadResult read = io::svg::readSvg(
        ("<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 100 100' " + size + "><path d='M0 0L10 0'/></svg>")
            .toStdString());
    QVERIFY2(std::abs(pathLength(read.drawing.path(0)) - mm) < 1e-9,
             qPrintable(QString::number(pathLength(read.drawing.path(0)))));
    QCOMPARE(read.unitKnown, known);
  }

  void badFilesSayWhatAndWhere_data() {
    QTest::addColumn<QByteArray>("text");
    QTest::addColumn<QString>("says");
    QTest::newRow("no XML") << QByteArray("hello") << "cannot be read";
    QTest::newRow("no SVG") << QByteArray("<html/>") << "not \"svg\"";
    QTest::newRow("used within itself") << QByteArray::fromStdString(document("<g id='a'><use xlink:href='#a'/></g>"))
                                        << "used within itself";
    QTest::newRow("too far") << QByteArray::fromStdString(document("<path d='M0 0L1e300 0'/>")) << "too large";
    QByteArray deep;
    for (int k = 0; k < 100'000; ++k) deep += "<g>";
    QTest::newRow("too deep") << QByteArray("<svg xmlns='http://www.w3.org/2000/svg'>") + deep << "256 deep";
    QByteArray bomb = "<!DOCTYPE svg [<!ENTITY a0 'xxxxxxxxxx'>";
    for (int k = 1; k < 12; ++k) {
      bomb += "<!ENTITY a" + QByteArray::number(k) + " '";
      for (int i = 0; i < 10; ++i) bomb += "&a" + QByteArray::number(k - 1) + ";";
      bomb += "'>";
    }
    QTest::newRow("entity bomb") << bomb + "]><svg xmlns='http://www.w3.org/2000/svg'><path d='&a11;'/></svg>"
                                 << "64 MB";
  }
  void badFilesSayWhatAndWhere() {
    QFETCH(QByteArray, text);
    QFETCH(QString, says);
    const QString trouble = troubleOf(text.toStdString());
    QVERIFY2(trouble.contains(says), qPrintable(trouble));
  }

  void usesThatMultiplyAreStopped() {
    QByteArray text = "<defs><path id='u0' d='M0 0h1v1z'/>";
    for (int k = 1; k < 12; ++k) {
      text += "<g id='u" + QByteArray::number(k) + "'>";
      for (int i = 0; i < 10; ++i) text += "<use xlink:href='#u" + QByteArray::number(k - 1) + "'/>";
      text += "</g>";
    }
    const QString trouble = troubleOf(document((text + "</defs><use xlink:href='#u11'/>").constData()));
    QVERIFY2(trouble.contains("more than 1 000 000"), qPrintable(trouble));
  }

  void aPathOfFiveMegabytesIsRead() {
    std::string d = "M0 0";
    int count = 0;
    for (; d.size() < 5'000'000; ++count) d += count % 2 == 0 ? " L1.234 5.678" : " L8.765 4.321";
    const io::ReadResult read = io::svg::readSvg(document(("<path d='" + d + "'/>").c_str()));
    QCOMPARE(read.drawing.path(0).segments.size(), static_cast<std::size_t>(count));
  }

  void filesOutsideAreNeverFollowed() {
    QTemporaryDir folder;
    QFile secret(folder.filePath("secret"));
    QVERIFY(secret.open(QIODevice::WriteOnly));
    secret.write("M0 0h5v5z");
    secret.close();
    const QByteArray text = "<!DOCTYPE svg [<!ENTITY x SYSTEM 'file://" + folder.filePath("secret").toUtf8() +
                            "'>]><svg xmlns='http://www.w3.org/2000/svg'><path d='&x;'/></svg>";
    try {
      QVERIFY(io::svg::readSvg(text.toStdString()).drawing.outlines.empty());
    } catch (const InputError&) {
      QVERIFY(true);  // refused is as good
    }
  }

  void whatWasWrittenComesBack() {
    Drawing drawing;
    drawing.pageWidth = 60;
    drawing.pageHeight = 50;
    drawing.layers = {{"navy", 23, 41, 84}, {"red", 194, 35, 40}};
    setPaths(drawing, {{{30, 20}, {Segment::arc({10, 20}, 1), Segment::arc({30, 20}, 1)}, true},
                       {{5, 5}, {Segment::line({9, 5}), Segment::cubic({9, 8}, {7, 9}, {5, 9})}, false}});
    setLayers(drawing, {1, 0});
    const io::ReadResult read = io::svg::readSvg(io::svg::svgText(drawing));
    QCOMPARE(read.drawing.layers, drawing.layers);
    QCOMPARE(read.drawing.outlines.size(), 2U);
    QVERIFY(std::abs(pathLength(read.drawing.path(0)) - pathLength(drawing.path(1))) < 1e-5);
    QVERIFY(std::abs(signedArea(read.drawing.path(1)) - signedArea(drawing.path(0))) < 1e-3);
    QVERIFY(read.drawing.path(1).closed && !read.drawing.path(0).closed);
  }
};

RIM_TEST(TestReadSvg)
#include "tst_read_svg.moc"
