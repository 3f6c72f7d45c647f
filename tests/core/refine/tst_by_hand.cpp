#include <QtTest>
#include <numbers>
#include <random>

#include "core/error.h"
#include "core/geometry/arc.h"
#include "core/geometry/circle.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/refine/edit/brush.h"
#include "core/refine/edit/ends.h"
#include "core/refine/edit/nodes.h"
#include "core/refine/edit/without_nodes.h"
#include "core/refine/step.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::refine;
using namespace rim::test;

namespace {

/// A closed path of all kinds of segments; every node lies on a circle.
Path mixed(std::mt19937& random, int nodes) {
  std::uniform_real_distribution<double> wobble(-0.2, 0.2);
  const auto at = [&](int i) {
    const double angle = 2 * std::numbers::pi * (i % nodes) / nodes;
    return Point{20 * std::cos(angle), 20 * std::sin(angle)};
  };
  Path path{at(0), {}, true};
  for (int i = 1; i <= nodes; ++i) {
    const Point from = at(i - 1);
    const Point to = at(i);
    switch (random() % 3) {
      case 0:
        path.segments.push_back(Segment::line(to));
        break;
      case 1:
        path.segments.push_back(Segment::arc(to, 0.3 + wobble(random)));
        break;
      default:
        path.segments.push_back(Segment::cubic(lerp(from, to, 0.3) + Point{wobble(random), 1 + wobble(random)},
                                               lerp(from, to, 0.7) + Point{wobble(random), 1}, to));
    }
  }
  return path;
}

/// A sentence on what no path may be; empty when it is sound.
QString unsound(const Path& path) {
  if (path.segments.empty()) return "no segments";
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    for (const double x : {s.end.x, s.end.y, s.bulge, s.handle1.x, s.handle1.y, s.handle2.x, s.handle2.y}) {
      if (!std::isfinite(x)) return "a number that is none";
    }
    if (s.kind == SegmentKind::Arc && (std::abs(s.bulge) < Segment::kStraightBulge || std::abs(s.bulge) >= 1000))
      return "an arc that is none";
  }
  if (path.closed && !(path.segments.back().end == path.start)) return "closed, but its end lies elsewhere";
  return {};
}

/// A level line with waves on it between two places.
Path waved(double from, double to, double height) {
  Path path{{0, 0}, {}, false};
  constexpr double kStep = 0.25;
  for (double x = kStep; x <= 40; x += kStep) {
    const double y = x > from && x < to ? height * std::sin(2 * std::numbers::pi * (x - from) / 1.5) : 0;
    path.segments.push_back(Segment::line({x, y}));
  }
  return path;
}

}  // namespace

class TestByHand : public QObject {
  Q_OBJECT

 private slots:
  void aNodeTakesItsSidesAlong() {
    const Path moved = refine::withNodesMoved(squarePath(10), {0}, {-1, -2});
    QCOMPARE(moved.start, (Point{-1, -2}));
    QCOMPARE(moved.segments.back().end, (Point{-1, -2}));
    QCOMPARE(moved.segments[0].end, (Point{10, 0}));
    QCOMPARE(unsound(moved), QString());
    Path curve{{0, 0}, {Segment::cubic({1, 2}, {3, 2}, {4, 0})}, false};
    curve = refine::withNodesMoved(curve, {1}, {2, 1});
    QCOMPARE(curve.segments[0].handle1, (Point{1, 2}));
    QCOMPARE(curve.segments[0].handle2, (Point{5, 3}));
  }

  void aSegmentIsPulledToThePointer() {
    const Path line = refine::withSegmentPulled(squarePath(10), {0, 0.5, {5, 0}, 0}, {5, -3});
    QCOMPARE(line.start, (Point{0, -3}));
    QCOMPARE(line.segments[0].end, (Point{10, -3}));
    QCOMPARE(line.segments[1].end, (Point{10, 10}));
    const Path half{{0, 0}, {Segment::arc({10, 0}, 0.5)}, false};
    const Path bent = refine::withSegmentPulled(half, {0, 0.5, {5, -2.5}, 0}, {5, -4});
    QVERIFY(distance(pointAt(pieceOf(bent, 0), 0.5), {5, -4}) < 1e-9);
    const Path curve{{0, 0}, {Segment::cubic({2, 3}, {8, 3}, {10, 0})}, false};
    for (const double t : {0.2, 0.5, 0.7}) {
      const Point to = pointAt(pieceOf(curve, 0), t) + Point{0.5, 1};
      const Path pulled = refine::withSegmentPulled(curve, {0, t, pointAt(pieceOf(curve, 0), t), 0}, to);
      QVERIFY(distance(pointAt(pieceOf(pulled, 0), t), to) < 1e-9);
    }
  }

  void aNodeMoreChangesNothing() {
    std::mt19937 random(3);
    for (int i = 0; i < 50; ++i) {
      const Path path = mixed(random, 7);
      const std::size_t segment = random() % 7;
      const double t = 0.1 + 0.8 * static_cast<double>(random() % 100) / 100;
      const Path more = refine::withNodeAt(path, {segment, t, {}, 0});
      QCOMPARE(nodeCount(more), nodeCount(path) + 1);
      QVERIFY(farthest(path, more) < 1e-6);
      QVERIFY(farthest(more, path) < 1e-6);
    }
  }

  void handlesOfASmoothNodeTurnTogether() {
    Path path{{0, 0}, {Segment::cubic({1, 2}, {3, 3}, {5, 3}), Segment::cubic({7, 3}, {9, 2}, {10, 0})}, false};
    QVERIFY(refine::isSmooth(path, 1));
    const Path turned = refine::withHandleAt(path, 1, true, {6, 5}, true);
    QVERIFY(refine::isSmooth(turned, 1));
    QVERIFY(std::abs(distance(turned.segments[0].handle2, {5, 3}) - 2) < 1e-12);
    QVERIFY(!refine::isSmooth(refine::withHandleAt(path, 1, true, {6, 5}, false), 1));
  }

  void kindsOfSegments() {
    const Path curve{{0, 0}, {Segment::cubic({0, 5.5}, {4.5, 10}, {10, 10})}, false};
    const Path arc = refine::withSegmentsAs(curve, {0}, SegmentKind::Arc);
    QCOMPARE(arc.segments[0].kind, SegmentKind::Arc);
    QVERIFY(farthest(curve, arc) < 0.1);
    const Path back = refine::withSegmentsAs(arc, {0}, SegmentKind::Cubic);
    QVERIFY(farthest(arc, back) < 0.01);
    QCOMPARE(refine::withSegmentsAs(arc, {0}, SegmentKind::Line).segments[0], Segment::line({10, 10}));
    // A circle of two half circles keeps its shape.
    const Path circle = circlePath({0, 0}, 10);
    const Path curved = refine::withSegmentsAs(circle, {0, 1}, SegmentKind::Cubic);
    QCOMPARE(curved.segments.size(), 4U);
    QVERIFY(farthest(circle, curved) < 0.005);
    QCOMPARE(unsound(curved), QString());
    QCOMPARE(refine::withSegmentsAs(squarePath(10), {0}, SegmentKind::Arc).segments[0].kind, SegmentKind::Arc);
  }

  void cornersAndSmoothNodes() {
    for (std::size_t node = 0; node < 4; ++node) {
      QVERIFY(!refine::isSmooth(squarePath(10), node));
      QVERIFY(refine::isSmooth(refine::smoothedAt(squarePath(10), {node}), node));
      QVERIFY(!refine::isSmooth(refine::corneredAt(refine::smoothedAt(squarePath(10), {node}), {node}), node));
    }
    // Beside a line the curve gives way.
    const Path path{{0, 0}, {Segment::line({10, 0}), Segment::cubic({12, 5}, {18, 5}, {20, 0})}, false};
    const Path smooth = refine::smoothedAt(path, {1});
    QCOMPARE(smooth.segments[0], path.segments[0]);
    QVERIFY(refine::isSmooth(smooth, 1));
    QCOMPARE(refine::smoothedAt(path, {0}), path);
  }

  void nodesLineUp() {
    const Path path = polygonThrough({{0, 0}, {10, 1}, {20, -1}, {30, 0}, {15, 20}});
    const Path level = refine::linedUp(path, {1, 2}, refine::LineUp::Level);
    QCOMPARE(refine::nodeAt(level, 1), (Point{10, 0}));
    QCOMPARE(refine::nodeAt(level, 2), (Point{20, 0}));
    const Path slanting = refine::linedUp(path, {0, 1, 2, 3}, refine::LineUp::Slanting);
    QVERIFY(std::abs(refine::nodeAt(slanting, 1).y) < 1e-12);
    const Path even = refine::spreadEvenly(polygonThrough({{0, 0}, {3, 0}, {20, 0}, {10, 9}}), {0, 1, 2});
    QCOMPARE(refine::nodeAt(even, 1), (Point{10, 0}));
  }

  void withoutNodesTheShapeStays() {
    // A circle in 24 arcs, all but three nodes deleted: still the circle.
    std::vector<Point> round;
    Path circle{{20, 0}, {}, true};
    for (int i = 1; i <= 24; ++i) {
      const double angle = 2 * std::numbers::pi * i / 24;
      circle.segments.push_back(Segment::arc(i == 24 ? circle.start : Point{20 * std::cos(angle), 20 * std::sin(angle)},
                                             bulgeFromSweep(2 * std::numbers::pi / 24)));
    }
    std::set<std::size_t> all;
    for (std::size_t i = 0; i < 24; ++i) {
      if (i % 8 != 3) all.insert(i);
    }
    const refine::FittedAgain few = refine::withoutNodes(circle, all);
    QCOMPARE(few.path.segments.size(), 3U);
    for (const Segment& s : few.path.segments) QCOMPARE(s.kind, SegmentKind::Arc);
    QVERIFY2(few.off < 1e-6, qPrintable(QString::number(few.off)));
    QCOMPARE(unsound(few.path), QString());
    // The same circle as a polygon of many sides.
    Path polygon{{20, 0}, {}, true};
    for (int i = 1; i <= 120; ++i) {
      const double angle = 2 * std::numbers::pi * (i % 120) / 120;
      polygon.segments.push_back(Segment::line({20 * std::cos(angle), 20 * std::sin(angle)}));
    }
    polygon.segments.back().end = polygon.start;
    all.clear();
    for (std::size_t i = 1; i < 120; ++i) {
      if (i % 30 != 0) all.insert(i);
    }
    const refine::FittedAgain quarters = refine::withoutNodes(polygon, all);
    QCOMPARE(quarters.path.segments.size(), 4U);
    QVERIFY(quarters.off < 0.02);
    QVERIFY(std::abs(farthest(polygon, quarters.path) - quarters.off) < 0.01);
  }

  void withoutABumpTheSideIsStraight() {
    const Path bump = polygonThrough({{0, 0}, {4, 0}, {4, 1}, {6, 1}, {6, 0}, {10, 0}, {10, 10}, {0, 10}});
    const refine::FittedAgain flat = refine::withoutNodes(bump, {1, 2, 3, 4});
    QCOMPARE(flat.path.segments.size(), 4U);
    QCOMPARE(flat.path.segments[0], Segment::line({10, 0}));
    QVERIFY(std::abs(flat.off - 1) < 1e-9);
    QVERIFY(std::abs(flat.at.y - 1) < 1e-9);
  }

  void nodesThatCannotGo() {
    QVERIFY_THROWS_EXCEPTION(InputError, refine::withoutNodes(squarePath(10), {0, 1, 2}));
    QVERIFY_THROWS_EXCEPTION(InputError, refine::withoutNodes(squarePath(10), {0, 1}));
    QCOMPARE(refine::withoutNodes(squarePath(10), {0}).path.segments.size(), 3U);
    const Path open{{0, 0}, {Segment::line({5, 1}), Segment::line({9, 0})}, false};
    QCOMPARE(refine::withoutNodes(open, {0}).path.start, (Point{5, 1}));
  }

  void partedAndJoinedAgain() {
    std::mt19937 random(5);
    for (int i = 0; i < 40; ++i) {
      const Path path = mixed(random, 6);
      const std::size_t node = random() % 6;
      const auto open = refine::partedAt(path, node);
      QCOMPARE(open.size(), 1U);
      QVERIFY(!open[0].closed);
      QCOMPARE(refine::closedUp(open[0], 0.1), refine::startingAt(path, node));
      const auto halves = refine::partedAt(open[0], 1 + random() % 5);
      QCOMPARE(halves.size(), 2U);
      QCOMPARE(refine::joined(halves[0], refine::PathEnd::End, halves[1], refine::PathEnd::Start, 0.1), open[0]);
      const Path turned =
          refine::joined(reversed(halves[0]), refine::PathEnd::Start, reversed(halves[1]), refine::PathEnd::End, 0.1);
      QCOMPARE(unsound(turned), QString());
      QVERIFY(farthest(open[0], turned) < 1e-9);
    }
  }

  void segmentsLess() {
    QCOMPARE(refine::withoutSegments(squarePath(10), {1}).size(), 1U);
    const Path u = refine::withoutSegments(squarePath(10), {1}).front();
    QCOMPARE(u.segments.size(), 3U);
    QCOMPARE(u.start, (Point{10, 10}));
    QCOMPARE(refine::withoutSegments(u, {1}).size(), 2U);
    QCOMPARE(refine::withoutSegments(squarePath(10), {0, 2}).size(), 2U);
    QCOMPARE(refine::withoutSegments(squarePath(10), {0, 1, 2}).size(), 1U);
    QVERIFY(refine::withoutSegments(squarePath(10), {0, 1, 2, 3}).empty());
  }

  void endsMeetWhereBothLead() {
    // Two lines of a rectangle's corner that was cut off.
    const Path level{{0, 0}, {Segment::line({8, 0})}, false};
    const Path upright{{10, 10}, {Segment::line({10, 3})}, false};
    const Path corner = refine::met(level, refine::PathEnd::End, upright, refine::PathEnd::End);
    QCOMPARE(corner.segments.size(), 2U);
    QVERIFY(distance(corner.segments[0].end, {10, 0}) < 1e-12);
    QCOMPARE(corner.segments[1].end, (Point{10, 10}));
    // A line and an arc go on along themselves: (x - 5)^2 + y^2 = 25 meets x = 8 at y = 4.
    const Path arc{{0, 0}, {Segment::arc({5, 5}, -std::tan(std::numbers::pi / 8))}, false};
    const Path line{{8, 20}, {Segment::line({8, 9})}, false};
    const Path both = refine::met(arc, refine::PathEnd::End, line, refine::PathEnd::End);
    QVERIFY2(distance(both.segments[0].end, {8, 4}) < 1e-9, "the arc along its circle to the line");
    // What a cut took off a square comes back.
    const Path cut{{0, 3},
                   {Segment::line({0, 10}), Segment::line({10, 10}), Segment::line({10, 0}), Segment::line({3, 0})},
                   false};
    const Path whole = refine::metItself(cut);
    QVERIFY(whole.closed);
    QCOMPARE(unsound(whole), QString());
    QVERIFY(std::abs(std::abs(signedArea(whole)) - 100) < 1e-9);
  }

  void theCornerBrushMakesLettersSharp() {
    // A square whose corner a blur of 2 mm ate away in twenty steps.
    Path worn{{0, 0}, {Segment::line({8, 0})}, true};
    for (int i = 1; i <= 20; ++i) {
      const double angle = -std::numbers::pi / 2 + std::numbers::pi / 2 * i / 20;
      worn.segments.push_back(Segment::line({8 + 2 * std::cos(angle), 2 + 2 * std::sin(angle)}));
    }
    worn.segments.push_back(Segment::line({10, 10}));
    worn.segments.push_back(Segment::line({0, 10}));
    worn.segments.push_back(Segment::line({0, 0}));
    const auto sharp = refine::corneredUnder(worn, {{{8, 0}, {9.5, 0.5}, {10, 2}}, 0.7});
    QVERIFY(sharp.has_value());
    QCOMPARE(unsound(sharp->path), QString());
    QVERIFY(refine::nearestNode(sharp->path, {10, 0}) < nodeCount(sharp->path));
    QVERIFY(distance(refine::nodeAt(sharp->path, refine::nearestNode(sharp->path, {10, 0})), {10, 0}) < 1e-6);
    QVERIFY(std::abs(std::abs(signedArea(sharp->path)) - 100) < 1e-6);
    QVERIFY(!refine::corneredUnder(worn, {{{50, 50}}, 1}).has_value());
    QVERIFY(!refine::corneredUnder(worn, {{{5, 5}}, 50}).has_value());
  }

  void theSmoothBrushTakesWavesAway() {
    const Path shaky = waved(10, 25, 0.2);
    const auto calm = refine::smoothedUnder(shaky, {{{9, 0}, {26, 0}}, 2});
    QVERIFY(calm.has_value());
    QCOMPARE(unsound(calm->path), QString());
    double most = 0;
    for (std::size_t i = 0; i < calm->path.segments.size(); ++i) {
      for (int k = 0; k <= 16; ++k) most = std::max(most, std::abs(pointAt(pieceOf(calm->path, i), k / 16.0).y));
    }
    QVERIFY2(most < 0.03, qPrintable(QString::number(most)));
    QVERIFY(calm->path.segments.size() < shaky.segments.size() / 2);
    QVERIFY(calm->off > 0.15 && calm->off < 0.25);
    // A true circle stays one.
    const Path circle = circlePath({0, 0}, 20);
    const auto same = refine::smoothedUnder(circle, {{{20, 0}, {14.142, 14.142}}, 2});
    QVERIFY(same.has_value());
    QVERIFY2(same->off < 0.05, qPrintable(QString::number(same->off)));
  }

  void whateverIsDonePathsStaySound() {
    std::mt19937 random(11);
    for (int round = 0; round < 60; ++round) {
      Path path = mixed(random, 5 + static_cast<int>(random() % 6));
      for (int k = 0; k < 12; ++k) {
        const std::size_t node = random() % nodeCount(path);
        const std::size_t segment = random() % path.segments.size();
        const Point by{static_cast<double>(random() % 100) / 50 - 1, static_cast<double>(random() % 100) / 50 - 1};
        const auto kind = static_cast<SegmentKind>(random() % 3);
        switch (random() % 10) {
          case 0:
            path = refine::withNodesMoved(path, {node}, by);
            break;
          case 1:
            path = refine::withSegmentsAs(path, {segment}, kind);
            break;
          case 2:
            path = refine::withNodeAt(path, {segment, 0.4, {}, 0});
            break;
          case 3:
            path = refine::smoothedAt(path, {node});
            break;
          case 4:
            path = refine::corneredAt(path, {node});
            break;
          case 5:
            path = refine::startingAt(path, node);
            break;
          case 6:
            path = reversed(path);
            break;
          case 7:
            path = refine::withSegmentPulled(path, {segment, 0.5, pointAt(pieceOf(path, segment), 0.5), 0},
                                             pointAt(pieceOf(path, segment), 0.5) + by);
            break;
          case 8:
            if (nodeCount(path) > 4) path = refine::withoutNodes(path, {node}).path;
            break;
          default:
            if (const auto smooth = refine::smoothedUnder(path, {{refine::nodeAt(path, node)}, 2})) path = smooth->path;
        }
        QCOMPARE(unsound(path), QString());
      }
    }
  }
};

RIM_TEST(TestByHand)
#include "tst_by_hand.moc"
