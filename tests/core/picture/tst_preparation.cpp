// What happens to pixels before tracing, against fields and strokes that are known.

#include <QTest>
#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/assess.h"
#include "core/picture/light.h"
#include "core/picture/load.h"
#include "core/picture/preparation_cache.h"
#include "core/picture/recipes.h"
#include "core/picture/reshape.h"
#include "core/trace/trace.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

Inside bar(double left, double top, double width, double height) {
  return [=](double x, double y) { return x >= left && x < left + width && y >= top && y < top + height; };
}

double inkArea(const picture::Picture& picture) { return enclosedArea(trace::trace(picture, {}).outlines); }
std::size_t outlines(const picture::Picture& picture) { return trace::trace(picture, {}).outlines.size(); }

/// Ink lines under a light that falls off to the lower right by `fall`.
picture::Picture unevenly(double fall) {
  cv::Mat grey = drawn(400, 300, ring(200, 150, 90, 75), 30, 240);
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      const double light = 1 - fall * (0.7 * x / grey.cols + 0.3 * y / grey.rows);
      grey.at<std::uint8_t>(y, x) = cv::saturate_cast<std::uint8_t>(grey.at<std::uint8_t>(y, x) * light);
    }
  }
  return pictureOf(grey);
}

}  // namespace

class TestPreparation : public QObject {
  Q_OBJECT

 private slots:
  void theLightFieldIsTheOneThatWasPutIn() {
    const cv::Mat field = picture::lightField(unevenly(0.5));
    for (const auto& [x, y] : {std::pair{10, 10}, {390, 10}, {10, 290}, {390, 290}, {200, 150}}) {
      const double light = 240 * (1 - 0.5 * (0.7 * x / 400 + 0.3 * y / 300));
      QVERIFY2(qAbs(field.at<float>(y, x) / light - 1) < 0.03,
               qPrintable(QString::number(field.at<float>(y, x) / light)));
    }
    QVERIFY(qAbs(picture::evenness(unevenly(0.5)) - 0.5) < 0.03);
    QVERIFY(picture::evenness(unevenly(0)) > 0.97);
  }

  void longStripsHaveALightToo() {
    for (const cv::Size size : {cv::Size(20'500, 160), cv::Size(160, 20'500), cv::Size(30'000, 40)}) {
      cv::Mat strip(size, CV_8UC1, cv::Scalar(230));
      for (int x = 40; x + 8 < size.width; x += 100) strip(cv::Rect(x, 10, 8, std::min(20, size.height - 10))) = 20;
      QVERIFY(picture::evenness(pictureOf(strip)) > 0.97);
    }
    for (const cv::Size size : {cv::Size(90'000, 1), cv::Size(1, 90'000), cv::Size(900'000, 5)}) {
      const picture::Picture strip = pictureOf(cv::Mat(size, CV_8UC1, cv::Scalar(230)));
      QVERIFY(picture::evenness(strip) > 0.97);
      QCOMPARE(picture::evenGrey(strip).size(), size);
    }
  }

  void evenLightMakesThePaperEven() {
    const picture::Picture even = picture::withEvenLight(unevenly(0.5));
    QVERIFY(qAbs(even.grey->at<std::uint8_t>(10, 10) - even.grey->at<std::uint8_t>(290, 390)) < 8);
    QCOMPARE(outlines(even), 2U);
  }

  void strokesAreMeasured_data() {
    QTest::addColumn<double>("width");
    for (const double width : {1.6, 2.5, 3.0, 4.0, 7.3, 12.0}) QTest::addRow("%.1f px", width) << width;
  }
  void strokesAreMeasured() {
    QFETCH(double, width);
    const picture::StrokeWidths got = picture::strokeWidths(drawn(120, 80, bar(15.3, 30.4, 90, width)));
    QVERIFY2(qAbs(got.median - width) < 0.5, qPrintable(QString::number(got.median)));
  }

  void thickeningMovesBothSides_data() {
    QTest::addColumn<double>("px");
    for (const double px : {-4.0, -1.0, 0.5, 1.0, 3.0}) QTest::addRow("%.1f px", px) << px;
  }
  void thickeningMovesBothSides() {
    QFETCH(double, px);
    // A disc of radius 30 becomes one of radius 30 + px / 2.
    const picture::Picture picture = pictureOf(drawn(120, 120, disc(60, 60, 30)));
    const double radius = std::sqrt(inkArea(picture::thickened(picture, px)) / M_PI);
    QVERIFY2(qAbs(radius - 30 - px / 2) < 0.2, qPrintable(QString::number(radius)));
  }

  void gapsAreClosedAndBordersStay() {
    const auto broken = [](double x, double y) { return bar(10, 20, 40, 6)(x, y) || bar(52, 20, 40, 6)(x, y); };
    const picture::Picture picture = pictureOf(drawn(110, 50, broken));
    QCOMPARE(outlines(picture), 2U);
    const picture::Picture whole = picture::withGapsFilled(picture, 4);
    QCOMPARE(outlines(whole), 1U);
    QVERIFY2(qAbs(inkArea(whole) - 82 * 6) < 6, qPrintable(QString::number(inkArea(whole))));
    QCOMPARE(outlines(picture::withGapsFilled(picture, 0.5)), 2U);
  }

  void pinholesAndSpecksGoBySize() {
    const auto drawing = [](double x, double y) {
      const bool plate = bar(10, 10, 60, 60)(x, y) && !disc(25, 25, 2)(x, y) && !disc(50, 50, 8)(x, y);
      return plate || disc(90, 40, 2)(x, y);
    };
    const picture::Picture picture = pictureOf(drawn(110, 80, drawing));
    QCOMPARE(outlines(picture), 4U);
    QCOMPARE(outlines(picture::withPinholesFilled(picture, 30)), 3U);
    QCOMPARE(outlines(picture::withoutSpecks(picture, 30)), 3U);
    QCOMPARE(outlines(picture::withoutSpecks(picture::withPinholesFilled(picture, 30), 30)), 2U);
    QVERIFY(qAbs(inkArea(picture::withoutSpecks(picture::withPinholesFilled(picture, 30), 30)) - (3600 - M_PI * 64)) <
            12);
  }

  void cropsAndTurnsMovePixelsOnly() {
    const picture::Picture picture = pictureOf(drawn(60, 40, bar(10, 5, 20, 10)));
    const picture::Picture part = picture::cropped(picture, {10, 5, 20, 10});
    QCOMPARE(part.width(), 20);
    QCOMPARE(cv::countNonZero(*part.grey), 0);
    QVERIFY(cv::norm(*picture::turned(picture::turned(picture, 90), -90).grey, *picture.grey, cv::NORM_INF) == 0);
    QCOMPARE(picture::turned(picture, 90).width(), 40);
    // Counter-clockwise: what was at the upper left comes to the lower left.
    QVERIFY(picture::turned(picture, 90).grey->at<std::uint8_t>(45, 8) == 0);
    QVERIFY(picture::mirrored(picture).grey->at<std::uint8_t>(8, 45) == 0);
    QVERIFY(cv::norm(*picture::mirrored(picture::mirrored(picture)).grey, *picture.grey, cv::NORM_INF) == 0);
  }

  void anyTurnKeepsTheInk() {
    const picture::Picture picture = pictureOf(drawn(100, 80, disc(50, 40, 20)));
    QVERIFY(qAbs(inkArea(picture::turned(picture, 33.3)) / (M_PI * 400) - 1) < 0.01);
  }

  void croppingToTheInkLeavesAMargin() {
    const picture::Picture picture = pictureOf(drawn(200, 150, bar(50, 60, 30, 20)));
    QVERIFY((picture::cropToInk(picture, 8) == picture::Crop{42, 52, 46, 36}));
    QVERIFY((picture::cropToInk(picture, 500) == picture::Crop{0, 0, 200, 150}));
  }

  void enlargingKeepsTheDrawing() {
    const picture::Picture picture = pictureOf(drawn(60, 60, disc(30, 30, 20)));
    QVERIFY(qAbs(inkArea(picture::enlarged(picture, 3)) / (9 * M_PI * 400) - 1) < 0.01);
  }

  void noiseIsMeasuredAndCalmed() {
    cv::Mat grey = drawn(300, 300, disc(150, 150, 80), 60, 190);
    cv::Mat noise(grey.size(), CV_16SC1);
    cv::theRNG().state = 4;
    cv::randn(noise, 0, 10);
    cv::Mat noisy;
    cv::add(grey, noise, noisy, cv::noArray(), CV_8U);
    QVERIFY2(qAbs(picture::noiseLevel(noisy) - 10) < 1.5, qPrintable(QString::number(picture::noiseLevel(noisy))));
    const picture::Picture calm = picture::denoised(pictureOf(noisy), 1);
    QVERIFY(picture::noiseLevel(*calm.grey) < 5);
    QVERIFY(qAbs(inkArea(calm) / (M_PI * 6400) - 1) < 0.01);
  }

  void whatCannotBeDoneIsSaid() {
    const picture::Picture picture = pictureOf(drawn(60, 40, disc(30, 20, 10)));
    const picture::Picture blank = pictureOf(cv::Mat(20, 20, CV_8UC1, cv::Scalar(255)));
    for (const picture::Crop& crop : {picture::Crop{-1, 0, 10, 10}, picture::Crop{0, 0, 61, 10},
                                      picture::Crop{0, 0, 0, 5}, picture::Crop{50, 0, 2147483647, 5}}) {
      QVERIFY_THROWS_EXCEPTION(InputError, picture::cropped(picture, crop));
    }
    QVERIFY_THROWS_EXCEPTION(InputError, picture::cropToInk(blank, 8));
    QVERIFY_THROWS_EXCEPTION(InputError, picture::thickened(blank, 2));
    QVERIFY_THROWS_EXCEPTION(InputError, picture::enlarged(pictureOf(cv::Mat(3000, 3000, CV_8UC1, cv::Scalar(9))), 8));
    QVERIFY(picture::lightField(blank).at<float>(5, 5) > 200);
  }

  void theListIsAppliedInOrderAndCanBeSwitched() {
    const picture::Picture picture = pictureOf(drawn(60, 40, disc(30, 20, 10)));
    std::vector<picture::PreparationStep> steps{{picture::Crop{0, 0, 50, 40}}, {picture::Turn{90}}};
    QCOMPARE(picture::prepared(picture, steps).width(), 40);
    steps[1].on = false;
    QCOMPARE(picture::prepared(picture, steps).width(), 50);
    QVERIFY(picture::prepared(picture, std::vector<picture::PreparationStep>{}).grey == picture.grey);
  }

  void whatIsRememberedGivesTheSameAsWorkingItOut() {
    const picture::Picture a = pictureOf(drawn(60, 40, disc(30, 20, 10)));
    const picture::Picture b = pictureOf(drawn(50, 50, disc(25, 25, 12)));
    const std::vector<std::vector<picture::PreparationStep>> lists{
        {{picture::Turn{90}}, {picture::Thicken{2}}},
        {{picture::Turn{90}}, {picture::Thicken{3}}},
        {{picture::Turn{90}}, {picture::Thicken{3}, false}},
        {{picture::Turn{90}}, {picture::Thicken{3}, false}, {picture::Mirror{}}},
        {{picture::Mirror{}}, {picture::Turn{90}}},
        {},
        {{picture::Turn{90}}, {picture::Thicken{2}}},
    };
    picture::PreparationCache cache;
    for (const picture::Picture& picture : {a, b}) {
      for (const auto& steps : lists) {
        const picture::Picture kept = cache.prepared(picture, steps);
        QVERIFY(cv::norm(*kept.bgr, *picture::prepared(picture, steps).bgr, cv::NORM_INF) == 0);
        QVERIFY(cache.prepared(picture, steps).grey == kept.grey);
      }
    }
    QVERIFY_THROWS_EXCEPTION(InputError, cache.prepared(a, {{picture::Turn{90}}, {picture::Crop{0, 0, 900, 900}}}));
    QCOMPARE(cache.prepared(a, {{picture::Turn{90}}}).width(), 40);
  }

  void remarksNameWhatMatters() {
    const auto says = [](const picture::Picture& picture, const char* word) {
      for (const picture::Remark& remark : picture::remarksOn(picture, picture::assess(picture))) {
        if (remark.sentence.find(word) != std::string::npos) return true;
      }
      return false;
    };
    QVERIFY(says(pictureOf(drawn(200, 100, bar(20, 40, 150, 1.5))), "thinnest strokes"));
    QVERIFY(!says(pictureOf(drawn(200, 100, bar(20, 40, 150, 8))), "thinnest strokes"));
    QVERIFY(says(pictureOf(drawn(200, 100, bar(20, 40, 150, 8), 200, 225)), "differ by only"));
    QVERIFY(says(unevenly(0.5), "light falls off"));
    const cv::Mat round = drawn(200, 200, disc(100, 100, 70));
    QVERIFY(!says(pictureOf(round), "no greys"));
    QVERIFY(says(pictureOf(round > 127), "no greys"));
    QVERIFY(says(pictureOf(cv::Mat(20, 20, CV_8UC1, cv::Scalar(255))), "one tone"));
  }

  void whatIsNotWorthTracingIsTold_data() {
    QTest::addColumn<double>("height");
    QTest::addColumn<bool>("small");
    QTest::newRow("letters of 7 px") << 10.0 << true;
    QTest::newRow("letters of 21 px") << 30.0 << false;
  }
  void whatIsNotWorthTracingIsTold() {
    QFETCH(double, height);
    QFETCH(bool, small);
    cv::Mat paper(120, 400, CV_8UC1, cv::Scalar(255));
    // Hershey letters of this font are 21 units high.
    cv::putText(paper, "PUDDLEWICK KITE LOFT", {10, 70}, cv::FONT_HERSHEY_SIMPLEX, height / 30, 0, 1, cv::LINE_AA);
    const picture::Picture picture = pictureOf(paper);
    const picture::Assessment a = picture::assess(picture);
    QCOMPARE(a.smallLetters.has_value(), small);
    std::string said;
    for (const picture::Remark& remark : picture::remarksOn(picture, a)) said += remark.sentence;
    QCOMPARE(said.find("set them again") != std::string::npos, small);
    if (!small) return;
    QVERIFY(a.smallLetters->letters >= 15);
    QVERIFY2(qAbs(a.smallLetters->heightPx - 8) <= 1.5, QByteArray::number(a.smallLetters->heightPx));
    // The size that would be enough: 16 px for what is so high now.
    const long wide = std::lround(std::ceil(400 * 16 / a.smallLetters->heightPx / 10) * 10);
    QVERIFY(said.find("A picture of " + std::to_string(wide)) != std::string::npos);
  }

  void dotsAndLargePartsAreNoLetters() {
    cv::Mat paper(200, 300, CV_8UC1, cv::Scalar(255));
    for (int k = 0; k < 8; ++k) cv::circle(paper, {30 + 30 * k, 40 + 15 * (k % 2)}, 3, 0, -1, cv::LINE_AA);
    cv::rectangle(paper, {30, 100, 200, 60}, 0, -1);
    QVERIFY(!picture::assess(pictureOf(paper)).smallLetters);
  }

  void thePhotoOfTheWindowCardBecomesTraceable() {
    const auto demo = [](const char* name) {
      return picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo") / name);
    };
    const trace::Tracing clean = trace::trace(demo("window-card.png"), {});
    const picture::Picture photo = demo("window-card-photo.jpg");
    const std::vector<picture::PreparationStep> steps = picture::stepsToMakeTraceable(photo);
    const picture::Picture ready = picture::prepared(photo, steps);
    const trace::Tracing traced = trace::trace(ready, {});
    QCOMPARE(traced.outlines.size(), clean.outlines.size());
    QVERIFY(qAbs(ready.width() / double(ready.height()) / (4 / 3.0) - 1) < 0.02);
    // Islands and holes are as many, too.
    const auto holes = [](const trace::Tracing& t) {
      return std::count_if(t.outlines.begin(), t.outlines.end(), [](const Path& p) { return signedArea(p) < 0; });
    };
    QCOMPARE(holes(traced), holes(clean));
  }
};

RIM_TEST(TestPreparation)
#include "tst_preparation.moc"
