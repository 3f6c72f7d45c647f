// Small pictures: things a few pixels wide come out as they were drawn.

#include <QTest>
#include <random>

#include "core/error.h"
#include "core/trace/contour/coverage.h"
#include "core/trace/contour/fine_borders.h"
#include "core/trace/contour/sharpen.h"
#include "core/trace/outline/within_picture.h"
#include "core/trace/trace.h"
#include "support/artwork.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

/// The farthest that a corner lies from the nearest node.
double worstCorner(const Path& path, const std::vector<Point>& corners) {
  double worst = 0;
  for (const Point corner : corners) {
    double nearest = 1e9;
    for (const Segment& s : path.segments) nearest = std::min(nearest, distance(s.end, corner));
    worst = std::max(worst, nearest);
  }
  return worst;
}

std::vector<Point> regular(int corners, double side, double turn, Point middle) {
  const double radius = side / 2 / std::sin(M_PI / corners);
  std::vector<Point> points;
  for (int k = 0; k < corners; ++k) {
    const double way = turn + 2 * M_PI * k / corners;
    points.push_back(middle + Point{std::cos(way), std::sin(way)} * radius);
  }
  return points;
}

/// The mean difference between the picture and its outlines as they would be drawn, a pixel of edge counted as one.
double greysOff(const cv::Mat& grey, const std::vector<Path>& outlines) {
  cv::Mat1f drawnAgain(grey.size(), 0.F);
  double way = 0;
  for (const Path& path : outlines) {
    const trace::contour::Coverage coverage = trace::contour::coverageOf(path, grey.size());
    drawnAgain(coverage.where) += coverage.shares;
    way += pathLength(path);
  }
  cv::Mat1f wanted;
  grey.convertTo(wanted, CV_32F, -1 / 255.0, 1);
  return cv::norm(drawnAgain, wanted, cv::NORM_L1) / way;
}

/// As a logo comes from the web: noise, and a JPEG of quality 45.
picture::Picture asWebJpeg(const cv::Mat& grey) { return asJpeg(pictureOf(noisy(grey, 3)), 45); }

/// A plate of 170 x 213 px with rounded corners, one of them cut off.
Inside cutPlate(double radius) {
  return [radius](double x, double y) {
    const double across = x - 50.7;
    const double down = y - 29.3;
    if (across < 0 || down < 0 || across > 170.6 || down > 213.4 || across - down > 117.1) return false;
    const double inX = std::max({radius - across, across - 170.6 + radius, 0.0});
    const double inY = std::max({radius - down, down - 213.4 + radius, 0.0});
    const bool isCut = across > 100 && down < 100;
    return isCut || std::hypot(inX, inY) <= radius;
  };
}

}  // namespace

class TestSmall : public QObject {
  Q_OBJECT

 private slots:
  void oneBadSpotDoesNotCostTheRest_data() {
    QTest::addColumn<double>("width");
    QTest::addColumn<double>("height");
    QTest::addColumn<double>("turn");
    QTest::addRow("low and broad") << 4.0 << 1.0 << 20.0;
    QTest::addRow("high and narrow") << 1.0 << 4.0 << 20.0;
    QTest::addRow("upright") << 1.5 << 6.0 << 77.0;
    QTest::addRow("slanting") << 2.0 << 3.0 << 50.0;
  }
  void oneBadSpotDoesNotCostTheRest() {
    QFETCH(double, width);
    QFETCH(double, height);
    QFETCH(double, turn);
    const double angle = turn * M_PI / 180;
    const Inside round = disc(100, 100, 60);
    const cv::Mat grey = drawn(200, 200, [&](double x, double y) {
      const Point p{x - 100, y - 100};
      const Point way{std::cos(angle), std::sin(angle)};
      const double out = dot(p, way);
      return round(x, y) || (out > 0 && out < 60 + height && std::abs(cross(way, p)) < width / 2);
    });
    const trace::Tracing tracing = trace::trace(pictureOf(grey), {});
    QCOMPARE(tracing.outlines.size(), 1U);
    const std::size_t segments = tracing.outlines.front().segments.size();
    QVERIFY2(segments <= 24, qPrintable(QString::number(segments)));
    const auto curved =
        std::count_if(tracing.outlines.front().segments.begin(), tracing.outlines.front().segments.end(),
                      [](const Segment& s) { return s.kind != SegmentKind::Line; });
    QVERIFY2(curved >= 3, "the circle is still round");
  }

  /// Borders waver more round corners than along level sides, and what is taken for noise may hide a bend: both come
  /// out in as many pieces as they were drawn with, or a few more, and never in lines from point to point.
  void aWebJpegIsNoPolygon_data() {
    QTest::addColumn<int>("shape");
    QTest::addColumn<int>("most");
    QTest::addRow("a plate with round corners") << 0 << 12;
    QTest::addRow("a bulb") << 1 << 12;
  }
  void aWebJpegIsNoPolygon() {
    QFETCH(int, shape);
    QFETCH(int, most);
    const Inside plate = cutPlate(10.7);
    const Inside round = disc(136, 115, 85.3);
    const Inside bulb = [&](double x, double y) {
      // From the circle to a neck, in a curve the other way.
      const double neck = 43 + 14 * std::pow(std::max(0.0, 200 - y) / 30, 2);
      return round(x, y) || (y > 170 && y < 200 && std::abs(x - 136) < neck && std::abs(x - 136) < 80);
    };
    const trace::Tracing t = trace::trace(asWebJpeg(drawn(272, 272, shape == 0 ? plate : bulb)), {});
    QCOMPARE(t.outlines.size(), 1U);
    const std::size_t segments = t.outlines.front().segments.size();
    QVERIFY2(segments <= static_cast<std::size_t>(most), qPrintable(QString::number(segments)));
  }

  void polygonsOfAFewPixelsKeepTheirCorners_data() {
    QTest::addColumn<int>("corners");
    QTest::addColumn<double>("side");
    QTest::addColumn<bool>("turned");
    for (const double side : {4.0, 5.0, 7.0, 10.0}) {
      QTest::addRow("square of %g px", side) << 4 << side << false;
      QTest::addRow("square of %g px, turned", side) << 4 << side << true;
      if (side > 4) QTest::addRow("triangle of %g px", side) << 3 << side << true;
    }
  }
  void polygonsOfAFewPixelsKeepTheirCorners() {
    QFETCH(int, corners);
    QFETCH(double, side);
    QFETCH(bool, turned);
    std::mt19937 random(static_cast<unsigned>(10 * side) + (turned ? 1 : 0));
    std::uniform_real_distribution<double> part(0, 1);
    int right = 0;
    constexpr int kPlaces = 6;
    for (int k = 0; k < kPlaces; ++k) {
      const double turn = turned ? M_PI * part(random) : M_PI / 4;
      const auto points = regular(corners, side, turn, {16 + part(random), 16 + part(random)});
      const trace::Tracing t = trace::trace(pictureOf(drawn(32, 32, polygon(points))), {});
      QCOMPARE(t.outlines.size(), 1U);
      const double off = worstCorner(t.outlines[0], upright(points, 32));
      QVERIFY2(off < 0.3, qPrintable(QString("corner off by %1 px").arg(off)));
      if (t.outlines[0].segments.size() == points.size()) ++right;
    }
    QVERIFY2(right >= kPlaces - 1, qPrintable(QString("%1 of %2 have the right sides").arg(right).arg(kPlaces)));
  }

  void dashesStayDashes() {
    const Inside dashes = [](double x, double y) {
      const double along = std::fmod(x, 9.0);
      return y > 10.3 && y < 12.1 && along > 1.4 && along < 7.2 && x < 63;
    };
    const trace::Tracing t = trace::trace(pictureOf(drawn(70, 24, dashes)), {});
    QCOMPARE(t.outlines.size(), 7U);
    for (const Path& path : t.outlines) {
      const Box box = boxOf(path);
      QVERIFY2(qAbs(box.width() - 5.8) < 0.15 && qAbs(box.height() - 1.8) < 0.15,
               qPrintable(QString("%1 x %2").arg(box.width()).arg(box.height())));
      QVERIFY(qAbs(signedArea(path) - 5.8 * 1.8) < 0.2);
    }
  }

  void thinThingsAgreeWithTheirGreys_data() {
    QTest::addColumn<double>("width");
    for (const double width : {1.3, 1.7, 2.4, 3.5}) QTest::addRow("%g px", width) << width;
  }
  void thinThingsAgreeWithTheirGreys() {
    // A ring, a bar across it, and a bow: each drawn with a pen.
    QFETCH(double, width);
    const Inside pen = [width](double x, double y) {
      const double ring = std::abs(std::hypot(x - 22, y - 24) - 12);
      const double bar = std::abs((y - 24) * 0.9 - (x - 22) * 0.4);
      const double bow = std::abs(std::hypot(x - 60, y - 40) - 24);
      return ring < width / 2 || (bar < width / 2 && std::abs(x - 22) < 17) || (bow < width / 2 && y < 33 && x < 66);
    };
    const cv::Mat grey = drawn(72, 48, pen);
    const trace::Tracing t = trace::trace(pictureOf(grey), {});
    const double off = greysOff(grey, t.outlines);
    QVERIFY2(off < 0.09, qPrintable(QString::number(off)));
    QVERIFY(!anyCrossing(t.outlines));
  }

  void nothingLeavesThePicture() {
    // Things that the rim cuts off, with tips at it.
    const std::vector<Point> star = starCorners(20, 3, 9, 24, 7, 0.3);
    const trace::Tracing t = trace::trace(pictureOf(drawn(40, 36, polygon(star))), {});
    QVERIFY(!t.outlines.empty());
    for (const Path& path : t.outlines) {
      const Box box = boxOf(path);
      QVERIFY(box.low.x >= -0.02 && box.low.y >= -0.02 && box.high.x <= 40.02 && box.high.y <= 36.02);
    }
    const Path circle{{44, 20}, {Segment::arc({24, 20}, 1), Segment::arc({44, 20}, 1)}, true};
    const Path held = trace::outline::withinPicture(circle, {40, 36});
    QVERIFY(held.closed && held.segments.back().end == held.start);
    QVERIFY(boxOf(held).high.x <= 40 && boxOf(held).low.x > 23.9);
    QCOMPARE(trace::outline::withinPicture(circle, {60, 60}), circle);
  }

  void bordersAreFollowedFiner() {
    QCOMPARE(trace::contour::finenessFor({64, 64}), 5);
    QCOMPARE(trace::contour::finenessFor({700, 700}), 3);
    QCOMPARE(trace::contour::finenessFor({4000, 3000}), 1);
    const cv::Mat grey = drawn(40, 40, disc(20.2, 19.7, 3));
    const trace::contour::TwoTone tone{128, false};
    const auto coarse = trace::contour::followBorders(grey, tone, 4);
    const auto fine = trace::contour::followFineBorders(grey, tone, 4, 5);
    QCOMPARE(fine.size(), coarse.size());
    QVERIFY(fine[0].size() > 3 * coarse[0].size());
    for (const Point p : fine[0]) QVERIFY(qAbs(distance(p, {20.2, 40 - 19.7}) - 3) < 0.15);
    QCOMPARE(trace::contour::followFineBorders(grey, tone, 4, 1), coarse);
    // Of a large disc nearly all is measured, and none of the points between is left.
    const cv::Mat large = drawn(120, 120, disc(60, 60, 40));
    const trace::contour::Border border = trace::contour::followFineBorders(large, tone, 4, 3).at(0);
    const trace::contour::SharpBorder sharp =
        trace::contour::sharpFineBorder(large, tone, trace::contour::EdgeLevel::Coverage, border, 3);
    QCOMPARE(sharp.measured.size(), sharp.points.size());
    QVERIFY(sharp.points.size() < border.size() / 2);
    const auto measured = std::count(sharp.measured.begin(), sharp.measured.end(), true);
    QVERIFY2(measured > static_cast<std::ptrdiff_t>(sharp.points.size() * 8 / 10),
             qPrintable(QString("%1 of %2").arg(measured).arg(sharp.points.size())));
  }

  void thingsAreLeftOutByTheirArea() {
    // 4.4 px2, of which pixels round nearly a third off the border.
    const trace::Tracing kept =
        trace::trace(pictureOf(drawn(24, 24, polygon({{10.2, 10.1}, {12.3, 10.1}, {12.3, 12.2}, {10.2, 12.2}}))), {});
    QCOMPARE(kept.outlines.size(), 1U);
    const trace::Tracing gone =
        trace::trace(pictureOf(drawn(24, 24, polygon({{10.2, 10.1}, {12, 10.1}, {12, 12}, {10.2, 12}}))), {});
    QVERIFY(gone.outlines.empty());
  }

  void stopsWhenItIsAsked() {
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled,
                             trace::trace(pictureOf(drawn(40, 40, disc(20, 20, 3))), {}, {stop.get_token(), {}}));
  }
};

RIM_TEST(TestSmall)
#include "tst_small.moc"
