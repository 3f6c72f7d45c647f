#include <QFile>
#include <QTemporaryDir>
#include <QtTest>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/export.h"
#include "core/io/receipt.h"
#include "core/refine/edit/place.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

Drawing good() {
  return makeDrawing(
      {polygonThrough({{0, 0}, {60, 0}, {60, 40}, {0, 40}}), circlePath({20, 20}, 10), circlePath({20, 20}, 6)},
      {{"cut", 0, 0, 0}, {"inner ö", 255, 0, 0}}, {0, 0, 1});
}

}  // namespace

class TestReceipt : public QObject {
  Q_OBJECT

 private slots:
  void aGoodFileIsClean() {
    for (const char* name : {"a.dxf", "a.svg"}) {
      io::writeDrawing(good(), at(name), {});
      const Drawing meant = good();
      const io::Receipt receipt = io::receiptOf(at(name), &meant);
      QVERIFY2(receipt.clean, io::receiptText(receipt).c_str());
      QCOMPARE(receipt.unit, std::string("mm"));
      QCOMPARE(receipt.counts.closed, 3U);
      QCOMPARE(receipt.freePieces, 1U);
      QVERIFY(*receipt.deviationMm < 0.01);
      QVERIFY(receipt.thin.web && receipt.thin.gap && std::abs(receipt.thin.web->mm - 10) < 0.01);
      QCOMPARE(receipt.layers.size(), 2U);
      const auto json = nlohmann::json::parse(io::receiptJson(receipt));
      for (const char* key : {"file",
                              "format",
                              "unit",
                              "outlines",
                              "closed",
                              "open",
                              "doubled",
                              "crossing",
                              "nodes",
                              "lines",
                              "arcs",
                              "curves",
                              "box_mm",
                              "layers",
                              "deviation_mm",
                              "free_pieces",
                              "smallest_gap_mm",
                              "smallest_gap_at",
                              "thinnest_web_mm",
                              "thinnest_web_at",
                              "clean",
                              "remarks"})
        QVERIFY2(json.contains(key), key);
    }
    job::ExportSettings r12;
    r12.dxf = job::DxfVersion::R12;
    io::writeDrawing(io::inFormFor(good(), io::FileKind::Dxf, r12, 0.001), at("r12.dxf"), r12);
    QCOMPARE(io::receiptOf(at("r12.dxf")).format, std::string("DXF R12"));
    job::ExportSettings inch;
    inch.unit = Unit::Inch;
    io::writeDrawing(good(), at("in.dxf"), inch);
    const io::Receipt receipt = io::receiptOf(at("in.dxf"));
    QCOMPARE(receipt.unit, std::string("in"));
    QVERIFY(std::abs(receipt.boxMm.width() - 60) < 1e-6);
  }

  void whatIsWrongIsTold_data() {
    QTest::addColumn<int>("which");
    QTest::addColumn<QString>("word");
    const char* words[] = {"open",  "drawn twice", "cross", "missing",    "more than",
                           "scale", "lies up to",  "layer", "no outlines"};
    for (int i = 0; i < 9; ++i) QTest::newRow(words[i]) << i << QString(words[i]);
  }
  void whatIsWrongIsTold() {
    QFETCH(int, which);
    QFETCH(QString, word);
    Drawing drawing = good();
    const Drawing meant = good();
    Path open = drawing.path(1);
    open.segments.pop_back();
    open.closed = false;
    if (which == 0) drawing.setPath(1, open);
    if (which == 1) add(drawing, drawing.path(0));
    if (which == 2) add(drawing, polygonThrough({{50, 30}, {80, 30}, {80, 50}}));
    if (which == 3) drawing.outlines.pop_back();
    if (which == 4) add(drawing, circlePath({40, 20}, 4));
    if (which == 5) drawing = refine::scaledBy(drawing, 25.4);
    if (which == 6) drawing.setPath(2, circlePath({20.3, 20}, 6));
    if (which == 7) drawing.layers[1].name = "other";
    if (which == 8) drawing.outlines.clear();
    io::writeDrawing(drawing, at("bad.dxf"), {});
    const io::Receipt receipt = io::receiptOf(at("bad.dxf"), &meant);
    QVERIFY(!receipt.clean);
    QVERIFY2(QString::fromStdString(io::receiptText(receipt)).contains(word), io::receiptText(receipt).c_str());
  }

  void aFileThatIsCutOffIsNotClean() {
    io::writeDrawing(good(), at("whole.dxf"), {});
    QFile file(QString::fromStdString(at("whole.dxf").string()));
    QVERIFY(file.open(QIODevice::ReadOnly));
    const QByteArray bytes = file.readAll();
    const Drawing meant = good();
    for (int part = 1; part < 20; ++part) {
      QFile cut(QString::fromStdString(at("cut.dxf").string()));
      QVERIFY(cut.open(QIODevice::WriteOnly));
      cut.write(bytes.left(static_cast<int>(bytes.size() * part / 20)));
      cut.close();
      bool clean = false;
      try {
        clean = io::receiptOf(at("cut.dxf"), &meant).clean;
      } catch (const InputError&) {
        clean = false;
      }
      QVERIFY2(!clean, qPrintable(QString::number(part)));
    }
  }

 private:
  std::filesystem::path at(const std::string& name) const {
    return folder_.filePath(QString::fromStdString(name)).toStdString();
  }
  QTemporaryDir folder_;
};

RIM_TEST(TestReceipt)
#include "tst_receipt.moc"
