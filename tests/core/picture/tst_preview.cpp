// Previews against the real thing made smaller; depth near borders against the distance transform.

#include <QTest>
#include <opencv2/imgproc.hpp>

#include "core/picture/depth.h"
#include "core/picture/preview.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

/// A ring, a dot and a hairline break, large enough for a preview, with a little noise.
picture::Picture largePicture() {
  cv::Mat grey(1500, 2000, CV_8UC1, cv::Scalar(225));
  cv::circle(grey, {900, 700}, 400, cv::Scalar(40), 60, cv::LINE_AA);
  cv::circle(grey, {1600, 1100}, 20, cv::Scalar(40), -1, cv::LINE_AA);
  cv::line(grey, {200, 1300}, {1500, 1350}, cv::Scalar(40), 24, cv::LINE_AA);
  cv::Mat noise(grey.size(), CV_16SC1);
  cv::theRNG().state = 8;
  cv::randn(noise, 0, 3);
  cv::add(grey, noise, grey, cv::noArray(), CV_8U);
  return pictureOf(grey);
}

}  // namespace

Q_DECLARE_METATYPE(rim::picture::Preparation)

class TestPreview : public QObject {
  Q_OBJECT

 private slots:
  void aPreviewLooksLikeThePicture_data() {
    QTest::addColumn<picture::Preparation>("step");
    QTest::newRow("crop") << picture::Preparation(picture::Crop{300, 200, 1400, 1100});
    QTest::newRow("crop to ink") << picture::Preparation(picture::CropToInk{20});
    QTest::newRow("turn") << picture::Preparation(picture::Turn{7});
    QTest::newRow("quarter") << picture::Preparation(picture::Turn{90});
    QTest::newRow("mirror") << picture::Preparation(picture::Mirror{});
    QTest::newRow("straighten") << picture::Preparation(
        picture::Straighten{picture::Quad{Point{100, 80}, Point{1900, 120}, Point{1850, 1440}, Point{60, 1400}}, 1.4});
    QTest::newRow("light") << picture::Preparation(picture::EvenLight{});
    QTest::newRow("denoise") << picture::Preparation(picture::Denoise{1});
    QTest::newRow("thicken") << picture::Preparation(picture::Thicken{12});
    QTest::newRow("thin") << picture::Preparation(picture::Thicken{-10});
    QTest::newRow("gaps") << picture::Preparation(picture::FillGaps{20});
    QTest::newRow("pinholes") << picture::Preparation(picture::FillPinholes{600'000});
    QTest::newRow("specks") << picture::Preparation(picture::DropSpecks{3000});
    QTest::newRow("enlarge") << picture::Preparation(picture::Enlarge{2});
    QTest::newRow("local") << picture::Preparation(picture::LocalThreshold{101, 20});
    QTest::newRow("smooth") << picture::Preparation(picture::SmoothEdges{6});
    QTest::newRow("brush") << picture::Preparation(
        picture::TouchUp{{picture::BrushStroke{{{300, 300}, {1500, 900}}, 80, false}}});
    QTest::newRow("clear") << picture::Preparation(picture::ClearFrame{{500, 300, 900, 800}, true});
    QTest::newRow("colour") << picture::Preparation(picture::PickColour{{500, 700}, 30, true, false, false});
  }

  void aPreviewLooksLikeThePicture() {
    QFETCH(picture::Preparation, step);
    const picture::Picture picture = largePicture();
    QVERIFY(picture::PreviewMaker::isWorthWhile(picture));
    // A step after it must be scaled by what the first one made of the picture.
    const std::vector<picture::PreparationStep> steps{{step, true}, {picture::Crop{10, 20, 800, 700}, true}};
    picture::PreviewMaker maker;
    const picture::Preview preview = maker.preview(picture, steps);
    const picture::Picture real = picture::prepared(picture, steps);
    QVERIFY(qAbs(preview.picture.width() / preview.scale - real.width()) <= 2 / preview.scale);
    QVERIFY(qAbs(preview.picture.height() / preview.scale - real.height()) <= 2 / preview.scale);
    cv::Mat small;
    cv::resize(*real.grey, small, preview.picture.grey->size(), 0, 0, cv::INTER_AREA);
    cv::Mat difference;
    cv::absdiff(small, *preview.picture.grey, difference);
    // Only edges differ: a mean of 4 levels is what half a pixel all along the ring's borders gives.
    QVERIFY2(cv::mean(difference)[0] < 4, qPrintable(QString::number(cv::mean(difference)[0])));
    QVERIFY(preview.picture.grey->total() < real.grey->total());
  }

  void aSecondPreviewOfTheSamePictureFollowsTheList() {
    const picture::Picture picture = largePicture();
    picture::PreviewMaker maker;
    const picture::Preview plain = maker.preview(picture, {});
    const picture::Preview thick = maker.preview(picture, {{picture::Thicken{20}, true}});
    QVERIFY(cv::countNonZero(*thick.picture.grey < 128) > 1.2 * cv::countNonZero(*plain.picture.grey < 128));
    const picture::Preview other = maker.preview(pictureOf(cv::Mat(1600, 1600, CV_8UC1, cv::Scalar(90))), {});
    QCOMPARE(cv::mean(*other.picture.grey)[0], 90.0);
  }

  void depthNearTheBorderIsTheDistance() {
    // A disc's border is known; so is the distance of every pixel from it.
    const Point middle{80.3, 71.7};
    const double radius = 40.6;
    const cv::Mat grey = drawn(160, 140, disc(middle.x, middle.y, radius));
    const cv::Mat depth = picture::depthNearBorder(grey, 6);
    for (int y = 0; y < depth.rows; ++y) {
      for (int x = 0; x < depth.cols; ++x) {
        const double truth = radius - distance(Point{x + 0.5, y + 0.5}, middle);
        const double found = depth.at<float>(y, x);
        if (qAbs(truth) <= 6) {
          QVERIFY2(qAbs(found - truth) < 0.15, qPrintable(QStringLiteral("%1 for %2").arg(found).arg(truth)));
        } else {
          QVERIFY(qAbs(found) > 5.8 && (found > 0) == (truth > 0));
        }
      }
    }
    QVERIFY(picture::depthNearBorder(cv::Mat(20, 20, CV_8UC1, cv::Scalar(255)), 3).empty());
  }
};

RIM_TEST(TestPreview)
#include "tst_preview.moc"
