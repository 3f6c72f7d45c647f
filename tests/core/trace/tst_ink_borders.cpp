// The planar map of several inks: borders once each, meeting exactly at junctions. Truth: the artwork's own formulas.

#include <QTest>
#include <numbers>
#include <random>
#include <set>

#include "core/colour/reduce.h"
#include "core/error.h"
#include "core/geometry/crossing.h"
#include "core/geometry/flatten.h"
#include "core/geometry/path_place.h"
#include "core/picture/load.h"
#include "core/trace/ink_trace.h"
#include "core/trace/inks/cracks.h"
#include "core/trace/inks/ink_outlines.h"
#include "support/artwork.h"
#include "support/ink_crossings.h"
#include "support/measure.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

const std::vector<colour::Rgb> kColours{{255, 255, 255}, {23, 41, 84}, {194, 35, 40}, {245, 186, 33}, {140, 199, 230}};
constexpr int kSide = 160;

/// A disc in three sectors that meet at (78.4, 81.7).
std::size_t sectors(double x, double y) {
  if (std::hypot(x - 80, y - 80) > 60.3) return 0;
  const double angle = std::atan2(y - 81.7, x - 78.4) + std::numbers::pi;
  return 1 + static_cast<std::size_t>(angle / (2 * std::numbers::pi / 3)) % 3;
}

/// A disc over two stripes.
std::size_t discOverStripes(double x, double y) {
  if (std::hypot(x - 80.2, y - 79.6) < 40.4) return 3;
  if (x < 15.3 || x > 145.2 || y < 20.6 || y > 140.1) return 0;
  return x < 84.3 ? 1 : 2;
}

/// Four fields, alike across the corner at (80.3, 79.8).
std::size_t fields(double x, double y) {
  if (x < 20.5 || x > 140.5 || y < 20.5 || y > 140.5) return 0;
  return (x < 80.3) == (y < 79.8) ? 1 : 2;
}

/// Stripes that reach the picture's edge.
std::size_t toTheRim(double x, double y) { return x + 0.3 * y < 70.2 ? 1 : x + 0.3 * y < 120.4 ? 2 : 4; }

colour::InkMap keptAll(colour::InkMap map) {
  for (colour::Ink& ink : map.inks) ink.role = colour::InkRole::Keep;
  return map;
}

struct Traced {
  picture::Picture picture;
  colour::InkMap map;
  trace::inks::InkBorders borders;
};

Traced tracedFrom(const Area& area) {
  Traced t;
  t.picture = artwork(kSide, kSide, kColours, area);
  t.map = colour::reduced(t.picture, std::nullopt);
  t.borders = trace::inks::fitInkBorders(t.picture, t.map, {});
  return t;
}

double nearestJunction(const trace::inks::InkBorders& borders, Point place) {
  double least = 1e9;
  for (const Point j : borders.junctions) least = std::min(least, distance(j, place));
  return least;
}

/// The sum of the areas that all inks' outlines enclose.
double areaOfAll(const Traced& t) {
  double sum = 0;
  for (std::size_t i = 0; i < t.map.inks.size(); ++i) {
    std::vector<bool> only(t.map.inks.size(), false);
    only[i] = true;
    for (const Path& path : trace::inks::outlinesRound(t.borders, only)) sum += signedArea(path);
  }
  return sum;
}

}  // namespace

class TestInkBorders : public QObject {
  Q_OBJECT

 private slots:
  void cracksArePartOfOneChainEach() {
    cv::Mat labels(6, 7, CV_8U, cv::Scalar(0));
    labels(cv::Rect(1, 1, 3, 3)).setTo(1);
    labels(cv::Rect(4, 2, 2, 3)).setTo(2);
    labels.at<std::uint8_t>(4, 1) = 3;
    const trace::inks::CrackGraph graph = trace::inks::cracksOf(labels);
    std::size_t sides = 0;
    for (const trace::inks::CrackChain& chain : graph.chains) {
      sides += chain.corners.size() - 1;
      QVERIFY(chain.left != chain.right);
      for (std::size_t i = 1; i < chain.corners.size(); ++i)
        QCOMPARE(std::abs(chain.corners[i].x - chain.corners[i - 1].x) +
                     std::abs(chain.corners[i].y - chain.corners[i - 1].y),
                 1);
      QCOMPARE(chain.start < 0, chain.end < 0);
      if (chain.start < 0) QVERIFY(chain.corners.front() == chain.corners.back());
    }
    std::size_t expected = 2 * (6 + 7);  // the picture's edge
    for (int y = 0; y < 6; ++y) {
      for (int x = 0; x < 7; ++x) {
        if (x + 1 < 7) expected += labels.at<std::uint8_t>(y, x) != labels.at<std::uint8_t>(y, x + 1) ? 1 : 0;
        if (y + 1 < 6) expected += labels.at<std::uint8_t>(y, x) != labels.at<std::uint8_t>(y + 1, x) ? 1 : 0;
      }
    }
    QCOMPARE(sides, expected);
  }

  void diagonalBordersAreMeasuredAllAlong() {
    // A bar 50 by 4 px at exactly 45 degrees: level and upright sides of its pixels take turns.
    const double s = std::numbers::sqrt2 / 2;
    const Traced t = tracedFrom([s](double x, double y) -> std::size_t {
      const double along = ((x - 80.2) + (y - 79.7)) * s;
      const double across = ((x - 80.2) - (y - 79.7)) * s;
      return std::abs(along) < 25 && std::abs(across) < 2 ? 2 : 0;
    });
    const auto bar =
        std::find_if(t.borders.borders.begin(), t.borders.borders.end(), [](const trace::inks::FittedBorder& b) {
          return b.left != trace::inks::kOutside && b.right != trace::inks::kOutside;
        });
    QVERIFY(bar != t.borders.borders.end());
    for (const double along : {-18.0, -6.0, 0.0, 11.0, 20.0}) {
      for (const double across : {-2.0, 2.0}) {
        const Point place{80.2 + (along + across) * s, kSide - (79.7 + (along - across) * s)};
        const double off = nearestOn(bar->path, place).off;
        QVERIFY2(off < trace::TraceSettings{}.tolerancePx,
                 qPrintable(QString("%1, %2: %3").arg(along).arg(across).arg(off)));
      }
    }
  }

  void bordersThatMeetAtASmallAngleMeetWhereTheyAre_data() {
    QTest::addColumn<double>("degrees");
    for (const double degrees : {50.0, 25.0, 17.0, 12.0}) QTest::addRow("%g degrees", degrees) << degrees;
  }
  void bordersThatMeetAtASmallAngleMeetWhereTheyAre() {
    QFETCH(double, degrees);
    const double slope = std::tan(degrees * std::numbers::pi / 180);
    // The border between two inks runs into the upright edge at 120.4 from below, at 40.3 from the top.
    const Traced t = tracedFrom([slope](double x, double y) -> std::size_t {
      if (x > 120.4 || x < 20.3 || y < 20.6 || y > 140.7) return 0;
      return 120.4 - x < (y - 40.3) * slope ? 1 : 2;
    });
    const Point place{120.4, kSide - 40.3};
    QVERIFY2(nearestJunction(t.borders, place) < 0.3, qPrintable(QString::number(nearestJunction(t.borders, place))));
  }

  void aChessboardCornerKeepsTheHigherLabelTogether() {
    cv::Mat labels(4, 4, CV_8U, cv::Scalar(0));
    labels.at<std::uint8_t>(1, 1) = 1;
    labels.at<std::uint8_t>(2, 2) = 1;
    int closed = 0;
    for (const trace::inks::CrackChain& chain : trace::inks::cracksOf(labels).chains) closed += chain.start < 0 ? 1 : 0;
    QCOMPARE(closed, 1);
  }

  void junctionsLieWhereTheArtworkHasThem() {
    QVERIFY(nearestJunction(tracedFrom(sectors).borders, {78.4, kSide - 81.7}) < 0.1);
    QVERIFY(nearestJunction(tracedFrom(fields).borders, {80.3, kSide - 79.8}) < 0.1);
    const Traced t = tracedFrom(discOverStripes);
    const double half = std::sqrt(40.4 * 40.4 - 4.1 * 4.1);
    QVERIFY(nearestJunction(t.borders, {84.3, kSide - (79.6 - half)}) < 0.1);
    QVERIFY(nearestJunction(t.borders, {84.3, kSide - (79.6 + half)}) < 0.1);
  }

  /// A disc that lies over other borders stays a circle where they end on it.
  void whatGoesStraightOnStaysSo() {
    const Traced t = tracedFrom(discOverStripes);
    std::vector<bool> disc(t.map.inks.size(), false);
    for (std::size_t i = 0; i < t.map.inks.size(); ++i)
      disc[i] = colour::differenceOf(colour::labFrom(t.map.inks[i].colour), colour::labFrom(kColours[3])) < 5;
    const std::vector<Path> outlines = trace::inks::outlinesRound(t.borders, disc);
    QCOMPARE(int(outlines.size()), 1);
    const auto off = [](Point p) { return std::abs(distance(p, {80.2, kSide - 79.6}) - 40.4); };
    QVERIFY(percentile95(outlines, off) < 0.06);
    for (const Segment& s : outlines[0].segments) QVERIFY(s.kind == SegmentKind::Arc);
  }

  void allInksTogetherFillThePicture_data() {
    QTest::addColumn<int>("which");
    QTest::newRow("sectors") << 0;
    QTest::newRow("disc over stripes") << 1;
    QTest::newRow("fields") << 2;
    QTest::newRow("to the rim") << 3;
  }
  void allInksTogetherFillThePicture() {
    QFETCH(int, which);
    const Area areas[] = {sectors, discOverStripes, fields, toTheRim};
    const Traced t = tracedFrom(areas[which]);
    QVERIFY(std::abs(areaOfAll(t) - kSide * kSide) < 1e-4 * kSide * kSide);
  }

  void commonBordersAreTheSameSegments() {
    const Traced t = tracedFrom(sectors);
    const trace::Tracing tracing = trace::traceInks(t.picture, t.map, trace::InkLayout::CutOut, {});
    QCOMPARE(int(tracing.layers.size()), 3);
    std::multiset<std::pair<double, double>> nodes;
    for (const Path& path : tracing.outlines) {
      for (const Segment& s : path.segments) nodes.insert({s.end.x, s.end.y});
    }
    // The middle belongs to three outlines, every place on the rim where two meet to two; bit for bit.
    int three = 0;
    int two = 0;
    for (auto it = nodes.begin(); it != nodes.end(); it = nodes.upper_bound(*it)) {
      three += nodes.count(*it) == 3 ? 1 : 0;
      two += nodes.count(*it) == 2 ? 1 : 0;
    }
    QCOMPARE(three, 1);
    QVERIFY(two >= 3);
  }

  void layouts() {
    const Traced t = tracedFrom(sectors);
    const trace::Tracing silhouette = trace::traceInks(t.picture, t.map, trace::InkLayout::Silhouette, {});
    QCOMPARE(int(silhouette.outlines.size()), 1);
    QVERIFY(std::abs(signedArea(silhouette.outlines[0]) - std::numbers::pi * 60.3 * 60.3) < 12);
    const trace::Tracing shared = trace::traceInks(t.picture, t.map, trace::InkLayout::Shared, {});
    const Counts counts = countsOf(shared.outlines);
    QCOMPARE(int(counts.closed), 1);
    QCOMPARE(int(counts.open), 3);
    // Every border once: the circle and three spokes.
    double spokes = 0;
    for (const Path& path : shared.outlines) spokes += path.closed ? 0 : pathLength(path);
    double circle = pathLength(silhouette.outlines[0]);
    QVERIFY(std::abs(totalLength(shared.outlines) - circle - spokes) < 1e-9);
    QVERIFY(std::abs(spokes - 181) < 3);
    const trace::PartsAndHoles count = trace::partsAndHoles(silhouette.outlines);
    QCOMPARE(int(count.parts), 1);
    QCOMPARE(int(count.holes), 0);
  }

  void areasThatTouchAtACornerStayApart() {
    const Traced t = tracedFrom(fields);
    const trace::Tracing tracing = trace::traceInks(t.picture, t.map, trace::InkLayout::CutOut, {});
    QCOMPARE(int(tracing.outlines.size()), 4);
    std::vector<double> areas;
    for (const Path& path : tracing.outlines) areas.push_back(signedArea(path));
    std::sort(areas.begin(), areas.end());
    // Eight places a pixel see the edges a twentieth of a pixel off.
    const double expected[] = {59.8 * 59.3, 60.2 * 59.3, 59.8 * 60.7, 60.2 * 60.7};
    for (std::size_t i = 0; i < 4; ++i) QVERIFY(std::abs(areas[i] - expected[i]) < 10);
  }

  void everythingBackgroundGivesNoOutlines() {
    Traced t = tracedFrom(sectors);
    for (colour::Ink& ink : t.map.inks) ink.role = colour::InkRole::Background;
    for (const trace::InkLayout layout :
         {trace::InkLayout::CutOut, trace::InkLayout::Silhouette, trace::InkLayout::Shared})
      QVERIFY(trace::traceInks(t.picture, t.map, layout, {}).outlines.empty());
    // Everything kept: the sheet itself, and no line beyond it.
    const trace::Tracing all = trace::traceInks(t.picture, keptAll(t.map), trace::InkLayout::Silhouette, {});
    QCOMPARE(int(all.outlines.size()), 1);
    QVERIFY(std::abs(signedArea(all.outlines[0]) - kSide * kSide) < 1e-9);
  }

  void whatAnOutlineRunsOutAndBackIsLeftOut() {
    // Both borders of ink 1 lead to their first junction by the same short line.
    const auto line = [](double x, double y) { return Segment::line({x, y}); };
    trace::inks::InkBorders borders;
    borders.junctions = {{0, 0}, {10, 0}};
    borders.borders = {{{{0, 0}, {line(0.5, 0), line(5, -5), line(10, 0)}, false}, 1, 2, 0, 1, 0},
                       {{{10, 0}, {line(5, 5), line(0.5, 0), line(0.5, 0), line(0, 0)}, false}, 1, 3, 1, 0, 1}};
    const std::vector<Path> outlines = trace::inks::outlinesRound(borders, {false, true});
    QCOMPARE(int(outlines.size()), 1);
    QCOMPARE(int(outlines[0].segments.size()), 4);
    QVERIFY(outlines[0].segments.back().end == outlines[0].start);
    QVERIFY(std::abs(signedArea(outlines[0]) - 47.5) < 1e-9);
    QVERIFY(nearestOn(outlines[0], {0, 0}).off > 0.4);
  }

  void aJpegKeepsTheTopology() {
    const picture::Picture clean = artwork(kSide, kSide, kColours, discOverStripes);
    const picture::Picture jpeg = asJpeg(clean, 75);
    const colour::InkMap map = colour::reduced(jpeg, std::nullopt);
    QCOMPARE(int(map.inks.size()), 4);
    const trace::Tracing tracing = trace::traceInks(jpeg, map, trace::InkLayout::CutOut, {});
    // Both stripes are one part each round the disc.
    QCOMPARE(int(tracing.outlines.size()), 3);
  }

  void moreSmoothnessNeverGivesMoreNodes() {
    const picture::Picture jpeg = picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/badge.jpg"));
    const colour::InkMap map = colour::reduced(jpeg, std::nullopt);
    std::size_t usual = 0;
    std::size_t before = 0;
    for (const double px : {0.35, 0.8, 3.0, 10.0}) {
      trace::TraceSettings settings;
      settings.tolerancePx = px;
      const trace::inks::InkBorders borders = trace::inks::fitInkBorders(jpeg, map, settings);
      std::size_t now = 0;
      for (const trace::inks::FittedBorder& border : borders.borders) now += border.path.segments.size();
      if (before == 0) usual = before = now;
      QVERIFY2(now <= before, QByteArray::number(px));
      before = now;
      // Borders still end where others do.
      for (const trace::inks::FittedBorder& border : borders.borders) {
        if (border.end < 0) continue;
        QVERIFY(border.path.segments.back().end == borders.junctions[static_cast<std::size_t>(border.end)]);
      }
    }
    QVERIFY2(10 * before < 9 * usual, QByteArray::number(before));
  }

  void outlinesOfAnInkCrossNothing_data() {
    QTest::addColumn<int>("quality");
    for (const int quality : {75, 30, 8}) QTest::addRow("JPEG %d", quality) << quality;
  }
  void outlinesOfAnInkCrossNothing() {
    QFETCH(int, quality);
    for (const Area& area : {Area(sectors), Area(discOverStripes)}) {
      const picture::Picture jpeg = asJpeg(artwork(kSide, kSide, kColours, area), quality);
      const colour::InkMap map = colour::reduced(jpeg, 6);
      const trace::inks::InkBorders borders = trace::inks::fitInkBorders(jpeg, map, {});
      for (const Point place : crossingsOffJunctions(borders, map.inks.size()))
        QFAIL(qPrintable(QStringLiteral("crossing at %1, %2").arg(place.x).arg(place.y)));
    }
  }

  void placesOnPaths() {
    Path path{
        {0, 0}, {Segment::line({10, 0}), Segment::arc({10, 10}, 1), Segment::cubic({7, 12}, {3, 12}, {0, 10})}, false};
    const PathPlace onLine = nearestOn(path, {4, -3});
    QCOMPARE(onLine.segment, std::size_t{0});
    QVERIFY(distance(onLine.place, {4, 0}) < 1e-12 && std::abs(onLine.off - 3) < 1e-12);
    const PathPlace onArc = nearestOn(path, {20, 5});
    QVERIFY(distance(onArc.place, {15, 5}) < 1e-9);
    QVERIFY(distance(tangentOn(path, onArc), {0, 1}) < 1e-9);
    const PathPlace onCurve = nearestOn(path, {5, 20});
    QVERIFY(distance(onCurve.place, {5, 11.5}) < 1e-6);
    const Path stretch = stretchOf(path, onLine, onCurve);
    QVERIFY(distance(stretch.start, {4, 0}) < 1e-12 && distance(stretch.segments.back().end, {5, 11.5}) < 1e-6);
    QVERIFY(
        std::abs(pathLength(stretch) - (6 + 5 * std::numbers::pi + pathLength(path) / 1 - 10 - 5 * std::numbers::pi -
                                        pathLength(stretchOf(path, onCurve, {2, 1, {0, 10}, 0})))) < 1e-4);
    const Path moved = withEnds(path, {0, 1}, {0, 9});
    QVERIFY(moved.start == (Point{0, 1}) && moved.segments.back().end == (Point{0, 9}));
  }

  void itCanBeStopped() {
    const Traced t = tracedFrom(sectors);
    std::stop_source source;
    source.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, trace::inks::fitInkBorders(t.picture, t.map, {}, {source.get_token(), {}}));
  }

  /// Crescents and lenses with tips of a few degrees, one over the other: a loop at a tip may be far smaller than a
  /// pixel.
  void needlesOfInksCrossNothing() {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> place(30, 130), turn(0, 6.3), size(40, 70), width(2, 7);
    for (int round = 0; round < 6; ++round) {
      struct Needle {
        Point middle, along;
        double half, low, high;
      };
      std::vector<Needle> needles;
      for (int k = 0; k < 6; ++k) {
        const double angle = turn(random);
        const double bend = width(random);
        needles.push_back({{place(random), place(random)},
                           {std::cos(angle), std::sin(angle)},
                           size(random),
                           bend,
                           bend + width(random)});
      }
      const Traced t = tracedFrom([&needles](double x, double y) {
        std::size_t ink = 0;
        for (std::size_t k = 0; k < needles.size(); ++k) {
          const Point off = Point{x, y} - needles[k].middle;
          const double u = dot(off, needles[k].along) / needles[k].half;
          const double v = cross(needles[k].along, off);
          // Between two parabolas that meet at both tips.
          if (std::abs(u) < 1 && v > needles[k].low * (1 - u * u) && v < needles[k].high * (1 - u * u)) ink = 1 + k % 3;
        }
        return ink;
      });
      constexpr double kFinePx = 0.0002;
      const std::vector<Point> places = crossingsOffJunctions(t.borders, t.map.inks.size(), kFinePx);
      QVERIFY2(places.empty(), qPrintable(QString("round %1 near %2, %3")
                                              .arg(round)
                                              .arg(places.empty() ? 0 : places[0].x)
                                              .arg(places.empty() ? 0 : places[0].y)));
    }
  }
};

RIM_TEST(TestInkBorders)
#include "tst_ink_borders.moc"
