// Pictures of black and white only: where their edges are is known to half a pixel, and what comes of them.

#include <QTest>
#include <opencv2/imgproc.hpp>
#include <random>
#include <string_view>

#include "core/colour/reduce.h"
#include "core/geometry/outermost.h"
#include "core/geometry/segment.h"
#include "core/picture/load.h"
#include "core/trace/contour/grain.h"
#include "core/trace/contour/roughness.h"
#include "core/trace/contour/sharpen.h"
#include "core/trace/contour/without_jags.h"
#include "core/trace/ink_trace.h"
#include "core/trace/trace.h"
#include "support/artwork.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr int kSize = 300;
constexpr trace::contour::TwoTone kTone{128, false};

/// A pixel is black when its middle is inside.
cv::Mat hard(int width, int height, const Inside& inside) {
  cv::Mat grey(height, width, CV_8UC1);
  for (int y = 0; y < height; ++y) {
    for (int x = 0; x < width; ++x) grey.at<std::uint8_t>(y, x) = inside(x + 0.5, y + 0.5) ? 0 : 255;
  }
  return grey;
}

std::vector<bool> jaggedOnesIn(const cv::Mat& grey) {
  const std::vector<trace::contour::Border> borders = trace::contour::followBorders(grey, kTone, 4);
  std::vector<trace::contour::Stretch> stretches = trace::contour::stretchesOf(borders);
  for (trace::contour::Stretch& stretch : stretches)
    stretch.points = trace::contour::sharpenBorder(grey, kTone, trace::contour::EdgeLevel::Coverage, stretch.points);
  std::vector<bool> jagged;
  for (const trace::contour::Roughness& rough :
       trace::contour::roughnessOf(stretches, borders.size(), trace::contour::mostNoiseByGrain(grey, kTone)))
    jagged.push_back(rough.jagged);
  return jagged;
}

bool looksJagged(const cv::Mat& grey) {
  const std::vector<bool> jagged = jaggedOnesIn(grey);
  return std::all_of(jagged.begin(), jagged.end(), [](bool one) { return one; });
}

double farthest(const trace::contour::Border& border, const std::function<double(Point)>& off) {
  double most = 0;
  for (const Point p : border) most = std::max(most, off(p));
  return most;
}

void expectEveryForm(const cv::Mat& grey) {
  const trace::Tracing tracing = trace::trace(pictureOf(grey), {});
  QVERIFY(!tracing.outlines.empty());
  const Box box = boxOf(tracing.outlines);
  for (const Path& path : tracing.outlines) {
    QVERIFY(path.closed);
    for (const CurveForm form : {CurveForm::Beziers, CurveForm::Arcs, CurveForm::Lines}) {
      const Path drawn = inForm(withOutermostNodes(path, box, 0.05, form), form, 0.05);
      QVERIFY(std::isfinite(pathLength(drawn)));
      QVERIFY(std::abs(signedArea(drawn) - signedArea(path)) < 0.05 * pathLength(path));
    }
  }
}

}  // namespace

class TestJagged : public QObject {
  Q_OBJECT

 private slots:
  /// A logo as web pages have them: its level edges lie on the pixels' sides, and only its round corners have greys.
  void aLogoOnThePixelGridKeepsItsRoundCorners() {
    constexpr int kSide = 272;
    constexpr double kRadius = 21.33;
    const auto box = [](double x, double y) {
      const double dx = std::max({40 + kRadius - x, x - (232 - kRadius), 0.0});
      const double dy = std::max({40 + kRadius - y, y - (232 - kRadius), 0.0});
      const bool hole = x > 61.33 && x < 210.67 && y > 61.33 && y < 210.67;
      return std::hypot(dx, dy) <= kRadius && !hole;
    };
    const picture::Picture logo = asJpeg(pictureOf(noisy(drawn(kSide, kSide, box), 1.5)), 45);
    const trace::Tracing tracing = trace::trace(logo, {});
    QCOMPARE(tracing.outlines.size(), 2U);
    double most = 0;
    for (const Path& path : tracing.outlines) {
      for (std::size_t i = 0; i < path.segments.size(); ++i) {
        for (const double t : {0.0, 0.25, 0.5, 0.75}) {
          const Point p = pointAt(pieceOf(path, i), t);
          const Point off{std::max({40 + kRadius - p.x, p.x - (232 - kRadius), 0.0}),
                          std::max({40 + kRadius - p.y, p.y - (232 - kRadius), 0.0})};
          if (off.x > 0 && off.y > 0 && length(off) > kRadius / 2)
            most = std::max(most, std::abs(length(off) - kRadius));
        }
      }
    }
    QVERIFY2(most < 0.4, qPrintable(QString::number(most)));
  }

  void edgesWithoutGreysAreJaggedOthersAreNot_data() {
    QTest::addColumn<bool>("greys");
    QTest::addColumn<double>("noise");
    QTest::addColumn<bool>("jagged");
    QTest::newRow("no greys") << false << 0.0 << true;
    QTest::newRow("no greys, noise 4") << false << 4.0 << true;
    QTest::newRow("greys") << true << 0.0 << false;
    QTest::newRow("greys, noise 4") << true << 4.0 << false;
    QTest::newRow("greys, noise 12") << true << 12.0 << false;
  }

  void edgesWithoutGreysAreJaggedOthersAreNot() {
    QFETCH(bool, greys);
    QFETCH(double, noise);
    QFETCH(bool, jagged);
    const std::vector<Inside> figures{disc(150.3, 140.7, 110), polygon(starCorners(150, 150, 7, 120, 55, 0.1)),
                                      polygon(squareCorners(150, 150, 90, 0.3))};
    for (const Inside& figure : figures) {
      const cv::Mat grey = greys ? drawn(kSize, kSize, figure, 20, 230) : hard(kSize, kSize, figure) * 0.8 + 20;
      QCOMPARE(looksJagged(noise > 0 ? noisy(grey, noise) : grey), jagged);
    }
  }

  /// Level and upright edges tell nothing: there a picture with greys looks the same.
  void levelEdgesAreNotJagged() {
    QVERIFY(!looksJagged(hard(kSize, kSize, polygon(squareCorners(150, 150, 90, 0)))));
    QVERIFY(trace::contour::roughnessOf({}, 0, 0).empty());
    QVERIFY(!trace::contour::roughnessOf({}, 2, 0)[1].jagged);
  }

  /// As in a photograph pasted together from a sharp part and a smooth one.
  void everyBorderHasItsOwnJags() {
    cv::Mat grey(kSize, 2 * kSize, CV_8UC1);
    hard(kSize, kSize, disc(150, 150, 110)).copyTo(grey(cv::Rect(0, 0, kSize, kSize)));
    drawn(kSize, kSize, disc(150, 150, 100)).copyTo(grey(cv::Rect(kSize, 0, kSize, kSize)));
    QCOMPARE(jaggedOnesIn(grey), (std::vector<bool>{true, false}));
  }

  /// Drawn with a shaking hand: rough, but with greys that say where each nick is.
  void aRoughEdgeWithGreysIsNotJagged() {
    std::mt19937 random(3);
    std::normal_distribution<double> shake(0, 0.5);
    std::vector<Point> corners;
    for (int k = 0; k < 90; ++k) {
      const double radius = 50 + shake(random);
      corners.push_back({60 + radius * std::cos(k * M_PI / 45), 60 + radius * std::sin(k * M_PI / 45)});
    }
    QVERIFY(!looksJagged(drawn(120, 120, polygon(corners))));
  }

  /// A lone side is passed by half a pixel along it, so across the edge by half a pixel times the sine of the edge's
  /// angle with the long runs of sides.
  void edgesAreAsNearAsTheirStepsSay_data() {
    QTest::addColumn<double>("slope");
    for (const double slope : {0.02, 0.05, 0.13, 0.31, 0.5, 0.77, 0.999})
      QTest::newRow(qPrintable(QString::number(slope))) << slope;
  }

  void edgesAreAsNearAsTheirStepsSay() {
    QFETCH(double, slope);
    for (const bool upright : {false, true}) {
      const auto over = [slope](double along, double across) { return across - 100.37 - slope * (along - 100); };
      const Inside inside = [&](double x, double y) { return (upright ? over(y, x) : over(x, y)) > 0; };
      const double scale = std::hypot(1, slope);
      const auto off = [&](Point p) {
        const double y = 200 - p.y;
        return std::abs(upright ? over(y, p.x) : over(p.x, y)) / scale;
      };
      // Away from the picture's sides, where runs are cut short.
      const double margin = 2 / slope;
      const auto within = [&](const trace::contour::Border& border) {
        trace::contour::Border kept;
        const double low = std::min(80.0, margin);
        std::copy_if(border.begin(), border.end(), std::back_inserter(kept), [&](Point p) {
          return std::min({p.x, p.y, 200 - p.x, 200 - p.y}) > low;
        });
        return kept;
      };
      const std::vector<trace::contour::Border> borders =
          trace::contour::followBorders(hard(200, 200, inside), kTone, 4);
      QCOMPARE(borders.size(), 1U);
      const trace::contour::Border kept = within(trace::contour::withoutJags(borders[0]));
      QVERIFY(kept.size() > 30);
      QVERIFY(farthest(kept, off) <= 0.5 * slope / scale + 1e-9);
    }
  }

  void stepsBecomeNoDetour() {
    const std::vector<trace::contour::Border> borders =
        trace::contour::followBorders(hard(kSize, kSize, disc(150.3, 140.7, 110)), kTone, 4);
    const trace::contour::Border round = trace::contour::withoutJags(borders[0]);
    QVERIFY(farthest(round, [](Point p) { return std::abs(distance(p, {150.3, kSize - 140.7}) - 110); }) < 0.75);
    QVERIFY(std::abs(trace::contour::borderArea(round) / (M_PI * 110 * 110) - 1) < 2e-3);
    for (std::size_t i = 0; i < round.size(); ++i) {
      const double step = distance(round[i], round[(i + 1) % round.size()]);
      QVERIFY(step > 0.4 && step < 1.6);
    }
  }

  void aLevelRectangleStaysAsItIs() {
    cv::Mat grey(40, 60, CV_8UC1, cv::Scalar(255));
    grey(cv::Rect(10, 8, 30, 20)).setTo(0);
    const std::vector<trace::contour::Border> borders = trace::contour::followBorders(grey, kTone, 4);
    const trace::contour::Border square = trace::contour::withoutJags(borders[0]);
    for (const Point p : square) {
      const bool onSide = p.x == 10 || p.x == 40 || p.y == 12 || p.y == 32;
      const bool acrossCorner = std::abs(p.x - 25) > 14 && std::abs(p.y - 22) > 9;
      QVERIFY(onSide || acrossCorner);
    }
  }

  void inkAtTheRimStaysThere() {
    const Inside inside = [](double x, double y) { return y < 20 + 0.2 * x; };
    const trace::contour::Border border =
        trace::contour::withoutJags(trace::contour::followBorders(hard(100, 80, inside), kTone, 4)[0]);
    for (const Point corner : {Point{0, 80}, Point{100, 80}})
      QVERIFY(std::find(border.begin(), border.end(), corner) != border.end());
  }

  void aChainOfSidesKeepsItsEnds() {
    std::vector<Point> sides;
    for (int k = 0; k < 24; ++k) {
      const int step = k / 6;
      sides.push_back({k + 0.5, static_cast<double>(step)});
      if (k % 6 == 5 && k < 23) sides.push_back({k + 1.0, step + 0.5});
    }
    const std::vector<Point> open = trace::contour::withoutJagsOpen(sides);
    QVERIFY(distance(open.front(), sides.front()) < 1e-12);
    QVERIFY(distance(open.back(), sides.back()) < 1e-12);
    // The three steps lie on one line.
    for (const Point p : open) {
      if (p.x > 6 && p.x < 18) QVERIFY(std::abs(p.y - 0.5 - (p.x - 6) / 6) < 1e-9);
    }
    for (const std::size_t few : {0U, 1U, 2U}) {
      const std::vector<Point> little(sides.begin(), sides.begin() + static_cast<std::ptrdiff_t>(few));
      QCOMPARE(trace::contour::withoutJagsOpen(little).size(), few);
    }
  }

  void blackAndWhiteComesToAsManyNodesAsTheFigureHas() {
    const trace::Tracing round = trace::trace(pictureOf(hard(kSize, kSize, disc(150.3, 140.7, 110))), {});
    QCOMPARE(countsOf(round.outlines).nodes, 2U);
    QVERIFY(std::abs(enclosedArea(round.outlines) / (M_PI * 110 * 110) - 1) < 2e-3);
    const std::vector<Point> corners = starCorners(150, 150, 7, 120, 55, 0.1);
    const trace::Tracing star = trace::trace(pictureOf(hard(kSize, kSize, polygon(corners))), {});
    QCOMPARE(countsOf(star.outlines).lines, 14U);
    QCOMPARE(countsOf(star.outlines).nodes, 14U);
    QVERIFY(percentile95(star.outlines, [&](Point p) { return distanceToPolygon(p, upright(corners, kSize)); }) < 0.35);
  }

  /// As a fax makes it of a noisy original.
  void noiseBesideTheStepsTurnsIntoFewNodes() {
    const std::vector<Point> corners = starCorners(150, 150, 7, 120, 55, 0.1);
    cv::Mat soft;
    cv::GaussianBlur(drawn(kSize, kSize, polygon(corners)), soft, {}, 0.8);
    trace::TraceSettings settings;
    settings.minAreaPx2 = 20;
    const trace::Tracing star = trace::trace(pictureOf(noisy(soft, 40) > 127), settings);
    QCOMPARE(star.outlines.size(), 1U);
    QVERIFY2(countsOf(star.outlines).nodes <= 20, qPrintable(QString::number(countsOf(star.outlines).nodes)));
    QVERIFY(percentile95(star.outlines, [&](Point p) { return distanceToPolygon(p, upright(corners, kSize)); }) < 1);
  }

  /// Who sets a small tolerance gets an outline that follows the pixels.
  void aSmallToleranceFollowsThePixels() {
    trace::TraceSettings close;
    close.tolerancePx = 0.05;
    const picture::Picture picture = pictureOf(hard(kSize, kSize, polygon(starCorners(150, 150, 7, 120, 55, 0.1))));
    QVERIFY(countsOf(trace::trace(picture, close).outlines).nodes >
            2 * countsOf(trace::trace(picture, {}).outlines).nodes);
  }

  void theMeasuredBorderIsTheOneThatIsFitted() {
    const picture::Picture picture = pictureOf(hard(kSize, kSize, polygon(squareCorners(150, 150, 90, 0.3))));
    const std::vector<trace::contour::Border> borders = trace::measuredBorders(picture, {});
    const std::vector<Point> corners = upright(squareCorners(150, 150, 90, 0.3), kSize);
    QCOMPARE(borders.size(), 1U);
    // The steps alone lie up to 0.5 px off, most of them; round the corners runs are cut short.
    std::vector<double> off;
    for (const Point p : borders[0]) off.push_back(distanceToPolygon(p, corners));
    std::sort(off.begin(), off.end());
    const Point side = unit(corners[1] - corners[0]);
    QVERIFY(off[off.size() * 95 / 100] < 0.5 * std::min(std::abs(side.x), std::abs(side.y)));
  }

  void randomFiguresStayClosedAndApart() {
    std::mt19937 random(11);
    std::uniform_int_distribution<int> tips(3, 9);
    std::uniform_real_distribution<double> turn(0, 3), place(60, 240), size(6, 60);
    for (int k = 0; k < 4; ++k) {
      cv::Mat grey(kSize, kSize, CV_8UC1, cv::Scalar(255));
      for (int i = 0; i < 10; ++i) {
        const double outer = size(random);
        const cv::Mat one =
            hard(kSize, kSize,
                 polygon(starCorners(place(random), place(random), tips(random), outer, outer / 3, turn(random))));
        cv::bitwise_xor(grey, ~one, grey);
      }
      const trace::Tracing tracing = trace::trace(pictureOf(grey), {});
      QVERIFY(!tracing.outlines.empty());
      for (const Path& path : tracing.outlines) QVERIFY(path.closed);
      QVERIFY(!anyCrossing(tracing.outlines));
    }
  }

  /// Drawings of pure noise end in every form. In the middle of this one the points of a border lie level with each
  /// other, whatever is fitted to them.
  void noiseIsDrawnInEveryForm() {
    const std::vector<std::string_view> rows{".#.###...#.###", "###.####.#...#", "#.....##.#.###", "#..#..##..#.##",
                                             "...##.#.#.....", "#..##.#......#", "...###.######.", "##..#...#.#.#.",
                                             "##...##..#....", "#.#######..##.", "#......###....", "#......#...##.",
                                             "#..#.####.##..", ".#....#.#.#..."};
    cv::Mat noise(static_cast<int>(rows.size()), static_cast<int>(rows[0].size()), CV_8UC1);
    for (int y = 0; y < noise.rows; ++y) {
      for (int x = 0; x < noise.cols; ++x)
        noise.at<std::uint8_t>(y, x) = rows[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)] == '#' ? 0 : 255;
    }
    expectEveryForm(noise);
    cv::RNG random(5);
    for (int k = 0; k < 6; ++k) {
      cv::Mat grey(60, 60, CV_8UC1);
      random.fill(grey, cv::RNG::UNIFORM, 0, 256);
      expectEveryForm(grey);
      expectEveryForm(grey > 127);
    }
  }

  /// Nine fields of a turned chessboard: four lines each.
  void inksWithoutMixturesHaveStraightBorders() {
    const std::vector<colour::Rgb> colours{
        {255, 255, 255}, {23, 41, 84}, {194, 35, 40}, {245, 186, 33}, {140, 199, 230}};
    const auto field = [](double x, double y) -> std::size_t {
      const double u = (x - 120) * std::cos(0.2) + (y - 120) * std::sin(0.2) + 90;
      const double v = (y - 120) * std::cos(0.2) - (x - 120) * std::sin(0.2) + 90;
      if (u < 0 || v < 0 || u >= 180 || v >= 180) return 0;
      return 1 + static_cast<std::size_t>(u / 60) % 2 + 2 * (static_cast<std::size_t>(v / 60) % 2);
    };
    cv::Mat bgr(240, 240, CV_8UC3);
    for (int y = 0; y < bgr.rows; ++y) {
      for (int x = 0; x < bgr.cols; ++x) {
        const colour::Rgb c = colours[field(x + 0.5, y + 0.5)];
        bgr.at<cv::Vec3b>(y, x) = cv::Vec3b(static_cast<uchar>(c.b), static_cast<uchar>(c.g), static_cast<uchar>(c.r));
      }
    }
    const picture::Picture picture = picture::makePicture(bgr, 0, "test");
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    QCOMPARE(map.inks.size(), 5U);
    const trace::Tracing tracing = trace::traceInks(picture, map, trace::InkLayout::CutOut, {});
    QCOMPARE(tracing.outlines.size(), 9U);
    QCOMPARE(countsOf(tracing.outlines).lines, 36U);
    QCOMPARE(countsOf(tracing.outlines).nodes, 36U);
  }
};

RIM_TEST(TestJagged)
#include "tst_jagged.moc"
