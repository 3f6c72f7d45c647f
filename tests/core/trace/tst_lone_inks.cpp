// Inks a few pixels wide: how much of a pixel each covers, and outlines of single inks that the planar map keeps.
// Truth: the artwork's own formulas.

#include <QTest>
#include <numbers>

#include "core/colour/reduce.h"
#include "core/geometry/path_place.h"
#include "core/trace/ink_trace.h"
#include "core/trace/inks/ink_borders.h"
#include "core/trace/inks/ink_shares.h"
#include "core/trace/inks/lone_inks.h"
#include "core/trace/inks/short_borders.h"
#include "support/artwork.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

const std::vector<colour::Rgb> kColours{{255, 255, 255}, {0, 0, 0}, {146, 211, 245}, {177, 204, 51}};
constexpr int kSide = 80;

/// How far a place lies outside a pen's stroke from one place to another; inside negative.
double outsideStroke(Point p, Point from, Point to, double width) {
  const Point way = to - from;
  const double t = std::clamp(dot(p - from, way) / dot(way, way), 0.0, 1.0);
  return distance(p, from + way * t) - width / 2;
}

constexpr Point kFrom{18.3, 57.2};
constexpr Point kTo{55.6, 31.4};
constexpr double kWidth = 5.2;

/// A stroke whose round tips lie over the border of a sky.
std::size_t strokeOverSky(double x, double y) {
  if (outsideStroke({x, y}, kFrom, kTo, kWidth) < 0) return 1;
  return std::hypot(x - 30.4, y - 25.7) < 26.2 ? 2 : 0;
}

/// A flask: a neck 5 px wide inside, filled below.
std::size_t flask(double x, double y) {
  const double half = y < 40.4 ? 2.6 : 2.6 + (y - 40.4) * 0.7;
  const double off = std::abs(x - 40.3);
  if (y < 15.2 || y > 65.7) return 0;
  if (off < half && y > 18.9 && y < 61.8) return y < 40.4 ? 0 : 3;
  return off < half + 4 ? 1 : 0;
}

/// Three sectors that meet in one place.
std::size_t sectors(double x, double y) {
  const double angle = std::atan2(y - 40.3, x - 39.6) + std::numbers::pi;
  return 1 + static_cast<std::size_t>(angle / (2 * std::numbers::pi / 3)) % 3;
}

std::vector<Path> outlinesOf(const trace::Tracing& tracing, std::size_t layer) {
  std::vector<Path> outlines;
  for (std::size_t i = 0; i < tracing.outlines.size(); ++i) {
    if (tracing.layerOf[i] == layer) outlines.push_back(tracing.outlines[i]);
  }
  return outlines;
}

/// The layer whose colour comes nearest to one.
std::size_t layerLike(const trace::Tracing& tracing, colour::Rgb ink) {
  const auto off = [ink](const Layer& layer) {
    return std::abs(layer.red - ink.r) + std::abs(layer.green - ink.g) + std::abs(layer.blue - ink.b);
  };
  const auto nearest = std::min_element(tracing.layers.begin(), tracing.layers.end(),
                                        [off](const Layer& a, const Layer& b) { return off(a) < off(b); });
  return static_cast<std::size_t>(nearest - tracing.layers.begin());
}

}  // namespace

class TestLoneInks : public QObject {
  Q_OBJECT

 private slots:
  void sharesOfPixelsAreTheirAreas() {
    const picture::Picture picture = artwork(kSide, kSide, kColours, sectors);
    colour::InkMap map;
    for (const colour::Rgb colour : kColours) map.inks.push_back({colour, {}, colour::InkRole::Keep});
    cv::Mat labels(kSide, kSide, CV_8U);
    for (int y = 0; y < kSide; ++y) {
      for (int x = 0; x < kSide; ++x)
        labels.at<std::uint8_t>(y, x) = static_cast<std::uint8_t>(sectors(x + .5, y + .5));
    }
    map.labels = std::make_shared<const cv::Mat>(labels);
    const trace::inks::InkShares shares(*picture.bgr, map);
    constexpr int kTimes = 8;
    int ofThree = 0;
    for (std::size_t ink = 1; ink < kColours.size(); ++ink) {
      const cv::Mat levels = shares.levelsOf(static_cast<std::uint8_t>(ink));
      for (int y = 0; y < kSide; ++y) {
        for (int x = 0; x < kSide; ++x) {
          std::array<double, 4> covered{};
          for (int k = 0; k < kTimes * kTimes; ++k) {
            const double right = x + (k % kTimes + 0.5) / kTimes;
            const double down = y + (k / kTimes + 0.5) / kTimes;
            covered[sectors(right, down)] += 1.0 / (kTimes * kTimes);
          }
          const double own = covered[ink];
          covered[ink] = 0;
          const double lead = own - *std::max_element(covered.begin(), covered.end());
          ofThree +=
              own > 0.02 && std::count_if(covered.begin(), covered.end(), [](double c) { return c > 0.02; }) == 2;
          const double level = trace::inks::InkShares::kEvenShares - 0.5 - 90 * lead;
          QVERIFY2(
              std::abs(levels.at<std::uint8_t>(y, x) - level) < 4,
              qPrintable(QString("%1, %2: %3 for %4").arg(x).arg(y).arg(levels.at<std::uint8_t>(y, x)).arg(level)));
        }
      }
    }
    QVERIFY(ofThree >= 3);
  }

  void roundTipsOverABorderStayRound_data() {
    QTest::addColumn<int>("quality");
    QTest::addColumn<double>("mostPx");
    QTest::addRow("clean") << 0 << 0.4;
    QTest::addRow("JPEG 75") << 75 << 0.8;
  }
  void roundTipsOverABorderStayRound() {
    QFETCH(int, quality);
    QFETCH(double, mostPx);
    picture::Picture picture = artwork(kSide, kSide, kColours, strokeOverSky);
    if (quality > 0) picture = asJpeg(picture, quality);
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    QCOMPARE(int(map.inks.size()), 3);
    const trace::Tracing tracing = trace::traceInks(picture, map, trace::InkLayout::CutOut, {});
    const std::vector<Path> stroke = outlinesOf(tracing, layerLike(tracing, kColours[1]));
    QVERIFY(!stroke.empty());
    double most = 0;
    for (int k = 0; k < 400; ++k) {
      // A place of the true outline: along one side, round a tip, and back.
      const Point way = unit(kTo - kFrom);
      const double turn = 2 * std::numbers::pi * k / 400;
      const Point out{std::cos(turn), std::sin(turn)};
      const Point tip = dot(out, way) > 0 ? kTo : kFrom;
      const Point place = tip + out * (kWidth / 2);
      double off = 1e9;
      for (const Path& path : stroke) off = std::min(off, nearestOn(path, {place.x, kSide - place.y}).off);
      most = std::max(most, off);
    }
    QVERIFY2(most < mostPx, QByteArray::number(most));
  }

  void aNarrowNeckKeepsItsWidth() {
    const picture::Picture picture = artwork(kSide, kSide, kColours, flask);
    const trace::Tracing tracing =
        trace::traceInks(picture, colour::reduced(picture, std::nullopt), trace::InkLayout::CutOut, {});
    const std::vector<Path> filling = outlinesOf(tracing, layerLike(tracing, kColours[3]));
    QCOMPARE(int(filling.size()), 1);
    // At its top it is as wide as the neck.
    for (const double x : {40.3 - 2.6, 40.3 + 2.6}) {
      const double off = nearestOn(filling[0], {x, kSide - 40.4}).off;
      QVERIFY2(off < 0.25, QByteArray::number(off));
    }
  }

  void aShortBorderBetweenBordersThatMeetIsNone() {
    // Two squares over two fields, their corners a pixel or four apart.
    for (const int apart : {1, 4}) {
      const auto area = [apart](double x, double y) -> std::size_t {
        if (y < 40) return x < 40 ? 1 : 2;
        return x < 40 + apart ? 3 : 0;
      };
      const picture::Picture picture = artwork(kSide, kSide, kColours, area);
      const colour::InkMap map = colour::reduced(picture, std::nullopt);
      const trace::inks::CrackGraph graph = trace::inks::cracksOf(*map.labels);
      const std::vector<bool> none = trace::inks::bordersThatAreNone(graph, *picture.bgr, map);
      const auto count = std::count(none.begin(), none.end(), true);
      QCOMPARE(int(count), apart == 1 ? 1 : 0);
    }
  }

  void crossingsInAJpegStayWhereTheyAre() {
    // A chessboard in three inks (benchmarks/accuracy/inks.py), turned by 0.2.
    const std::vector<colour::Rgb> inks{{255, 255, 255}, {23, 41, 84}, {194, 35, 40}, {245, 186, 33}};
    const double c = std::cos(0.2);
    const double s = std::sin(0.2);
    const auto board = [c, s](double x, double y) -> std::size_t {
      const double u = (x - 120) * c + (y - 120) * s;
      const double v = (y - 120) * c - (x - 120) * s;
      if (std::abs(u) >= 90 || std::abs(v) >= 90) return 0;
      const int field = static_cast<int>(std::floor(u / 45)) + 2 * static_cast<int>(std::floor(v / 45));
      return 1 + static_cast<std::size_t>((field % 3 + 3) % 3);
    };
    const picture::Picture picture = asJpeg(artwork(240, 240, inks, board), 75);
    const trace::inks::InkBorders borders =
        trace::inks::fitInkBorders(picture, colour::reduced(picture, std::nullopt), {});
    for (const double a : {-45.0, 0.0, 45.0}) {
      for (const double b : {-45.0, 0.0, 45.0}) {
        const Point node{120 + a * c - b * s, 240 - (120 + b * c + a * s)};
        double least = 1e9;
        for (const trace::inks::FittedBorder& border : borders.borders) {
          for (const Segment& segment : border.path.segments) least = std::min(least, distance(segment.end, node));
        }
        QVERIFY2(least < 0.3, QByteArray::number(least));
      }
    }
  }

  void largePicturesAreTracedWithoutThem() {
    const picture::Picture picture = artwork(900, 800, kColours, strokeOverSky);
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    QVERIFY(trace::inks::LoneInks(trace::inks::cracksOf(*map.labels), *picture.bgr, map, {}, {}).inks().empty());
  }
};

RIM_TEST(TestLoneInks)
#include "tst_lone_inks.moc"
