// More smoothness: fewer segments, and never more; corners to the very end.

#include <QTest>

#include "core/geometry/flatten.h"
#include "core/geometry/segment.h"
#include "core/picture/load.h"
#include "core/trace/outline/fewer_pieces.h"
#include "core/trace/outline/fit_outline.h"
#include "core/trace/trace.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

/// The farthest that points of one path lie from the other one.
double farthestOff(const Path& from, const Path& to) {
  double most = 0;
  for (const Point p : flatten(from, 0.01)) {
    double least = 1e9;
    for (std::size_t i = 0; i < to.segments.size(); ++i) least = std::min(least, distanceTo(pieceOf(to, i), p));
    most = std::max(most, least);
  }
  return most;
}

/// A wavy closed line of many short arcs: three waves of some px and ripples of less than one.
Path rippled() {
  trace::contour::Border points;
  for (int k = 0; k < 240; ++k) {
    const double way = 2 * M_PI * k / 240;
    const double radius = 60 + 8 * std::cos(3 * way) + 0.4 * std::cos(40 * way);
    points.push_back(Point{100, 100} + Point{std::cos(way), std::sin(way)} * radius);
  }
  return polygonThrough(points);
}

std::size_t nodesAt(const picture::Picture& picture, double tolerancePx) {
  trace::TraceSettings settings;
  settings.tolerancePx = tolerancePx;
  return countsOf(trace::trace(picture, settings).outlines).nodes;
}

}  // namespace

class TestFewerPieces : public QObject {
  Q_OBJECT

 private slots:
  void everyPlaceStaysWithin_data() {
    QTest::addColumn<double>("px");
    for (const double px : {0.1, 0.5, 1.0, 2.0, 5.0}) QTest::addRow("%.1f px", px) << px;
  }
  void everyPlaceStaysWithin() {
    QFETCH(double, px);
    const Path fewer = trace::outline::inFewerPieces(rippled(), px);
    QVERIFY(fewer.closed);
    QVERIFY(fewer.segments.back().end == fewer.start);
    constexpr double kBetweenPlaces = 0.1;
    QVERIFY(farthestOff(rippled(), fewer) <= px + kBetweenPlaces);
    QVERIFY(farthestOff(fewer, rippled()) <= px + kBetweenPlaces);
  }

  void moreIsNeverMoreSegments() {
    std::size_t before = 1000;
    for (double px = 0.05; px < 12; px *= 1.3) {
      const std::size_t now = trace::outline::inFewerPieces(rippled(), px).segments.size();
      QVERIFY2(now <= before, qPrintable(QString("%1 after %2 at %3 px").arg(now).arg(before).arg(px)));
      before = now;
    }
    QVERIFY2(before <= 16, QByteArray::number(before));
  }

  void cornersStay() {
    // A square whose sides are in many pieces, one of which steps aside a little.
    trace::contour::Border points;
    for (int k = 0; k < 10; ++k) points.push_back({10.0 + 4 * k, 10 + (k == 5 ? 0.3 : 0)});
    for (const Point p : {Point{50, 10}, Point{50, 50}, Point{10, 50}}) points.push_back(p);
    const Path fewer = trace::outline::inFewerPieces(polygonThrough(points), 3);
    QCOMPARE(fewer.segments.size(), 4U);
    for (const Point corner : {Point{10, 10}, Point{50, 10}, Point{50, 50}, Point{10, 50}}) {
      QVERIFY(std::any_of(fewer.segments.begin(), fewer.segments.end(),
                          [corner](const Segment& s) { return distance(s.end, corner) < 1e-9; }));
    }
  }

  void circlesStayCircles() {
    const Path circle{{10, 0}, {Segment::arc({-10, 0}, 1), Segment::arc({10, 0}, 1)}, true};
    QCOMPARE(trace::outline::inFewerPieces(circle, 5), circle);
  }

  void alongTheSmoothnessOfAPictureNodesOnlyFall_data() {
    QTest::addColumn<QString>("name");
    QTest::newRow("the badge") << "badge.png";
    QTest::newRow("the badge as JPEG") << "badge.jpg";
    QTest::newRow("the window card") << "window-card.png";
  }
  void alongTheSmoothnessOfAPictureNodesOnlyFall() {
    QFETCH(QString, name);
    const picture::Picture picture =
        picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo") / name.toStdString());
    const std::size_t usual = nodesAt(picture, 0.35);
    std::size_t before = usual;
    for (const double px : {0.5, 0.8, 1.2, 2.0, 3.5, 6.0, 10.0}) {
      const std::size_t now = nodesAt(picture, px);
      QVERIFY2(now <= before, qPrintable(QString("%1 after %2 at %3 px").arg(now).arg(before).arg(px)));
      before = now;
    }
    QVERIFY2(static_cast<double>(before) < 0.85 * static_cast<double>(usual), QByteArray::number(before));
  }

  void nothingComesToCross() {
    // Rings a pixel apart, which 3 px would let cross.
    const picture::Picture picture = pictureOf(drawn(120, 120, [](double x, double y) {
      const double r = std::hypot(x - 60, y - 60) + 1.5 * std::cos(9 * std::atan2(y - 60, x - 60));
      return static_cast<int>(r / 4) % 2 == 0 && r < 50;
    }));
    trace::TraceSettings settings;
    settings.tolerancePx = 3;
    const trace::Tracing traced = trace::trace(picture, settings);
    QVERIFY(traced.outlines.size() > 8);
    QVERIFY(!anyCrossing(traced.outlines));
  }
};

RIM_TEST(TestFewerPieces)
#include "tst_fewer_pieces.moc"
