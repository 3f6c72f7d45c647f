// Where outlines would cross only the place falls back, never the outline, and never to more points than a line drawn
// by hand within half a pixel has.

#include <QTest>
#include <algorithm>
#include <set>
#include <thread>

#include "core/error.h"
#include "core/for_all.h"
#include "core/geometry/fewer_points.h"
#include "core/geometry/segment.h"
#include "core/trace/deviation.h"
#include "core/trace/outline/cut_corners.h"
#include "core/trace/outline/keep_apart.h"
#include "core/trace/outline/measured_at.h"
#include "core/trace/outline/room_beside.h"
#include "core/trace/trace.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

/// Rays of hairlines that run together: their borders come nearer to each other than any tolerance.
cv::Mat rays(int side, int count, double widthPx) {
  const double middle = side / 2.0;
  return drawn(side, side, [=](double x, double y) {
    const double radius = std::hypot(x - middle, y - middle);
    if (radius > side * 0.47) return false;
    const double turn = std::atan2(y - middle, x - middle) / (2 * M_PI) * count;
    return std::abs(turn - std::round(turn)) * 2 * M_PI * radius / count < widthPx / 2;
  });
}

/// A star of hairlines from every `step`th corner of a polygon to the next: near its rim they run together.
cv::Mat star(int side, int corners, int step, double widthPx) {
  const double middle = side / 2.0;
  const double radius = side * 0.47;
  const double turn = 2 * M_PI / corners;
  const double off = radius * std::cos(turn * step / 2);  // of every line from the middle
  std::vector<Point> across;
  for (int k = 0; k < corners; ++k)
    across.push_back({std::cos(turn * (k + step / 2.0)), std::sin(turn * (k + step / 2.0))});
  return drawn(side, side, [=](double x, double y) {
    const Point p{x - middle, y - middle};
    return length(p) <= radius &&
           std::any_of(across.begin(), across.end(), [&](Point a) { return std::abs(dot(p, a) - off) < widthPx / 2; });
  });
}

std::size_t nodesOf(const std::vector<Path>& paths) { return countsOf(paths).nodes; }

/// What the method of Douglas and Peucker leaves of the borders within half a pixel.
std::size_t polylineNodes(const std::vector<trace::contour::Border>& borders) {
  std::size_t nodes = 0;
  for (const trace::contour::Border& border : borders) nodes += fewerPoints(border, 0.5).size();
  return nodes;
}

double distanceTo(const Path& path, Point p) {
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < path.segments.size(); ++i) least = std::min(least, rim::distanceTo(pieceOf(path, i), p));
  return least;
}

trace::contour::Border wave(double y, double amplitude) {
  trace::contour::Border border;
  for (int i = 0; i < 400; ++i) border.push_back({i * 0.5, y + amplitude * std::sin(i * 0.05)});
  for (int i = 399; i >= 0; --i) border.push_back({i * 0.5, y + 6 + amplitude * std::sin(i * 0.05)});
  return border;
}

}  // namespace
Q_DECLARE_METATYPE(cv::Mat)

class TestFallingBack : public QObject {
  Q_OBJECT

 private slots:
  /// Two areas that touch at a corner come apart by a fraction of a pixel there, and their sides stay where they are.
  void cornersThatTouchDoNotBendTheirSides_data() {
    QTest::addColumn<double>("at");
    QTest::addRow("between pixels") << 100.0;
    QTest::addRow("within a pixel") << 100.4;
  }
  void cornersThatTouchDoNotBendTheirSides() {
    QFETCH(double, at);
    const cv::Mat grey = drawn(200, 200, [at](double x, double y) {
      return std::max(std::abs(x - at), std::abs(y - at)) < 60 && (x < at) == (y < at);
    });
    const trace::Tracing t = trace::trace(pictureOf(grey), {});
    QVERIFY(!t.outlines.empty() && t.outlines.size() <= 2);
    double sides = 0;
    for (const Path& path : t.outlines) {
      for (std::size_t i = 0; i < path.segments.size(); ++i) {
        const Point side = path.segments[i].end - segmentStart(path, i);
        if (length(side) < 2) continue;
        QVERIFY2(std::min(std::abs(side.x), std::abs(side.y)) < 0.02, qPrintable(QString::number(length(side))));
        sides += length(side);
      }
    }
    QVERIFY2(sides > 8 * 60 - 8, qPrintable(QString::number(sides)));
  }

  void cutCornersLeaveTheirSides() {
    const Path square = polygonThrough({{0, 0}, {10, 0}, {10, 10}, {0, 10}});
    const Path cut = trace::outline::withCornersCut(square, {{10.3, 0}, {-0.2, -0.2}}, 1, 0.5);
    QCOMPARE(cut.segments.size(), 6U);
    QVERIFY(std::abs(signedArea(cut) - (100 - 2 * 0.5 * 0.5 / 2)) < 1e-9);
    QCOMPARE(segmentStart(cut, 0), cut.segments.back().end);
    QCOMPARE(trace::outline::withCornersCut(square, {{5, 0}}, 1, 0.5), square);
    // Short sides keep a third of their length.
    QVERIFY(signedArea(trace::outline::withCornersCut(square, {{0, 0}, {10, 0}, {10, 10}, {0, 10}}, 1, 50)) > 50);
    const Path half{{10, 0}, {Segment::arc({-10, 0}, 1), Segment::line({10, 0})}, true};
    const Path cutHalf = trace::outline::withCornersCut(half, {{10, 0}}, 1, 0.5);
    QCOMPARE(cutHalf.segments.size(), 3U);
    QVERIFY(std::abs(length(cutHalf.segments.front().end) - 10) < 1e-9);
  }

  void hairlinesThatRunTogetherStayFewNodes_data() {
    QTest::addColumn<cv::Mat>("hairlines");
    QTest::newRow("40 rays of 1.2 px") << rays(500, 40, 1.2);
    QTest::newRow("70 rays of 1 px") << rays(500, 70, 1.0);
    QTest::newRow("110 rays of 0.9 px") << rays(500, 110, 0.9);
    QTest::newRow("a star of 29 lines") << star(200, 29, 7, 0.9);
  }
  void hairlinesThatRunTogetherStayFewNodes() {
    QFETCH(cv::Mat, hairlines);
    const picture::Picture picture = pictureOf(hairlines);
    const trace::Tracing tracing = trace::trace(picture, {});
    QVERIFY(!tracing.outlines.empty());
    QVERIFY(!anyCrossing(tracing.outlines));
    const std::size_t most = polylineNodes(trace::traceBorders(picture, {}));
    QVERIFY2(nodesOf(tracing.outlines) <= most,
             qPrintable(QString("%1 nodes, a polyline has %2").arg(nodesOf(tracing.outlines)).arg(most)));
  }

  void roomIsWhatLiesBesideABorder() {
    const std::vector<trace::contour::Border> borders{wave(10, 1), wave(16.6, 1)};
    const trace::outline::RoomBeside room(borders);
    const std::vector<double> rooms = room.of(0, 0.45);
    QCOMPARE(rooms.size(), borders[0].size());
    // The upper edge of the first has the second 0.6 px beside it; its lower edge has nothing near.
    QVERIFY(std::abs(rooms[600] - 0.4 * 0.6) < 0.03);
    QVERIFY(std::abs(rooms[200] - 0.45) < 1e-12);
    const Path path = trace::outline::borderWithin(borders[0], rooms);
    const Path other = trace::outline::borderWithin(borders[1], room.of(1, 0.45));
    QVERIFY(!anyCrossing({path, other}));
    QVERIFY(path.closed && path.segments.size() < borders[0].size() / 4);
  }

  void onlyNearThePlacesTheBorderItselfIsTaken() {
    const trace::contour::Border border = wave(10, 1);
    Path path{border[0], {}, true};
    for (const std::size_t i : {200U, 399U, 400U, 600U, 799U})
      path.segments.push_back(Segment::line(border[i] + Point{0, 0.2}));
    path.segments.push_back(Segment::line(border[0]));
    const Point place = border[100];
    const Path changed =
        trace::outline::measuredAt(path, border, {{place}, 5, std::vector<double>(border.size(), 0.02)});
    QVERIFY(changed.closed && changed.segments.back().end == changed.start);
    const auto near = [&](Point p) { return distance(p, place) <= 5.1; };
    std::size_t taken = 0;
    for (const Segment& s : changed.segments) {
      const bool ofBorder = std::find(border.begin(), border.end(), s.end) != border.end();
      if (ofBorder && near(s.end)) ++taken;
    }
    QVERIFY(taken >= 3);
    // Away from it all nodes of the path are still there.
    for (const std::size_t i : {399U, 400U, 600U, 799U}) {
      const Point node = border[i] + Point{0, 0.2};
      QVERIFY(std::any_of(changed.segments.begin(), changed.segments.end(),
                          [&](const Segment& s) { return s.end == node; }));
    }
  }

  void fewerPointsStayWithinTheirTolerance() {
    const trace::contour::Border border = wave(0, 3);
    for (const double tolerance : {0.01, 0.1, 1.0}) {
      const std::vector<Point> few = fewerPoints(border, tolerance);
      QVERIFY(few.front() == border.front() && few.back() == border.back());
      for (const Point p : border) {
        double least = 1e9;
        for (std::size_t i = 0; i + 1 < few.size(); ++i) {
          const Point along = few[i + 1] - few[i];
          const double t = std::clamp(dot(p - few[i], along) / dot(along, along), 0.0, 1.0);
          least = std::min(least, distance(p, few[i] + along * t));
        }
        QVERIFY(least <= tolerance + 1e-12);
      }
    }
    QCOMPARE(fewerPoints(border, 0.0).size(), border.size());
  }

  void theThresholdThatWasUsedIsTheOneThatIsTold() {
    // Under light that falls off by half the picture is evened out before its threshold is looked for.
    cv::Mat grey = drawn(300, 200, ring(150, 100, 70, 40));
    for (int y = 0; y < grey.rows; ++y) {
      for (int x = 0; x < grey.cols; ++x) {
        auto& level = grey.at<std::uint8_t>(y, x);
        level = cv::saturate_cast<std::uint8_t>(level * (1 - 0.6 * x / grey.cols));
      }
    }
    const picture::Picture picture = pictureOf(grey);
    const trace::Tracing tracing = trace::trace(picture, {});
    QCOMPARE(tracing.outlines.size(), std::size_t{2});
    QVERIFY(tracing.threshold != trace::contour::thresholdFor(picture, {}));
    trace::TraceSettings set;
    set.threshold = 80;
    QCOMPARE(trace::trace(picture, set).threshold, 80);
  }

  /// What follows grain point by point, as fits to fibres and fur do, becomes a line of fewer points; what is settled
  /// stays.
  void noOutlineHasMoreNodesThanALineOfItsPoints() {
    const trace::contour::Border fibre = wave(40, 3);
    const trace::contour::Border other = wave(80, 3);
    std::vector<Path> outlines{polygonThrough(fibre), polygonThrough(other)};
    std::vector<trace::outline::FitTarget> targets(2);
    targets[1].settled = true;
    trace::contour::Tones tones{cv::Mat(120, 210, CV_8UC1, cv::Scalar(255)), {128, false}};
    tones.rough.resize(2);
    trace::TraceSettings settings;
    trace::outline::keepApart(outlines, targets, tones, {fibre, other}, settings, {});
    QVERIFY(outlines[0].segments.size() <= fewerPoints(fibre, 0.43).size());
    QCOMPARE(outlines[1], polygonThrough(other));
    for (const Point p : fibre) QVERIFY(::distanceTo(outlines[0], p) < 0.46);
    // Who wants it closer gets it closer.
    settings.tolerancePx = 0.05;
    std::vector<Path> close{polygonThrough(fibre)};
    trace::outline::keepApart(close, {{}}, tones, {fibre}, settings, {});
    for (const Point p : fibre) QVERIFY(::distanceTo(close[0], p) < 0.07);
  }

  void theClosingEdgeIsMeasuredToo() {
    // A square whose last side was pushed off its border.
    const picture::Picture picture = pictureOf(drawn(60, 60, polygon({{10, 10}, {50, 10}, {50, 50}, {10, 50}})));
    trace::Tracing tracing = trace::trace(picture, {});
    QCOMPARE(tracing.outlines.size(), std::size_t{1});
    Path& square = tracing.outlines[0];
    QCOMPARE(square.segments.size(), std::size_t{4});
    // The closing edge now goes by way of a place outside.
    const Point start = square.start;
    const Point last = segmentStart(square, 3);
    const Point middle = lerp(last, start, 0.5) + leftNormal(unit(start - last)) * -3;
    square.segments[3] = Segment::line(middle);
    square.segments.push_back(Segment::line(start));
    QVERIFY(std::abs(trace::deviationOf(picture, {}, makeDrawing(tracing.outlines)).largest - 3) < 0.3);
    // Begun elsewhere that edge is the last one.
    std::rotate(square.segments.begin(), square.segments.begin() + 4, square.segments.end());
    square.start = middle;
    QVERIFY(std::abs(trace::deviationOf(picture, {}, makeDrawing(tracing.outlines)).largest - 3) < 0.3);
  }

  void workWithinSharedWorkStartsNoThreads() {
    std::set<std::thread::id> inner;
    std::mutex mutex;
    std::atomic<int> strangers = 0;
    forAll(8, {}, [&](std::size_t) {
      const auto outer = std::this_thread::get_id();
      forAll(16, {}, [&](std::size_t) {
        if (std::this_thread::get_id() != outer && std::thread::hardware_concurrency() > 1) ++strangers;
      });
      const std::lock_guard lock(mutex);
      inner.insert(outer);
    });
    QCOMPARE(strangers.load(), 0);
    QVERIFY(inner.size() <= std::max(1U, std::thread::hardware_concurrency()));
  }
};

RIM_TEST(TestFallingBack)
#include "tst_falling_back.moc"
