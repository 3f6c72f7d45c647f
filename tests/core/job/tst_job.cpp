#include <QTest>

#include "core/job/stages.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

job::Job squareJob() {
  return job::workedOut(job::jobOn(pictureOf(drawn(100, 80, polygon({{20, 10}, {70, 10}, {70, 50}, {20, 50}})))));
}

}  // namespace

class TestJob : public QObject {
  Q_OBJECT

 private slots:
  void aPictureWithoutResolutionHas96DotsPerInch() {
    // W3C CSS Values and Units Level 3, section 6.2: 1px is 1/96 inch.
    QVERIFY(qAbs(job::mmPerPixel(squareJob()) - 25.4 / 96) < 1e-12);
  }

  void theSizeThatWasWishedComesOut_data() {
    QTest::addColumn<int>("of");
    QTest::addColumn<double>("value");
    QTest::addColumn<double>("mmPerPixel");
    using Of = job::SizeWish::Of;
    QTest::newRow("dots per inch") << int(Of::Resolution) << 25.4 << 1.0;
    QTest::newRow("picture width") << int(Of::PictureWidth) << 200.0 << 2.0;
    QTest::newRow("picture height") << int(Of::PictureHeight) << 40.0 << 0.5;
    QTest::newRow("outlines' width") << int(Of::OutlinesWidth) << 100.0 << 2.0;
    QTest::newRow("outlines' height") << int(Of::OutlinesHeight) << 80.0 << 2.0;
  }
  void theSizeThatWasWishedComesOut() {
    QFETCH(int, of);
    QFETCH(double, value);
    QFETCH(double, mmPerPixel);
    job::Job job = squareJob();
    job.size = {static_cast<job::SizeWish::Of>(of), value};
    QVERIFY2(qAbs(rim::job::mmPerPixel(job) / mmPerPixel - 1) < 2e-3,
             qPrintable(QString::number(rim::job::mmPerPixel(job))));
    const Box box = boxOf(pathsOf(job::drawingOf(job)));
    if (job.size.of == job::SizeWish::Of::OutlinesWidth) QVERIFY(qAbs(box.width() - value) < 1e-9);
    if (job.size.of == job::SizeWish::Of::OutlinesHeight) QVERIFY(qAbs(box.height() - value) < 1e-9);
  }

  void theOriginIsThePicturesLowerLeftCorner() {
    job::Job job = squareJob();
    job.size = {job::SizeWish::Of::Resolution, 25.4};
    const Box box = boxOf(pathsOf(job::drawingOf(job)));
    QVERIFY(qAbs(box.low.x - 20) < 0.05 && qAbs(box.low.y - 30) < 0.05);
    QCOMPARE(job::drawingOf(job).pageHeight, 80.0);
  }

  void withoutOutlinesAWishForThemFallsBack() {
    job::Job job = job::jobOn(pictureOf(drawn(20, 20, disc(10, 10, 5))));
    job.size = {job::SizeWish::Of::OutlinesWidth, 50};
    QVERIFY(qAbs(job::mmPerPixel(job) - 25.4 / 96) < 1e-12);
    QVERIFY(job::drawingOf(job).outlines.empty());
  }

  void lightInkIsRecognisedByADarkEdge() {
    QVERIFY(job::looksLightOnDark(pictureOf(drawn(50, 50, disc(25, 25, 10), 255, 0))));
    QVERIFY(!job::looksLightOnDark(pictureOf(drawn(50, 50, disc(25, 25, 10)))));
    QVERIFY(!job::looksLightOnDark(pictureOf(cv::Mat(9, 9, CV_8UC1, cv::Scalar(0)))));
  }
};

RIM_TEST(TestJob)
#include "tst_job.moc"
