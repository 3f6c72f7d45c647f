// What runs on between two crossings taken away, and outlines cut in two along a line.
#include <QtTest>
#include <numbers>
#include <random>

#include "core/geometry/segment.h"
#include "core/refine/edit/knife.h"
#include "core/refine/edit/trim.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::refine;
using namespace rim::test;

namespace {

refine::Trimmed trimmed(const Drawing& drawing, std::size_t outline, Point at) {
  return refine::trimmedAt(drawing.path(outline), refine::meetingPlaces(drawing, outline),
                           nearestOn(drawing.path(outline), at));
}

/// The area of all that the parts of one cut bound.
double areaOf(const std::vector<refine::CutUp>& cuts) {
  double area = 0;
  for (const refine::CutUp& cut : cuts) {
    for (const Path& part : cut.parts) area += signedArea(part);
  }
  return area;
}

std::size_t partsIn(const std::vector<refine::CutUp>& cuts) {
  std::size_t count = 0;
  for (const refine::CutUp& cut : cuts) count += cut.parts.size();
  return count;
}

/// Arcs, lines and cubics round a middle.
Path blob(std::mt19937& random, Point middle, double radius) {
  std::uniform_real_distribution<double> wobble(0.75, 1.25);
  const int nodes = 4 + static_cast<int>(random() % 6);
  std::vector<Point> at;
  for (int i = 0; i < nodes; ++i) {
    const double angle = 2 * std::numbers::pi * i / nodes;
    at.push_back(middle + Point{std::cos(angle), std::sin(angle)} * (radius * wobble(random)));
  }
  Path path = polygonThrough(at);
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Point from = segmentStart(path, i);
    const Point to = path.segments[i].end;
    if (random() % 3 == 0) path.segments[i] = Segment::arc(to, 0.2);
    if (random() % 3 == 0)
      path.segments[i] = Segment::cubic(lerp(from, to, 0.3) + leftNormal(to - from) * -0.1, lerp(from, to, 0.6), to);
  }
  return path;
}

}  // namespace

class TestCutting : public QObject {
  Q_OBJECT

 private slots:
  void aStretchBetweenTwoCrossings() {
    const Drawing cross =
        makeDrawing({linePath({0, 5}, {20, 5}), linePath({5, 0}, {5, 10}), linePath({15, 0}, {15, 10})});
    QCOMPARE(refine::meetingPlaces(cross, 0).size(), 2U);
    const refine::Trimmed middle = trimmed(cross, 0, {10, 5});
    QCOMPARE(middle.taken, linePath({5, 5}, {15, 5}));
    QCOMPARE(middle.left.size(), 2U);
    QCOMPARE(middle.left[0], linePath({0, 5}, {5, 5}));
    QCOMPARE(middle.left[1], linePath({15, 5}, {20, 5}));
    const refine::Trimmed end = trimmed(cross, 0, {1, 5});
    QCOMPARE(end.taken, linePath({0, 5}, {5, 5}));
    QCOMPARE(end.left.size(), 1U);
    QCOMPARE(end.left[0], linePath({5, 5}, {20, 5}));
  }

  void aStretchOfAClosedOutlineOverItsStart() {
    const Drawing two = makeDrawing({squarePath(10), linePath({5, -5}, {5, 15})});
    const refine::Trimmed left = trimmed(two, 0, {0, 5});
    QVERIFY(!left.taken.closed);
    QCOMPARE(left.taken.start, (Point{5, 10}));
    QCOMPARE(left.taken.segments.back().end, (Point{5, 0}));
    QCOMPARE(left.left.size(), 1U);
    QVERIFY(std::abs(pathLength(left.taken) + pathLength(left.left[0]) - 40) < 1e-9);
  }

  void aCircleThatALineCrosses() {
    const Drawing two = makeDrawing({circlePath({0, 0}, 10), linePath({-20, 6}, {20, 6})});
    const refine::Trimmed cap = trimmed(two, 0, {0, 10});
    for (const Segment& segment : cap.taken.segments) QCOMPARE(segment.kind, SegmentKind::Arc);
    const double capLength = 2 * 10 * std::acos(0.6);
    QVERIFY(std::abs(pathLength(cap.taken) - capLength) < 1e-9);
    QVERIFY(std::abs(pathLength(cap.left[0]) - (2 * std::numbers::pi * 10 - capLength)) < 1e-9);
  }

  void whatCrossesNothingIsTakenWhole() {
    const Drawing alone = makeDrawing({squarePath(10), linePath({20, 0}, {30, 0}), circlePath({50, 0}, 3)});
    for (std::size_t i = 0; i < 3; ++i) {
      QVERIFY(refine::meetingPlaces(alone, i).empty());
      const refine::Trimmed all = trimmed(alone, i, alone.path(i).start);
      QCOMPARE(all.taken, alone.path(i));
      QVERIFY(all.left.empty());
    }
  }

  void aLoopOfALineThatCrossesItself() {
    Path loop = linePath({0, 0}, {10, 0});
    loop.segments.push_back(Segment::line({10, 5}));
    loop.segments.push_back(Segment::line({5, 5}));
    loop.segments.push_back(Segment::line({5, -5}));
    const refine::Trimmed taken = trimmed(makeDrawing({loop}), 0, {10, 2});
    QCOMPARE(taken.taken.start, (Point{5, 0}));
    QCOMPARE(taken.taken.segments.back().end, (Point{5, 0}));
    QCOMPARE(taken.left.size(), 2U);
  }

  void aSquareInTwo() {
    const auto cuts = refine::cutAlong(makeDrawing({squarePath(10)}), {-1, 4}, {11, 4});
    QCOMPARE(cuts.size(), 1U);
    QCOMPARE(cuts[0].parts.size(), 2U);
    std::vector<double> areas;
    for (const Path& part : cuts[0].parts) {
      QVERIFY(part.closed);
      QCOMPARE(part.segments.size(), 4U);
      areas.push_back(signedArea(part));
    }
    std::sort(areas.begin(), areas.end());
    QVERIFY(std::abs(areas[0] - 40) < 1e-3);
    QVERIFY(std::abs(areas[1] - 60) < 1e-3);
  }

  void throughTwoCorners() {
    const auto cuts = refine::cutAlong(makeDrawing({squarePath(10)}), {0, 0}, {10, 10});
    QCOMPARE(partsIn(cuts), 2U);
    for (const Path& part : cuts[0].parts) {
      QCOMPARE(part.segments.size(), 3U);
      QVERIFY(std::abs(signedArea(part) - 50) < 1e-9);
    }
  }

  void aRingAndItsHole() {
    const Drawing ring = makeDrawing({circlePath({0, 0}, 10), circlePath({0, 0}, 5)});
    const auto cuts = refine::cutAlong(ring, {-20, 0}, {20, 0});
    QCOMPARE(partsIn(cuts), 2U);
    QVERIFY(std::abs(areaOf(cuts) - std::numbers::pi * 75) < 1e-6);
    QCOMPARE(cuts.size(), 2U);  // the hole has become a part of both borders
    // To the middle of the hole it would be a slit only.
    QVERIFY(refine::cutAlong(ring, {-20, 0}, {0, 0}).empty());
    // An island in the hole is cut by itself.
    const Drawing island = makeDrawing({circlePath({0, 0}, 10), circlePath({0, 0}, 5), circlePath({0, 0}, 2)});
    const auto four = refine::cutAlong(island, {-20, 0.5}, {20, 0.5});
    QCOMPARE(partsIn(four), 4U);
    QVERIFY(std::abs(areaOf(four) - std::numbers::pi * 79) < 1e-3);
  }

  void whatACutDoesNotCross() {
    const Drawing squares = makeDrawing({squarePath(10), squarePath(10, {20, 0})});
    QVERIFY(refine::cutAlong(squares, {-5, 20}, {50, 20}).empty());
    QVERIFY(refine::cutAlong(squares, {2, 2}, {8, 8}).empty());      // wholly inside
    QVERIFY(refine::cutAlong(squares, {-2, 5}, {5, 5}).empty());     // ends inside
    QVERIFY(refine::cutAlong(squares, {-5, 10}, {40, 10}).empty());  // along a side
    QVERIFY(refine::cutAlong(squares, {-5, 5}, {5, -5}).empty());    // touches a corner
    QCOMPARE(refine::cutAlong(squares, {-5, 5}, {12, 5}).size(), 1U);
  }

  void openLinesAreParted() {
    const Drawing lines = makeDrawing({linePath({0, 0}, {10, 0}), linePath({0, 5}, {10, 5})});
    const auto cuts = refine::cutAlong(lines, {4, -1}, {4, 1});
    QCOMPARE(cuts.size(), 1U);
    QCOMPARE(cuts[0].parts.size(), 2U);
    QVERIFY(distance(cuts[0].parts[0].segments.back().end, {4, 0}) < 1e-5);
    QCOMPARE(cuts[0].parts[0].segments.back().end, cuts[0].parts[1].start);
    QVERIFY(refine::cutAlong(lines, {0, -1}, {0, 6}).empty());  // at their ends nothing is left to part
  }

  void layersAreCutApart() {
    const Drawing two = makeDrawing({squarePath(10), squarePath(6, {2, 2})}, {{"a"}, {"b"}}, {0, 1});
    // Were they one area, a hole would be cut.
    const auto cuts = refine::cutAlong(two, {-1, 5}, {11, 5});
    QCOMPARE(partsIn(cuts), 4U);
    QVERIFY(std::abs(areaOf(cuts) - 136) < 1e-3);
  }

  /// Whatever is cut, areas add up, all parts are closed and lie on one side of the cut.
  void areasAddUp() {
    std::mt19937 random(71);
    std::uniform_real_distribution<double> place(-14, 14);
    int cut = 0;
    for (int i = 0; i < 300; ++i) {
      const Drawing ring = makeDrawing({blob(random, {0, 0}, 10), blob(random, {0, 0}, 4)});
      const Point from{place(random) - 30, place(random)};
      const Point to{place(random) + 30, place(random)};
      const auto cuts = refine::cutAlong(ring, from, to);
      if (cuts.empty()) continue;
      ++cut;
      double was = std::abs(signedArea(ring.path(0)));
      const bool hole = std::any_of(cuts.begin(), cuts.end(), [](const refine::CutUp& c) { return c.outline == 1; });
      if (hole) was -= std::abs(signedArea(ring.path(1)));
      QVERIFY2(std::abs(areaOf(cuts) - was) < 1e-3, qPrintable(QString::number(i)));
      for (const refine::CutUp& up : cuts) {
        for (const Path& part : up.parts) {
          QVERIFY(part.closed);
          QCOMPARE(part.segments.back().end, part.start);
          int left = 0;
          int right = 0;
          for (std::size_t k = 0; k < part.segments.size(); ++k) {
            const double side = cross(unit(to - from), pointAt(pieceOf(part, k), 0.5) - from);
            left += side > 1e-3 ? 1 : 0;
            right += side < -1e-3 ? 1 : 0;
          }
          QVERIFY2(left == 0 || right == 0, qPrintable(QString::number(i)));
        }
      }
    }
    QVERIFY(cut > 150);
  }
};

RIM_TEST(TestCutting)
#include "tst_cutting.moc"
