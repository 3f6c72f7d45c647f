// Pixels taken for mixtures of two inks.

#include <QTest>

#include "core/colour/mixture.h"
#include "core/colour/palette.h"
#include "support/test_list.h"

using namespace rim;

namespace {

const std::vector<colour::Rgb> kInks{{255, 255, 255}, {0, 0, 0}, {128, 128, 128}, {194, 35, 40}};
constexpr std::uint64_t kWhite = 1;
constexpr std::uint64_t kBlack = 2;
constexpr std::uint64_t kGrey = 4;
constexpr std::uint64_t kRed = 8;

cv::Vec3b grey(int level) {
  const auto value = static_cast<std::uint8_t>(level);
  return {value, value, value};
}

}  // namespace

class TestMixture : public QObject {
  Q_OBJECT

 private slots:
  /// Covered parts by their definition: a pixel is the mean of the inks by their areas.
  void theInkThatCoversMoreHasThePixel_data() {
    QTest::addColumn<int>("level");
    QTest::addColumn<int>("ink");
    QTest::newRow("nine tenths white") << 230 << 0;
    QTest::newRow("a little more white") << 130 << 0;
    QTest::newRow("a little more black") << 125 << 1;
    QTest::newRow("nine tenths black") << 25 << 1;
  }
  void theInkThatCoversMoreHasThePixel() {
    QFETCH(int, level);
    QFETCH(int, ink);
    const colour::Mixtures mixtures(kInks);
    const colour::Mixture mixture = mixtures.best(grey(level), kWhite | kBlack, 0);
    QCOMPARE(int(mixture.ink), ink);
    QVERIFY(mixture.off < 1);
  }

  void inksFromAfarMustComeNearer() {
    const colour::Mixtures mixtures(kInks);
    // Half black, half white beside both: never the grey that is elsewhere.
    QVERIFY(mixtures.best(grey(126), kWhite | kBlack, mixtures.all()).ink != 2);
    // Within the grey itself it is grey.
    QCOMPARE(int(mixtures.best(grey(128), kGrey, 0).ink), 2);
    // A thin red stroke on white, red nowhere beside it.
    QCOMPARE(int(mixtures.best({40, 35, 194}, kWhite, kRed).ink), 3);
  }

  void unsurePixelsAreDecidedFromBeside() {
    cv::Mat bgr(1, 5, CV_8UC3);
    for (int x = 0; x < 5; ++x) bgr.at<cv::Vec3b>(0, x) = grey(std::array{255, 255, 100, 0, 0}[std::size_t(x)]);
    cv::Mat labels = (cv::Mat_<std::uint8_t>(1, 5) << 0, colour::kUnsure, colour::kUnsure, colour::kUnsure, 1);
    colour::decideMixtures(bgr, colour::Mixtures(kInks), labels, {});
    const std::uint8_t expected[] = {0, 0, 1, 1, 1};
    for (int x = 0; x < 5; ++x) QCOMPARE(int(labels.at<std::uint8_t>(0, x)), int(expected[x]));
  }

  /// Navy's lightness with yellow's colour, as a JPEG with colours at half the resolution leaves it.
  void bledColoursAreExplained() {
    const colour::Mixtures mixtures({{23, 41, 84}, {245, 186, 33}});
    QVERIFY(mixtures.best({23, 40, 44}, mixtures.all(), mixtures.all()).off > 15);
    QVERIFY(mixtures.mayHaveBled({23, 40, 44}));
    QVERIFY(!mixtures.mayHaveBled({40, 220, 40}));
  }

  void palettesAreDeterministicAndBounded() {
    cv::Mat bgr(10, 30, CV_8UC3, cv::Scalar(255, 255, 255));
    bgr(cv::Rect(0, 0, 10, 10)).setTo(cv::Scalar(40, 35, 194));
    bgr(cv::Rect(10, 0, 10, 10)).setTo(cv::Scalar(84, 41, 23));
    const cv::Mat lab = colour::labPicture(bgr);
    const cv::Mat all = cv::Mat::ones(bgr.size(), CV_8U);
    QCOMPARE(int(colour::paletteOf(lab, all, std::nullopt).size()), 3);
    QCOMPARE(int(colour::paletteOf(lab, all, 2).size()), 2);
    // More than there are colours cannot be found; nothing marked means everything.
    QCOMPARE(int(colour::paletteOf(lab, all, 9).size()), 3);
    QCOMPARE(int(colour::paletteOf(lab, cv::Mat::zeros(bgr.size(), CV_8U), std::nullopt).size()), 3);
    const auto [larger, smaller] = colour::partedColours(lab, all);
    QVERIFY(colour::differenceOf(larger, smaller) > 30);
    const cv::Mat oneColour = colour::labPicture(cv::Mat(4, 4, CV_8UC3, cv::Scalar(9, 9, 9)));
    const auto same = colour::partedColours(oneColour, cv::Mat::ones(4, 4, CV_8U));
    QVERIFY(same.first == same.second);
  }
};

RIM_TEST(TestMixture)
#include "tst_mixture.moc"
