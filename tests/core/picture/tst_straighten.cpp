#include <QTest>
#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/find_sheet.h"
#include "core/picture/load.h"
#include "core/picture/straighten.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;

namespace {

/// The corners of a sheet `width` by 1 seen by a pinhole camera: the rotations are exact, so the
/// true ratio is known. The picture is 1600 x 1200, the focal length `focal` picture widths.
picture::Quad seen(double width, double tiltDegrees, double panDegrees, double rollDegrees, double focal = 1.2) {
  const double t = tiltDegrees * M_PI / 180;
  const double p = panDegrees * M_PI / 180;
  const double r = rollDegrees * M_PI / 180;
  const cv::Matx33d x(1, 0, 0, 0, std::cos(t), -std::sin(t), 0, std::sin(t), std::cos(t));
  const cv::Matx33d y(std::cos(p), 0, std::sin(p), 0, 1, 0, -std::sin(p), 0, std::cos(p));
  const cv::Matx33d z(std::cos(r), -std::sin(r), 0, std::sin(r), std::cos(r), 0, 0, 0, 1);
  picture::Quad corners;
  const double xs[] = {-1, 1, 1, -1};
  const double ys[] = {-1, -1, 1, 1};
  for (std::size_t i = 0; i < 4; ++i) {
    const cv::Vec3d at = z * y * x * cv::Vec3d(xs[i] * width / 2, ys[i] / 2, 0) + cv::Vec3d(0, 0, 2.6 * focal);
    corners[i] = {800 + focal * 1600 * at[0] / at[2], 600 + focal * 1600 * at[1] / at[2]};
  }
  return corners;
}

cv::Point2f cvPoint(Point p) { return {static_cast<float>(p.x), static_cast<float>(p.y)}; }

/// A light sheet with a black disc and a bar on a dark table, drawn from the exact homography.
picture::Picture photoOf(const picture::Quad& corners, double width) {
  const cv::Point2f sheet[4] = {{0, 0}, {static_cast<float>(width), 0}, {static_cast<float>(width), 1}, {0, 1}};
  const cv::Point2f photo[4] = {cvPoint(corners[0]), cvPoint(corners[1]), cvPoint(corners[2]), cvPoint(corners[3])};
  const cv::Mat back = cv::getPerspectiveTransform(photo, sheet);
  cv::Mat grey(1200, 1600, CV_8UC1);
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      const cv::Mat p = back * (cv::Mat_<double>(3, 1) << x + 0.5, y + 0.5, 1);
      const double u = p.at<double>(0) / p.at<double>(2);
      const double v = p.at<double>(1) / p.at<double>(2);
      const bool onSheet = u > 0 && u < width && v > 0 && v < 1;
      const bool ink = std::hypot(u - width / 2, v - 0.5) < 0.2;
      grey.at<std::uint8_t>(y, x) = !onSheet ? 60 : ink ? 20 : 230;
    }
  }
  cv::GaussianBlur(grey, grey, {0, 0}, 0.7);
  return test::pictureOf(grey);
}

}  // namespace

class TestStraighten : public QObject {
  Q_OBJECT

 private slots:
  void theSideRatioComesFromThePerspective_data() {
    QTest::addColumn<double>("ratio");
    QTest::addColumn<double>("tilt");
    QTest::addColumn<double>("pan");
    QTest::addColumn<double>("roll");
    QTest::newRow("A4 upright") << 1 / std::sqrt(2.0) << 25.0 << 20.0 << 0.0;
    QTest::newRow("A4 level") << std::sqrt(2.0) << 30.0 << -18.0 << 6.0;
    QTest::newRow("4 by 3") << 4 / 3.0 << -22.0 << 25.0 << -8.0;
    QTest::newRow("square") << 1.0 << 35.0 << 30.0 << 3.0;
  }
  void theSideRatioComesFromThePerspective() {
    QFETCH(double, ratio);
    QFETCH(double, tilt);
    QFETCH(double, pan);
    QFETCH(double, roll);
    const picture::Quad corners = seen(ratio, tilt, pan, roll);
    const double estimated = picture::estimateSideRatio(corners, 1600, 1200);
    QVERIFY2(qAbs(estimated / ratio - 1) < 1e-6, qPrintable(QString::number(estimated)));
    const auto found = picture::findSheet(photoOf(corners, ratio));
    QVERIFY(found.has_value());
    for (std::size_t i = 0; i < 4; ++i)
      QVERIFY2(distance(found->corners[i], corners[i]) < 1.5,
               qPrintable(QString::number(distance(found->corners[i], corners[i]))));
    QVERIFY(found->sure);
    QVERIFY(qAbs(picture::estimateSideRatio(found->corners, 1600, 1200) / ratio - 1) < 0.02);
  }

  void aFrontalViewHasItsOwnRatio() {
    const picture::Quad corners = seen(1.5, 0, 0, 0);
    QVERIFY(qAbs(picture::estimateSideRatio(corners, 1600, 1200) - 1.5) < 1e-6);
  }

  void aGivenRatioIsTaken() {
    const picture::Quad corners = seen(1.4, 20, 15, 0);
    const picture::Picture flat = picture::straightened(photoOf(corners, 1.4), {corners, 1.4});
    QVERIFY(qAbs(flat.width() / double(flat.height()) - 1.4) < 0.002);
  }

  void rectificationUndoesTheHomography() {
    // The disc of radius 0.2 in a sheet of height 1 is a circle again, in the middle.
    const picture::Quad corners = seen(4 / 3.0, 28, -17, 5);
    const picture::Picture flat = picture::straightened(photoOf(corners, 4 / 3.0), {std::nullopt, 0});
    const cv::Mat ink = *flat.grey < 120;
    const cv::Moments m = cv::moments(ink, true);
    const double h = flat.height();
    QVERIFY(qAbs(m.m10 / m.m00 + 0.5 - flat.width() / 2.0) < 0.003 * flat.width());
    QVERIFY(qAbs(m.m01 / m.m00 + 0.5 - h / 2) < 0.003 * h);
    QVERIFY(qAbs(std::sqrt(m.m00 / M_PI) / h - 0.2) < 0.002);
    QVERIFY(qAbs(m.mu20 / m.mu02 - 1) < 0.02);
  }

  void aDrawingThatFillsThePictureIsNoSheet() {
    QVERIFY(!picture::findSheet(test::pictureOf(test::drawn(200, 150, test::disc(100, 75, 40)))));
    QVERIFY(!picture::findSheet(test::pictureOf(cv::Mat(50, 50, CV_8UC1, cv::Scalar(200)))));
  }

  void badCornersAreRefused() {
    const picture::Picture picture = test::pictureOf(test::drawn(100, 100, test::disc(50, 50, 30)));
    const picture::Quad crossed{Point{10, 10}, Point{90, 90}, Point{90, 10}, Point{10, 90}};
    const picture::Quad hollow{Point{10, 10}, Point{90, 10}, Point{30, 30}, Point{10, 90}};
    for (const picture::Quad& quad : {crossed, hollow}) {
      QVERIFY(!picture::isConvex(quad));
      QVERIFY_THROWS_EXCEPTION(InputError, picture::straightened(picture, {quad, 0}));
    }
    QVERIFY_THROWS_EXCEPTION(InputError, picture::straightened(picture, {std::nullopt, 0}));
  }
};

RIM_TEST(TestStraighten)
#include "tst_straighten.moc"
