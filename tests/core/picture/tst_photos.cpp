// Sheets photographed on a table: found by colour as well as by lightness, told when they are not sure; shadows lifted;
// whole ways to make them traceable, the best first.

#include <QTest>
#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/find_sheet.h"
#include "core/picture/recipes.h"
#include "core/picture/shadows.h"
#include "core/picture/straighten.h"
#include "core/picture/tone.h"
#include "core/trace/trace.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;

namespace {

constexpr double kWidth = 1000;
constexpr double kHeight = 760;

struct Scene {
  cv::Scalar table{60, 60, 60};
  cv::Scalar paper{235, 238, 240};
  double shadow = 1;      ///< what is left of the light in the shadow
  double shadowPx = 3;    ///< how soft its edge is
  double shiftRight = 0;  ///< px that the sheet is moved by
};

picture::Quad cornersOf(const Scene& scene) {
  picture::Quad corners{Point{220, 150}, Point{800, 190}, Point{760, 600}, Point{180, 560}};
  for (Point& p : corners) p.x += scene.shiftRight;
  return corners;
}

/// A sheet with three discs and a bar on a table, under a shadow with a slanted edge.
picture::Picture photoOf(const Scene& scene) {
  cv::Mat sheet(400, 560, CV_8UC3, scene.paper);
  for (const int x : {110, 280, 450}) cv::circle(sheet, {x, 130}, 60, {25, 25, 25}, -1, cv::LINE_AA);
  cv::rectangle(sheet, {80, 270, 400, 30}, {25, 25, 25}, -1);
  const picture::Quad corners = cornersOf(scene);
  std::vector<cv::Point2f> to;
  for (const Point p : corners) to.emplace_back(static_cast<float>(p.x), static_cast<float>(p.y));
  const std::vector<cv::Point2f> from{{0, 0}, {560, 0}, {560, 400}, {0, 400}};
  const cv::Mat map = cv::getPerspectiveTransform(from, to);
  const cv::Size size(static_cast<int>(kWidth), static_cast<int>(kHeight));
  cv::Mat photo(size, CV_8UC3, scene.table);
  cv::Mat laid;
  cv::Mat area;
  cv::warpPerspective(sheet, laid, map, size);
  cv::warpPerspective(cv::Mat(sheet.size(), CV_8UC1, cv::Scalar(255)), area, map, size);
  laid.copyTo(photo, area > 127);
  cv::Mat light(size, CV_32FC1, cv::Scalar(1));
  for (int y = 0; y < size.height; ++y) {
    for (int x = 0; x < size.width; ++x) {
      if (x + 0.4 * y > 650) light.at<float>(y, x) = static_cast<float>(scene.shadow);
    }
  }
  cv::GaussianBlur(light, light, {0, 0}, scene.shadowPx);
  cv::Mat channels[3];
  cv::Mat floats;
  photo.convertTo(floats, CV_32FC3);
  cv::split(floats, channels);
  for (cv::Mat& channel : channels) channel = channel.mul(light);
  cv::merge(channels, 3, floats);
  floats.convertTo(photo, CV_8UC3);
  cv::GaussianBlur(photo, photo, {0, 0}, 0.8);
  cv::Mat noise(size, CV_16SC3);
  cv::RNG(3).fill(noise, cv::RNG::NORMAL, 0, 2);
  cv::add(photo, noise, photo, cv::noArray(), CV_8UC3);
  return picture::withPixels({}, photo);
}

double farthestCorner(const picture::FoundSheet& sheet, const picture::Quad& corners) {
  double most = 0;
  for (std::size_t i = 0; i < 4; ++i) most = std::max(most, distance(sheet.corners[i], corners[i]));
  return most;
}

}  // namespace

class TestPhotos : public QObject {
  Q_OBJECT

 private slots:
  void aSheetIsFoundOn_data() {
    QTest::addColumn<QVariantList>("bgr");
    QTest::newRow("a dark table") << QVariantList{40, 45, 50};
    QTest::newRow("wood as light as the paper in the shadow") << QVariantList{110, 170, 225};
    QTest::newRow("a grey table") << QVariantList{150, 150, 150};
    QTest::newRow("a red cloth") << QVariantList{60, 60, 210};
  }
  void aSheetIsFoundOn() {
    QFETCH(QVariantList, bgr);
    Scene scene;
    scene.table = {bgr[0].toDouble(), bgr[1].toDouble(), bgr[2].toDouble()};
    scene.shadow = 0.6;
    const auto sheet = picture::findSheet(photoOf(scene));
    QVERIFY(sheet.has_value());
    QVERIFY(sheet->sure);
    const double off = farthestCorner(*sheet, cornersOf(scene));
    QVERIFY2(off < 1.5, QByteArray::number(off));
  }

  void aSheetThatLeavesThePictureIsFound() {
    Scene scene;
    scene.shiftRight = 260;
    const auto sheet = picture::findSheet(photoOf(scene));
    QVERIFY(sheet.has_value());
    const picture::Quad corners = cornersOf(scene);
    QVERIFY(distance(sheet->corners[0], corners[0]) < 2);
    QVERIFY(distance(sheet->corners[3], corners[3]) < 2);
    // The fourth side lies at the rim or beyond it, and nothing that is seen is lost.
    QVERIFY(sheet->corners[1].x > kWidth - 2 || sheet->corners[2].x > kWidth - 2);
    const picture::Picture flat = picture::straightened(photoOf(scene), {sheet->corners, 0});
    QCOMPARE(trace::trace(flat, {}).outlines.size(), 4U);
  }

  void aFaintSheetIsNotTakenUnasked() {
    Scene scene;
    scene.table = {229, 232, 234};
    const picture::Picture photo = photoOf(scene);
    const auto sheet = picture::findSheet(photo);
    QVERIFY(!sheet || !sheet->sure);
    QVERIFY_THROWS_EXCEPTION(InputError, picture::straightened(photo, {std::nullopt, 0}));
    for (const picture::PreparationStep& step : picture::stepsToMakeTraceable(photo))
      QVERIFY(!std::holds_alternative<picture::Straighten>(step.what));
  }

  void aFrameThatIsDrawnIsNoSheet() {
    cv::Mat paper(700, 900, CV_8UC1, cv::Scalar(235));
    cv::rectangle(paper, {90, 80, 720, 540}, 30, 12);
    QVERIFY(!picture::findSheet(test::pictureOf(paper)));
  }

  void shadowsAreLifted() {
    // White and half as bright, with an edge; ink a tenth of either.
    cv::Mat grey(300, 400, CV_8UC1, cv::Scalar(240));
    grey(cv::Rect(200, 0, 200, 300)) = 120;
    grey(cv::Rect(150, 100, 50, 100)) = 24;
    grey(cv::Rect(200, 100, 50, 100)) = 12;
    const picture::Picture lifted = picture::withoutShadows(test::pictureOf(grey), 140);
    const cv::Mat ink = *lifted.grey < 128;
    QVERIFY(qAbs(cv::countNonZero(ink) - 100 * 100) < 300);
    QCOMPARE(cv::countNonZero(ink(cv::Rect(140, 90, 120, 120))), cv::countNonZero(ink));
    QVERIFY(cv::mean(*lifted.grey, ~ink)[0] > 225);
  }

  void shadowsEndAtTheRim() {
    // A wedge of shadow between its edge and the rim is no ink.
    cv::Mat grey(300, 400, CV_8UC1, cv::Scalar(230));
    std::vector<cv::Point> wedge{{0, 40}, {220, 299}, {0, 299}};
    cv::fillConvexPoly(grey, wedge, 90);
    cv::GaussianBlur(grey, grey, {0, 0}, 3);
    QCOMPARE(cv::countNonZero(*picture::withoutShadows(test::pictureOf(grey), 100).grey < 128), 0);
  }

  void theBestWayLeavesInkAndNoShadow_data() {
    QTest::addColumn<double>("shadow");
    QTest::addColumn<double>("shadowPx");
    QTest::newRow("no shadow") << 1.0 << 3.0;
    QTest::newRow("a soft shadow") << 0.5 << 50.0;
    QTest::newRow("a hard shadow") << 0.5 << 2.5;
    QTest::newRow("a dark hard shadow") << 0.35 << 2.5;
  }
  void theBestWayLeavesInkAndNoShadow() {
    QFETCH(double, shadow);
    QFETCH(double, shadowPx);
    Scene scene;
    scene.table = {80, 120, 170};
    scene.shadow = shadow;
    scene.shadowPx = shadowPx;
    const picture::Picture photo = photoOf(scene);
    const std::vector<picture::PictureRecipe> recipes = picture::recipesFor(photo);
    QVERIFY(!recipes.empty() && recipes.size() <= 4);
    for (std::size_t i = 1; i < recipes.size(); ++i) QVERIFY(recipes[i].score <= recipes[i - 1].score);
    QVERIFY(!recipes.front().small.empty());
    trace::TraceSettings settings;
    settings.minAreaPx2 = 40;
    const trace::Tracing traced = trace::trace(picture::prepared(photo, recipes.front().steps), settings);
    QCOMPARE(traced.outlines.size(), 4U);
  }

  void recipesAreCancelled() {
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, picture::recipesFor(photoOf({}), stop.get_token()));
  }

  void anEmptyPictureHasNoRecipe() {
    QVERIFY(picture::stepsToMakeTraceable(test::pictureOf(cv::Mat(60, 80, CV_8UC1, cv::Scalar(255)))).empty());
    QVERIFY(!picture::findSheet(picture::Picture()));
  }
};

RIM_TEST(TestPhotos)
#include "tst_photos.moc"
