// Where fitted borders would cross they follow their measured points, near the crossing and nowhere else.

#include <QTest>

#include "core/colour/reduce.h"
#include "core/geometry/crossing.h"
#include "core/geometry/flatten.h"
#include "core/geometry/path_place.h"
#include "core/trace/ink_trace.h"
#include "core/trace/inks/ink_outlines.h"
#include "core/trace/inks/ways.h"
#include "core/trace/outline/measured_near.h"
#include "support/artwork.h"
#include "support/ink_crossings.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr int kSide = 160;
const std::vector<colour::Rgb> kColours{{255, 255, 255}, {23, 41, 84},   {194, 35, 40}, {245, 186, 33},
                                        {140, 199, 230}, {40, 130, 70},  {20, 20, 20},  {150, 150, 150},
                                        {230, 120, 170}, {110, 60, 140}, {150, 95, 50}, {190, 215, 90}};

/// A disc in eleven sectors that meet at (78.6, 81.3).
std::size_t elevenSectors(double x, double y) {
  if (std::hypot(x - 80, y - 80) > 65.3) return 0;
  const double turns = (std::atan2(y - 81.3, x - 78.6) + 0.4) / (2 * M_PI) + 1;
  return 1 + static_cast<std::size_t>(11 * (turns - std::floor(turns))) % 11;
}

/// A border at y = 80.3 up to x = 70.4 and one at y = 78.5 from there: they only seem to go over into each other.
std::size_t step(double x, double y) {
  if (x < 15.3 || x > 145.2 || y < 20.6 || y > 140.1) return 0;
  if (y < (x < 70.4 ? 80.3 : 78.5)) return 1;
  return x < 70.4 ? 2 : 3;
}

/// y = 0 from (0, 0) to (100, 0), and what was measured of it: a wave beside it.
const Path kLine{{0, 0}, {Segment::line({50, 0}), Segment::line({100, 0})}, false};
std::vector<Point> waveBeside() {
  std::vector<Point> points;
  for (int x = 1; x < 100; ++x) points.push_back({static_cast<double>(x), 0.2 + 0.1 * (x % 2)});
  return points;
}

bool isOnLine(Point p) { return std::abs(p.y) < 1e-12; }

}  // namespace

class TestMeasuredNear : public QObject {
  Q_OBJECT

 private slots:
  void farFromThePlacesThePathIsKept() {
    const Path path = trace::outline::measuredNear(kLine, waveBeside(), {0, 0}, {100, 0}, {{30, 5}}, 8);
    QCOMPARE(path.start, (Point{0, 0}));
    QCOMPARE(path.segments.back().end, (Point{100, 0}));
    int measured = 0;
    for (const Segment& s : path.segments) {
      const bool near = distance(s.end, {30, 5}) <= 8.3;
      if (!near) QVERIFY(isOnLine(s.end));
      measured += isOnLine(s.end) ? 0 : 1;
    }
    // Of a circle of 8 px round (30, 5) the wave has a chord of 2 sqrt(8^2 - 4.7^2) = 12.9 px.
    QVERIFY2(measured >= 11 && measured <= 14, qPrintable(QString::number(measured)));
    QVERIFY(nearestOn(path, {50, 0}).off < 1e-12);
  }

  void placesAtTheEnds() {
    const Path path = trace::outline::measuredNear(kLine, waveBeside(), {0, 1}, {100, 1}, {{0, 0}, {100, 0}}, 4);
    QCOMPARE(path.start, (Point{0, 1}));
    QCOMPARE(path.segments.back().end, (Point{100, 1}));
    QVERIFY(nearestOn(path, {50, 0}).off < 1e-12);
    QVERIFY(nearestOn(path, {2, 0.2}).off < 1e-9);
  }

  void everywhereIsAPolyline() {
    const Path path = trace::outline::measuredNear(kLine, waveBeside(), {0, 0}, {100, 0}, {{50, 0}}, 1e9);
    QCOMPARE(path.segments.size(), waveBeside().size() + 1);
  }

  void nowhereIsThePathWithItsOwnEnds() {
    const Path path = trace::outline::measuredNear(kLine, waveBeside(), {0, 0}, {100, 0}, {}, 8);
    QCOMPARE(pathLength(path), 100.0);
  }

  void linesThatPassEachOtherAreTwo() {
    const picture::Picture picture = artwork(kSide, kSide, kColours, step);
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    const trace::inks::InkBorders borders = trace::inks::fitInkBorders(picture, map, {});
    for (const Point place :
         {Point{30, kSide - 80.3}, Point{60, kSide - 80.3}, Point{80, kSide - 78.5}, Point{130, kSide - 78.5}}) {
      double off = 1e9;
      for (const trace::inks::FittedBorder& border : borders.borders)
        off = std::min(off, nearestOn(border.path, place).off);
      QVERIFY2(off < 0.1, qPrintable(QString("%1: %2").arg(place.x).arg(off)));
    }
  }

  void junctionsAreKeptApartWhereAsked() {
    const picture::Picture picture = artwork(kSide, kSide, kColours, elevenSectors);
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    const trace::inks::CrackGraph cracks = trace::inks::cracksOf(*map.labels);
    const trace::inks::Ways joined = trace::inks::waysOf(cracks, *picture.bgr, map);
    const std::vector<Point> hub{{78.6, kSide - 81.3}};
    const trace::inks::Ways apart = trace::inks::waysOf(cracks, *picture.bgr, map, {}, hub);
    QVERIFY(apart.junctions.size() > joined.junctions.size());
    // As many as there are nodes within reach of the hub; all others as before.
    QVERIFY(apart.borders.size() - joined.borders.size() == apart.junctions.size() - joined.junctions.size());
  }

  void manyInksInAJpegCrossNothing_data() {
    QTest::addColumn<int>("quality");
    for (const int quality : {90, 75, 50}) QTest::addRow("JPEG %d", quality) << quality;
  }
  void manyInksInAJpegCrossNothing() {
    QFETCH(int, quality);
    const picture::Picture jpeg = asJpeg(artwork(kSide, kSide, kColours, elevenSectors), quality);
    const colour::InkMap map = colour::reduced(jpeg, std::nullopt);
    QVERIFY(map.inks.size() > 8);
    const trace::inks::InkBorders borders = trace::inks::fitInkBorders(jpeg, map, {});
    QVERIFY(crossingsOffJunctions(borders, map.inks.size()).empty());
  }
};

RIM_TEST(TestMeasuredNear)
#include "tst_measured_near.moc"
