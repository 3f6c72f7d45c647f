// The exported files as ezdxf, svgelements and librsvg understand them.

#include <QImage>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

#include "core/io/export.h"
#include "core/job/stages.h"
#include "core/picture/load.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;

namespace {

QJsonObject readBack(const QStringList& files) {
  QProcess python;
  python.start("/usr/bin/python3", QStringList{SOURCE_FOLDER "/tests/outside/read_back.py"} + files);
  python.waitForFinished(120'000);
  const QByteArray out = python.readAllStandardOutput();
  if (python.exitCode() != 0) qWarning().noquote() << python.readAllStandardError();
  return QJsonDocument::fromJson(out).object();
}

job::Job badgeJob() {
  job::Job job =
      job::workedOut(job::jobOn(picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/badge.jpg"))));
  job.size = {job::SizeWish::Of::OutlinesWidth, 123.456};
  return job;
}

}  // namespace

class TestReadBack : public QObject {
  Q_OBJECT

 private slots:
  void initTestCase() { job_ = badgeJob(); }

  void everyFileHoldsTheOutlinesAndNothingElse_data() {
    QTest::addColumn<QString>("name");
    QTest::addColumn<int>("form");
    QTest::addColumn<bool>("r12");
    QTest::addColumn<QStringList>("kinds");
    const QStringList svg{"path", "svg"};
    QTest::newRow("SVG of curves") << "a.svg" << int(CurveForm::Beziers) << false << svg;
    QTest::newRow("SVG of arcs") << "b.svg" << int(CurveForm::Arcs) << false << svg;
    QTest::newRow("SVG of lines") << "c.svg" << int(CurveForm::Lines) << false << svg;
    QTest::newRow("DXF of arcs") << "a.dxf" << int(CurveForm::Arcs) << false << QStringList{"LWPOLYLINE", "CIRCLE"};
    QTest::newRow("DXF of lines") << "b.dxf" << int(CurveForm::Lines) << false << QStringList{"LWPOLYLINE"};
    QTest::newRow("DXF of splines") << "c.dxf" << int(CurveForm::Beziers) << false
                                    << QStringList{"LWPOLYLINE", "SPLINE", "CIRCLE", "ELLIPSE"};
    QTest::newRow("R12 of arcs") << "d.dxf" << int(CurveForm::Arcs) << true << QStringList{"POLYLINE", "CIRCLE"};
  }
  void everyFileHoldsTheOutlinesAndNothingElse() {
    QFETCH(QString, name);
    QFETCH(int, form);
    QFETCH(bool, r12);
    QFETCH(QStringList, kinds);
    const QString file = folder_.filePath(name);
    job::ExportSettings settings;
    settings.curves = static_cast<CurveForm>(form);
    if (r12) settings.dxf = job::DxfVersion::R12;
    io::exportJob(job_, file.toStdString(), settings);
    const QJsonObject facts = readBack({file});
    QCOMPARE(facts["outlines"].toInt(), static_cast<int>(job_.tracing->outlines.size()));
    QCOMPARE(facts["closed"], facts["outlines"]);
    for (const auto& kind : facts["kinds"].toArray())
      QVERIFY2(kinds.contains(kind.toString()), qPrintable(kind.toString()));
    // The gauge shows the box of drawingOf().
    const Box gauge = boxOf(pathsOf(job::drawingOf(job_)));
    const QJsonArray box = facts["box"].toArray();
    QVERIFY(qAbs(box[2].toDouble() - box[0].toDouble() - gauge.width()) < 1e-3);
    QVERIFY(qAbs(box[3].toDouble() - box[1].toDouble() - gauge.height()) < 1e-3);
    QVERIFY(qAbs(box[0].toDouble() - gauge.low.x) < 1e-3 && qAbs(box[1].toDouble() - gauge.low.y) < 1e-3);
    if (name.endsWith("dxf")) verifyHeader(facts, gauge, r12);
    if (name.endsWith("svg")) verifyPage(facts);
  }

  void dxfAndSvgOfOneTraceAgree() {
    job::ExportSettings arcs;
    arcs.curves = CurveForm::Arcs;
    io::exportJob(job_, folder_.filePath("same.dxf").toStdString(), arcs);
    io::exportJob(job_, folder_.filePath("same.svg").toStdString(), arcs);
    const double distance =
        readBack({folder_.filePath("same.dxf"), folder_.filePath("same.svg")})["distance"].toDouble(9);
    QVERIFY2(distance < 1e-3, qPrintable(QString::number(distance)));
  }

  void dxfArcsFollowTheSvgCurvesWithinTheirTolerance() {
    io::exportJob(job_, folder_.filePath("own.dxf").toStdString(), {});
    io::exportJob(job_, folder_.filePath("own.svg").toStdString(), {});
    const double distance =
        readBack({folder_.filePath("own.dxf"), folder_.filePath("own.svg")})["distance"].toDouble(9);
    const double largest = 0.03 * job::mmPerPixel(job_);
    QVERIFY2(distance < largest, qPrintable(QStringLiteral("%1 of %2").arg(distance).arg(largest)));
  }

  void anSvgViewerFillsTheInkAndLeavesTheHolesOpen() {
    const cv::Mat grey = test::drawn(200, 200, test::ring(100, 100, 80, 40));
    const job::Job ring = job::workedOut(job::jobOn(test::pictureOf(grey)));
    io::exportJob(ring, folder_.filePath("ring.svg").toStdString(), {});
    QProcess rsvg;
    rsvg.start("rsvg-convert", {"-w", "200", "-h", "200", "-b", "white", folder_.filePath("ring.svg"), "-o",
                                folder_.filePath("ring.png")});
    QVERIFY(rsvg.waitForFinished(60'000) && rsvg.exitCode() == 0);
    const QImage seen(folder_.filePath("ring.png"));
    QCOMPARE(seen.size(), QSize(200, 200));
    double off = 0;
    for (int y = 0; y < 200; ++y) {
      for (int x = 0; x < 200; ++x) off += qAbs(qGray(seen.pixel(x, y)) - grey.at<std::uint8_t>(y, x)) / 255.0;
    }
    // Of 15 080 px of ink; the edge is 754 px long.
    QVERIFY2(off < 40, qPrintable(QString::number(off)));
  }

  void aDrawingWithoutOutlinesIsAValidFile() {
    const job::Job blank = job::workedOut(job::jobOn(test::pictureOf(cv::Mat(10, 10, CV_8UC1, cv::Scalar(255)))));
    for (const char* name : {"blank.svg", "blank.dxf"}) {
      io::exportJob(blank, folder_.filePath(name).toStdString(), {});
      QCOMPARE(readBack({folder_.filePath(name)})["outlines"].toInt(-1), 0);
    }
  }

 private:
  static void verifyHeader(const QJsonObject& facts, const Box& gauge, bool r12) {
    const QJsonObject header = facts["header"].toObject();
    QCOMPARE(facts["version"].toString(), r12 ? "AC1009" : "AC1015");
    QCOMPARE(facts["errors"].toInt(), 0);
    QCOMPARE(header["$INSUNITS"].toInt(), 4);
    QCOMPARE(header["$MEASUREMENT"].toInt(), 1);
    QVERIFY(qAbs(header["$EXTMIN"].toArray()[0].toDouble() - gauge.low.x) < 1e-3);
    QVERIFY(qAbs(header["$EXTMAX"].toArray()[1].toDouble() - gauge.high.y) < 1e-3);
  }

  void verifyPage(const QJsonObject& facts) const {
    const QJsonArray page = facts["page"].toArray();
    const QJsonArray view = facts["viewBox"].toArray();
    QVERIFY(qAbs(page[0].toDouble() - 320 * job::mmPerPixel(job_)) < 1e-5);
    QCOMPARE(view[2], page[0]);
    QCOMPARE(view[3], page[1]);
  }

  QTemporaryDir folder_;
  job::Job job_;
};

RIM_TEST(TestReadBack)
#include "tst_read_back.moc"
