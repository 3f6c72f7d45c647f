#include <QtTest>
#include <numbers>

#include "core/geometry/paths.h"
#include "core/geometry/segment.h"
#include "core/refine/edit/corners.h"
#include "core/refine/propose/exact_shapes.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

std::vector<Path> letters() {
  return {polygonThrough(
              {{0, 0}, {4, 0}, {4, 10}, {12, 0}, {17, 0}, {8, 12}, {17, 24}, {12, 24}, {4, 14}, {4, 24}, {0, 24}}),
          polygonThrough({{0, 0}, {4, 0}, {6, 6}, {14, 6}, {16, 0}, {20, 0}, {12, 24}, {8, 24}}),
          polygonThrough({{0, 0},
                          {14, 0},
                          {14, 4},
                          {4, 4},
                          {4, 10},
                          {12, 10},
                          {12, 14},
                          {4, 14},
                          {4, 20},
                          {14, 20},
                          {14, 24},
                          {0, 24}}),
          polygonThrough({{0, 0}, {16, 0}, {16, 4}, {6, 4}, {16, 20}, {16, 24}, {0, 24}, {0, 20}, {10, 20}, {0, 4}})};
}

/// Every corner cut off `mm` along both sides, by a line, an arc or a curve.
Path cutOff(const Path& path, double mm, SegmentKind how) {
  Path out{{}, {}, true};
  const std::size_t n = path.segments.size();
  for (std::size_t i = 0; i < n; ++i) {
    const Piece side = pieceOf(path, i);
    const Piece next = pieceOf(path, (i + 1) % n);
    const Point from = pointAt(side, 1 - mm / lengthOf(side));
    const Point to = pointAt(next, mm / lengthOf(next));
    out.segments.push_back(Segment::line(from));
    if (how == SegmentKind::Line) out.segments.push_back(Segment::line(to));
    if (how == SegmentKind::Arc)
      out.segments.push_back(Segment::arc(to, std::tan(angleBetween(tangentAt(side, 1), tangentAt(next, 0)) / 4)));
    if (how == SegmentKind::Cubic)
      out.segments.push_back(Segment::cubic(lerp(from, side.segment.end, 0.6), lerp(to, side.segment.end, 0.6), to));
    if (i + 1 == n) out.start = to;
  }
  return out;
}

}  // namespace

class TestCorners : public QObject {
  Q_OBJECT

 private slots:
  /// Letters with corners rounded by 0.2 to 0.6 mm: every corner within 0.03 mm, every edge one line.
  void roundedLettersBecomeSharp() {
    for (const Path& letter : letters()) {
      for (const double mm : {0.2, 0.4, 0.6}) {
        for (const SegmentKind how : {SegmentKind::Line, SegmentKind::Arc, SegmentKind::Cubic}) {
          const refine::ChangedPath sharp = refine::sharpened(cutOff(letter, mm, how), 0.7);
          QCOMPARE(sharp.path.segments.size(), letter.segments.size());
          QVERIFY(refine::apartBy(sharp.path, letter).mm < 1e-6);
          QCOMPARE(sharp.changes.size(), letter.segments.size());
        }
      }
    }
  }

  void largeRadiiStay() {
    for (const Path& letter : letters()) {
      const Path round = cutOff(letter, 1.5, SegmentKind::Arc);
      QVERIFY(refine::sharpened(round, 0.7).changes.empty());
      QVERIFY(refine::sharpened(round, 0.7).path == round);
    }
    QVERIFY(refine::sharpened(circlePath({0, 0}, 10), 0.7).changes.empty());
    QVERIFY(refine::sharpened(letters()[0], 0.7).changes.empty());
  }

  void arcsRunOnAlongTheirCircles() {
    // A half disc whose two corners are cut off by 0.5.
    const double up = std::sqrt(100 - 9.6 * 9.6);
    const Path cut{
        {-9.5, 0},
        {Segment::line({9.5, 0}), Segment::line({9.6, up}),
         Segment::arc({-9.6, up}, std::tan((std::numbers::pi - 2 * std::asin(up / 10)) / 4)), Segment::line({-9.5, 0})},
        true};
    const refine::ChangedPath sharp = refine::sharpened(cut, 3);
    QCOMPARE(sharp.path.segments.size(), 2U);
    QVERIFY(std::abs(signedArea(sharp.path) - std::numbers::pi * 50) < 1e-9);
  }

  void cornersAreFilleted() {
    const Path square = polygonThrough({{0, 0}, {20, 0}, {20, 20}, {0, 20}});
    const refine::ChangedPath round = refine::filleted(square, 3);
    QCOMPARE(round.changes.size(), 4U);
    QCOMPARE(countsOf(Paths(round.path)).arcs, 4U);
    QVERIFY(std::abs(signedArea(round.path) - (400 - 9 * (4 - std::numbers::pi))) < 1e-9);
    for (std::size_t i = 0; i < round.path.segments.size(); ++i) {
      const Point in = tangentAt(pieceOf(round.path, i), 1);
      const Point out = tangentAt(pieceOf(round.path, (i + 1) % round.path.segments.size()), 0);
      QVERIFY(std::abs(angleBetween(in, out)) < 1e-9);
    }
    // And back.
    QVERIFY(refine::apartBy(refine::sharpened(round.path, 3.5).path, square).mm < 1e-9);
    // Sides that are too short keep their corners; the others are filleted.
    QVERIFY(refine::filleted(square, 11).changes.empty());
    const Path step = polygonThrough({{0, 0}, {20, 0}, {20, 20}, {19, 20}, {19, 10}, {0, 10}});
    const std::size_t some = refine::filleted(step, 2).changes.size();
    QVERIFY(some >= 2 && some < 6);
  }

  void cornersBetweenArcsAreFilleted() {
    const Path half{{10, 0}, {Segment::arc({-10, 0}, 1), Segment::line({10, 0})}, true};
    const refine::ChangedPath round = refine::filleted(half, 1);
    QCOMPARE(round.changes.size(), 2U);
    QCOMPARE(countsOf(Paths(round.path)).arcs, 3U);
    for (std::size_t i = 0; i < round.path.segments.size(); ++i) {
      const Point in = tangentAt(pieceOf(round.path, i), 1);
      const Point out = tangentAt(pieceOf(round.path, (i + 1) % round.path.segments.size()), 0);
      QVERIFY(std::abs(angleBetween(in, out)) < 1e-6);
    }
    // An open path keeps its ends.
    const Path open{{0, 0}, {Segment::line({10, 0}), Segment::line({10, 10})}, false};
    const refine::ChangedPath bent = refine::filleted(open, 2);
    QCOMPARE(bent.changes.size(), 1U);
    QVERIFY(bent.path.start == open.start && bent.path.segments.back().end == (Point{10, 10}));
  }

  /// The tip of a letter's counter as a blurred picture gives it: a bit of one side is left beside the cut, and no
  /// side.
  void aRemnantOfACornerIsNoSide() {
    const Path counter = polygonThrough(
        {{36, 34.4}, {24, 34.4}, {29.757, 16.745}, {29.875, 16.613}, {30.325, 16.613}, {30.504, 17.544}});
    const refine::ChangedPath sharp = refine::sharpened(counter, 2);
    QCOMPARE(sharp.path.segments.size(), 3U);
    double nearest = 1;
    for (const Segment& s : sharp.path.segments) nearest = std::min(nearest, distance(s.end, {30, 16}));
    QVERIFY2(nearest < 0.15, qPrintable(QString::number(nearest)));
  }

  /// The tip of a letter X as a blurred picture gives it: a curve that turns the other way before it turns back.
  void aCornerThatWobblesIsSharp() {
    Path tip = polygonThrough({{47.3, 37.5}, {66.8, 8.9}, {66.7, 8.2}, {51.1, 8.2}});
    tip.segments[1] = Segment::cubic({67.1, 8.55}, {67.35, 8.1}, {66.7, 8.2});
    const refine::ChangedPath sharp = refine::sharpened(tip, 2);
    QCOMPARE(sharp.path.segments.size(), 3U);
    QCOMPARE(sharp.changes.size(), 1U);
    QVERIFY(distance(sharp.changes.front().at, {67.277, 8.2}) < 0.001);
  }

  /// What sticks out beside a corner is no wobble of it.
  void aToothBesideACornerStays() {
    const Path tooth = polygonThrough({{0, 0}, {9.5, 0}, {9.6, -0.4}, {10.3, -0.3}, {10, 0.5}, {10, 10}});
    QVERIFY(refine::sharpened(tooth, 1).path == tooth);
  }
};

RIM_TEST(TestCorners)
#include "tst_corners.moc"
