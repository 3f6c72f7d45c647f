// Colour differences against the published test data, and colours as text.

#include <QTest>
#include <opencv2/imgproc.hpp>
#include <random>

#include "core/colour/inks.h"
#include "core/colour/lab.h"
#include "core/error.h"
#include "support/test_list.h"

using namespace rim;

namespace {

/// The formula of CIE 15 on sRGB (IEC 61966-2-1), in doubles; the matrix and the white are those of OpenCV's manual.
colour::Lab byFormula(const cv::Vec3b& bgr) {
  const auto light = [](std::uint8_t level) {
    const double channel = level / 255.0;
    return channel > 0.04045 ? std::pow((channel + 0.055) / 1.055, 2.4) : channel / 12.92;
  };
  const double b = light(bgr[0]);
  const double g = light(bgr[1]);
  const double r = light(bgr[2]);
  const auto root = [](double t) { return t > 0.008856 ? std::cbrt(t) : 7.787 * t + 16.0 / 116; };
  const double x = root((0.412453 * r + 0.357580 * g + 0.180423 * b) / 0.950456);
  const double y = root(0.212671 * r + 0.715160 * g + 0.072169 * b);
  const double z = root((0.019334 * r + 0.119193 * g + 0.950227 * b) / 1.088754);
  return {116 * y - 16, 500 * (x - y), 200 * (y - z)};
}

}  // namespace

class TestLab : public QObject {
  Q_OBJECT

 private slots:
  /// OpenCV's conversion, which looks up colours in a coarse table, and the formula itself.
  void coloursAreThoseOfOpenCv() {
    std::mt19937 random(3);
    cv::Mat bgr(40, 50, CV_8UC3);
    for (int i = 0; i < 2000; ++i) {
      const auto level = [&random] { return static_cast<std::uint8_t>(random() % 256); };
      bgr.at<cv::Vec3b>(i / 50, i % 50) = {level(), level(), level()};
    }
    cv::Mat unit;
    bgr.convertTo(unit, CV_32FC3, 1 / 255.0);
    cv::Mat theirs;
    cv::cvtColor(unit, theirs, cv::COLOR_BGR2Lab);
    const cv::Mat ours = colour::labPicture(bgr);
    double most = 0;
    double sum = 0;
    for (int i = 0; i < 2000; ++i) {
      const auto at = [&](const cv::Mat& m) { return colour::labOf(m.at<cv::Vec3f>(i / 50, i % 50)); };
      const double off = std::sqrt(colour::squareBetween(at(ours), at(theirs)));
      most = std::max(most, off);
      sum += off;
      const cv::Vec3b& c = bgr.at<cv::Vec3b>(i / 50, i % 50);
      const colour::Lab one = colour::labFrom({c[2], c[1], c[0]});
      QVERIFY(colour::squareBetween(one, at(ours)) == 0);
      QVERIFY(std::sqrt(colour::squareBetween(one, byFormula(c))) < 0.01);
    }
    QVERIFY2(most < 1 && sum / 2000 < 0.3, qPrintable(QStringLiteral("%1 %2").arg(most).arg(sum / 2000)));
  }

  /// Sharma, Wu and Dalal (2005), table 1: all 34 pairs, to the four decimals printed there.
  void differencesAsPublished_data() {
    QTest::addColumn<QList<double>>("pair");
    const QList<QList<double>> pairs{{50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425},
                                     {50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615},
                                     {50, 2.8361, -74.0200, 50, 0, -82.7485, 3.4412},
                                     {50, -1.3802, -84.2814, 50, 0, -82.7485, 1.0000},
                                     {50, -1.1848, -84.8006, 50, 0, -82.7485, 1.0000},
                                     {50, -0.9009, -85.5211, 50, 0, -82.7485, 1.0000},
                                     {50, 0, 0, 50, -1, 2, 2.3669},
                                     {50, -1, 2, 50, 0, 0, 2.3669},
                                     {50, 2.4900, -0.0010, 50, -2.4900, 0.0009, 7.1792},
                                     {50, 2.4900, -0.0010, 50, -2.4900, 0.0010, 7.1792},
                                     {50, 2.4900, -0.0010, 50, -2.4900, 0.0011, 7.2195},
                                     {50, 2.4900, -0.0010, 50, -2.4900, 0.0012, 7.2195},
                                     {50, -0.0010, 2.4900, 50, 0.0009, -2.4900, 4.8045},
                                     {50, -0.0010, 2.4900, 50, 0.0010, -2.4900, 4.8045},
                                     {50, -0.0010, 2.4900, 50, 0.0011, -2.4900, 4.7461},
                                     {50, 2.5, 0, 50, 0, -2.5, 4.3065},
                                     {50, 2.5, 0, 73, 25, -18, 27.1492},
                                     {50, 2.5, 0, 61, -5, 29, 22.8977},
                                     {50, 2.5, 0, 56, -27, -3, 31.9030},
                                     {50, 2.5, 0, 58, 24, 15, 19.4535},
                                     {50, 2.5, 0, 50, 3.1736, 0.5854, 1.0000},
                                     {50, 2.5, 0, 50, 3.2972, 0, 1.0000},
                                     {50, 2.5, 0, 50, 1.8634, 0.5757, 1.0000},
                                     {50, 2.5, 0, 50, 3.2592, 0.3350, 1.0000},
                                     {60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644},
                                     {63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.2630},
                                     {61.2901, 3.7196, -5.3901, 61.4292, 2.2480, -4.9620, 1.8731},
                                     {35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645},
                                     {22.7233, 20.0904, -46.6940, 23.0331, 14.9730, -42.5619, 2.0373},
                                     {36.4612, 47.8580, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146},
                                     {90.8027, -2.0831, 1.4410, 91.1528, -1.6435, 0.0447, 1.4441},
                                     {90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381},
                                     {6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377},
                                     {2.0776, 0.0795, -1.1350, 0.9033, -0.0636, -0.5514, 0.9082}};
    for (int i = 0; i < pairs.size(); ++i) QTest::addRow("pair %d", i + 1) << pairs[i];
  }
  void differencesAsPublished() {
    QFETCH(QList<double>, pair);
    const colour::Lab one{pair[0], pair[1], pair[2]};
    const colour::Lab other{pair[3], pair[4], pair[5]};
    QVERIFY(std::abs(colour::differenceOf(one, other) - pair[6]) < 1e-4);
    QVERIFY(std::abs(colour::differenceOf(other, one) - pair[6]) < 1e-4);
  }

  /// The D65 white of IEC 61966-2-1 is L* 100; its black is 0. The red primary's L*a*b* is 53.24, 80.09, 67.20 (from
  /// memory).
  void knownColours() {
    const colour::Lab white = colour::labFrom({255, 255, 255});
    QVERIFY(std::abs(white.l - 100) < 0.01 && std::hypot(white.a, white.b) < 0.05);
    QVERIFY(std::abs(colour::labFrom({0, 0, 0}).l) < 0.01);
    const colour::Lab red = colour::labFrom({255, 0, 0});
    QVERIFY(std::abs(red.l - 53.24) < 0.1 && std::abs(red.a - 80.09) < 0.3 && std::abs(red.b - 67.20) < 0.3);
  }

  void thereAndBack() {
    for (const colour::Rgb colour : {colour::Rgb{0, 0, 0}, colour::Rgb{23, 41, 84}, colour::Rgb{194, 35, 40},
                                     colour::Rgb{245, 186, 33}, colour::Rgb{255, 255, 255}}) {
      const colour::Rgb back = colour::rgbFrom(colour::labFrom(colour));
      QVERIFY(std::abs(back.r - colour.r) <= 1 && std::abs(back.g - colour.g) <= 1 && std::abs(back.b - colour.b) <= 1);
    }
  }

  void coloursAsText() {
    QCOMPARE(colour::hexOf({179, 32, 42}), std::string("#b3202a"));
    QVERIFY(colour::colourFromHex("#b3202a") == (colour::Rgb{179, 32, 42}));
    QVERIFY(colour::colourFromHex("b3202A") == (colour::Rgb{179, 32, 42}));
    QVERIFY(colour::colourFromHex("#fff") == (colour::Rgb{255, 255, 255}));
    for (const char* wrong : {"", "#", "#12", "#12345", "red", "#gggggg", "#1234567"})
      QVERIFY_THROWS_EXCEPTION(InputError, colour::colourFromHex(wrong));
  }
};

RIM_TEST(TestLab)
#include "tst_lab.moc"
