// Which tones are traced: light that falls off is divided away, but no picture without paper is taken for that.

#include <QTest>
#include <opencv2/imgproc.hpp>
#include <random>

#include "core/trace/contour/tones.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr int kSide = 300;

double fallOff(double x, double y, double fall) { return 1 - fall * std::hypot(x, y) / (kSide * std::sqrt(2.0)); }

/// Noise of a camera on top of what is given for each pixel.
template <typename Level>
cv::Mat noisy(const Level& level) {
  std::mt19937 random(7);
  std::normal_distribution<double> noise(0, 1.5);
  cv::Mat grey(kSide, kSide, CV_8UC1);
  for (int y = 0; y < kSide; ++y) {
    for (int x = 0; x < kSide; ++x)
      grey.at<std::uint8_t>(y, x) = cv::saturate_cast<std::uint8_t>(level(x, y) + noise(random));
  }
  return grey;
}

double shareOfInk(const trace::contour::Tones& tones) { return cv::mean(tones.grey < tones.tone.threshold)[0] / 255; }

}  // namespace

class TestTones : public QObject {
  Q_OBJECT

 private slots:
  void inkOnUnevenPaperIsFound() {
    // A bar of ink across paper in falling light, darker at last than ink at first.
    const auto level = [](double x, double y) { return (y > 130 && y < 170 ? 90 : 240) * fallOff(x, y, 0.7); };
    const trace::contour::Tones tones = trace::contour::tonesFor(pictureOf(noisy(level)), {});
    QVERIFY(std::abs(shareOfInk(tones) - 39.0 / kSide) < 0.01);
  }

  void aLightThingOnADarkGroundIsNoNoise() {
    // A wall in falling light and a lamp on it: Otsu's threshold parts the lamp from the wall, not the wall's noise.
    const auto level = [](double x, double y) {
      const double off = std::hypot(x - 150, y - 150);
      return 130 * fallOff(x, y, 0.35) + 110 / (1 + std::exp((off - 60) / 1.5));
    };
    const cv::Mat grey = noisy(level);
    const trace::contour::Tones tones = trace::contour::tonesFor(pictureOf(grey), {});
    QVERIFY(std::abs(shareOfInk(tones) - (1 - M_PI * 60 * 60 / (kSide * kSide))) < 0.02);
    cv::Mat labels;
    QVERIFY2(cv::connectedComponents(tones.grey < tones.tone.threshold, labels) < 4, "the wall falls apart");
  }
};

RIM_TEST(TestTones)
#include "tst_tones.moc"
