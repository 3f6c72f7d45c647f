// What is done to a picture by hand, and the practice camera.

#include <QTest>
#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/geometry/flatten.h"
#include "core/picture/assess.h"
#include "core/picture/find_sheet.h"
#include "core/picture/load.h"
#include "core/picture/practice_camera.h"
#include "core/picture/recipes.h"
#include "core/picture/straighten.h"
#include "core/picture/touch_up.h"
#include "core/trace/trace.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

picture::Picture blank(int width, int height) { return pictureOf(cv::Mat(height, width, CV_8UC1, cv::Scalar(255))); }
double inkArea(const picture::Picture& picture) { return enclosedArea(trace::trace(picture, {}).outlines); }
std::size_t outlines(const picture::Picture& picture) { return trace::trace(picture, {}).outlines.size(); }
int greyAt(const picture::Picture& picture, int x, int y) { return picture.grey->at<std::uint8_t>(y, x); }

}  // namespace

class TestTouchUp : public QObject {
  Q_OBJECT

 private slots:
  void aBrushPaintsItsSweep() {
    const picture::TouchUp sweep{{{{Point{20, 30}, Point{80, 30}}, 12, true}}};
    // A rectangle 60 by 12 with half discs of diameter 12 at its ends.
    const double area = 60 * 12 + M_PI * 36;
    QVERIFY2(qAbs(inkArea(picture::touchedUp(blank(100, 60), sweep)) / area - 1) < 0.05,
             qPrintable(QString::number(inkArea(picture::touchedUp(blank(100, 60), sweep)) / area)));
  }

  void aWipeTakesInkAway() {
    const picture::Picture picture = pictureOf(drawn(100, 60, disc(50, 30, 20)));
    const picture::Picture wiped = picture::touchedUp(picture, {{{{Point{0, 30}, Point{100, 30}}, 10, false}}});
    QCOMPARE(outlines(wiped), 2U);
    QVERIFY(outlines(picture::touchedUp(picture, {{{{Point{50, 30}}, 60, false}}})) == 0);
  }

  void aFrameIsClearedInsideOrOutside() {
    const auto two = [](double x, double y) { return disc(25, 30, 10)(x, y) || disc(75, 30, 10)(x, y); };
    const picture::Picture picture = pictureOf(drawn(100, 60, two));
    QCOMPARE(outlines(picture::cleared(picture, {{0, 0, 50, 60}, false})), 1U);
    QCOMPARE(outlines(picture::cleared(picture, {{0, 0, 50, 60}, true})), 1U);
    QCOMPARE(outlines(picture::cleared(picture, {{-500, -500, 2000, 2000}, false})), 2U);
    QCOMPARE(outlines(picture::cleared(picture, {{-500, -500, 2000, 2000}, true})), 0U);
    QCOMPARE(outlines(picture::cleared(picture, {{400, 400, 10, 10}, false})), 0U);
  }

  void aColourBecomesPaperAllOverOrWhereItIsConnected() {
    cv::Mat bgr(60, 100, CV_8UC3, cv::Scalar(255, 255, 255));
    cv::rectangle(bgr, {10, 10, 20, 40}, cv::Scalar(40, 40, 200), cv::FILLED);
    cv::rectangle(bgr, {60, 10, 20, 40}, cv::Scalar(44, 38, 196), cv::FILLED);
    const picture::Picture picture = picture::makePicture(bgr, 0, "test");
    const picture::Picture all = picture::withColourPicked(picture, {{15, 15}, 8, false, false, false});
    QVERIFY(greyAt(all, 15, 15) == 255 && greyAt(all, 65, 15) == 255);
    const picture::Picture one = picture::withColourPicked(picture, {{15, 15}, 8, true, false, false});
    QVERIFY(greyAt(one, 15, 15) == 255 && greyAt(one, 65, 15) < 200);
    const picture::Picture exact = picture::withColourPicked(picture, {{15, 15}, 0, false, true, false});
    QVERIFY(greyAt(exact, 15, 15) == 0 && greyAt(exact, 65, 15) > 0);
    // Everything near the picked colour becomes paper and the rest ink: two tones are left.
    const picture::Picture both = picture::withColourPicked(picture, {{15, 15}, 8, false, false, true});
    QCOMPARE(static_cast<std::size_t>(cv::countNonZero(*both.grey == 0) + cv::countNonZero(*both.grey == 255)),
             both.grey->total());
    QVERIFY(greyAt(both, 15, 15) == 255 && greyAt(both, 65, 15) == 255 && greyAt(both, 2, 2) == 0);
    QVERIFY_THROWS_EXCEPTION(InputError, picture::withColourPicked(picture, {{100, 15}, 8, false, false, false}));
    QVERIFY_THROWS_EXCEPTION(InputError, picture::withColourPicked(picture, {{-0.5, 15}, 8, false, false, false}));
  }

  void nearlyWhiteBecomesWhiteAndTheRestBlackInTwoClicks() {
    cv::Mat bgr(40, 80, CV_8UC3, cv::Scalar(235, 240, 238));
    cv::rectangle(bgr, {20, 10, 30, 20}, cv::Scalar(120, 60, 30), cv::FILLED);
    picture::Picture picture = picture::makePicture(bgr, 0, "test");
    picture = picture::withColourPicked(picture, {{2, 2}, 15, false, false, false});
    picture = picture::withColourPicked(picture, {{30, 20}, 15, false, true, false});
    QCOMPARE(greyAt(picture, 2, 2), 255);
    QCOMPARE(greyAt(picture, 30, 20), 0);
  }

  void aLocalThresholdFindsInkUnderAShadow() {
    cv::Mat grey = drawn(
        200, 100, [](double x, double y) { return disc(50, 50, 12)(x, y) || disc(150, 50, 12)(x, y); }, 60, 240);
    grey(cv::Rect(100, 0, 100, 100)) *= 0.22;  // the edge of a shadow; its paper is darker than ink in the light
    const auto discs = [](const picture::Picture& picture) {
      std::size_t count = 0;
      for (const Path& path : trace::trace(picture, {}).outlines)
        count += qAbs(signedArea(path) / (M_PI * 144) - 1) < 0.15 ? 1 : 0;
      return count;
    };
    const picture::Picture picture = pictureOf(grey);
    QCOMPARE(discs(picture), 1U);
    QCOMPARE(discs(picture::withLocalThreshold(picture, {61, 10})), 2U);
  }

  void jagsAreSmoothedAndTheShapeStays() {
    // A disc without grey levels at its edge: stairs.
    cv::Mat stairs = drawn(120, 120, disc(60, 60, 40)) > 127;
    const picture::Picture jagged = pictureOf(stairs);
    const picture::Picture smooth = picture::withSmoothEdges(jagged, 1.5);
    const auto off = [](const picture::Picture& picture) {
      return percentile95(trace::trace(picture, {}).outlines, [](Point p) { return qAbs(distance(p, {60, 60}) - 40); });
    };
    QVERIFY2(off(smooth) < 0.25, qPrintable(QString::number(off(smooth))));
    QVERIFY(qAbs(inkArea(smooth) / (M_PI * 1600) - 1) < 0.01);
    QVERIFY_THROWS_EXCEPTION(InputError, picture::withSmoothEdges(blank(20, 20), 1));
  }

  void thePracticeCameraKnowsWhereTheCornersAre_data() {
    QTest::addColumn<double>("tilt");
    QTest::addColumn<double>("pan");
    QTest::addColumn<double>("roll");
    QTest::addColumn<double>("light");
    QTest::newRow("leaning back") << 32.0 << -12.0 << 3.0 << 0.5;
    QTest::newRow("turned aside") << -20.0 << 30.0 << -9.0 << 0.4;
    QTest::newRow("askew") << 24.0 << 22.0 << 14.0 << 0.3;
  }
  void thePracticeCameraKnowsWhereTheCornersAre() {
    QFETCH(double, tilt);
    QFETCH(double, pan);
    QFETCH(double, roll);
    QFETCH(double, light);
    const picture::Picture drawing = picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/window-card.png"));
    picture::PracticeShot shot;
    shot.tiltDegrees = tilt;
    shot.panDegrees = pan;
    shot.rollDegrees = roll;
    shot.lightFall = light;
    const picture::PracticePhoto photo = picture::takePracticePhoto(drawing, shot);
    const auto sheet = picture::findSheet(photo.picture);
    QVERIFY(sheet.has_value());
    for (std::size_t i = 0; i < 4; ++i) QVERIFY(distance(sheet->corners[i], photo.corners[i]) < 2);
    QVERIFY(qAbs(picture::estimateSideRatio(sheet->corners, photo.picture.width(), photo.picture.height()) / (4 / 3.0) -
                 1) < 0.02);
    // One click, and the photo has the outlines of the drawing, in their places.
    const picture::Picture ready = picture::prepared(photo.picture, picture::stepsToMakeTraceable(photo.picture));
    const trace::Tracing clean = trace::trace(drawing, {});
    const trace::Tracing traced = trace::trace(ready, {});
    QCOMPARE(traced.outlines.size(), clean.outlines.size());
    std::vector<std::vector<Point>> truth;
    for (const Path& path : clean.outlines) truth.push_back(flatten(path, 0.1));
    const double k = drawing.width() / double(ready.width());
    std::vector<double> off;
    for (const Path& path : traced.outlines) {
      const std::vector<Point> points = flatten(path, 0.2);
      for (std::size_t i = 0; i < points.size(); ++i) {
        const Point middle = lerp(points[i], points[(i + 1) % points.size()], 0.5) * k;
        double least = 1e9;
        for (const auto& polygon : truth) least = std::min(least, distanceToPolygon(middle, polygon));
        off.push_back(least);
      }
    }
    std::sort(off.begin(), off.end());
    const double p95 = off[off.size() * 95 / 100] / drawing.width();
    QVERIFY2(p95 < 0.003, qPrintable(QString::number(p95)));
  }

  void theSameShotGivesTheSamePhoto() {
    const picture::Picture drawing = pictureOf(drawn(80, 60, disc(40, 30, 20)));
    picture::PracticeShot shot;
    shot.widthPx = 300;
    QVERIFY(cv::norm(*picture::takePracticePhoto(drawing, shot).picture.bgr,
                     *picture::takePracticePhoto(drawing, shot).picture.bgr, cv::NORM_INF) == 0);
    picture::PracticeShot other = shot;
    other.seed = 2;
    QVERIFY(cv::norm(*picture::takePracticePhoto(drawing, shot).picture.bgr,
                     *picture::takePracticePhoto(drawing, other).picture.bgr, cv::NORM_INF) > 0);
  }
};

RIM_TEST(TestTouchUp)
#include "tst_touch_up.moc"
