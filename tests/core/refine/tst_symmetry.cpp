#include <QtTest>
#include <numbers>
#include <random>

#include "core/geometry/affine.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/mend/find/inspect.h"
#include "core/refine/edit/place.h"
#include "core/refine/propose/symmetry.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

/// The largest distance of the mapped drawing from itself.
double residual(const Drawing& drawing, const Affine& map) {
  double most = 0;
  for (const Outline& outline : drawing.outlines) {
    for (std::size_t i = 0; i < outline.path().segments.size(); ++i) {
      for (const double t : {0.0, 0.3, 0.7}) {
        const Point p = map(pointAt(pieceOf(outline.path(), i), t));
        double least = std::numeric_limits<double>::infinity();
        for (const Outline& other : drawing.outlines) least = std::min(least, nearestOn(other.path(), p).off);
        most = std::max(most, least);
      }
    }
  }
  return most;
}

Affine reflection(Point place, double angle) {
  return shift(place) * rotation(angle) * scale(1, -1) * rotation(-angle) * shift(-place);
}

/// A badge that is symmetric about an upright axis through x = 40, each node off by up to `off`.
Drawing badge(double off, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> move(-off, off);
  const auto shaken = [&](std::vector<Point> corners) {
    for (Point& p : corners) p = p + Point{move(random), move(random)};
    return polygonThrough(corners);
  };
  return makeDrawing({shaken({{40, 0}, {70, 20}, {66, 60}, {50, 64}, {40, 80}, {30, 64}, {14, 60}, {10, 20}}),
                      shaken({{30, 30}, {36, 30}, {36, 40}, {30, 40}}),
                      shaken({{44, 30}, {50, 30}, {50, 40}, {44, 40}}),
                      circlePath({40 + move(random), 55 + move(random)}, 4)});
}

/// Five petals round (20, 30), and a rim of five bays, each off by a little.
Drawing flower(double off, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> move(-off, off);
  std::vector<Path> paths;
  std::vector<Point> rim;
  for (int i = 0; i < 5; ++i) {
    const double angle = 2 * std::numbers::pi * i / 5;
    const auto at = [&](double r, double turn) {
      return Point{20 + move(random), 30 + move(random)} + Point{std::cos(angle + turn), std::sin(angle + turn)} * r;
    };
    paths.push_back(polygonThrough({at(8, -0.2), at(18, -0.3), at(20, 0.1), at(9, 0.25)}));
    for (const auto& [r, turn] : {std::pair(30.0, -0.4), std::pair(26.0, 0.0), std::pair(31.0, 0.35)})
      rim.push_back(at(r, turn));
  }
  paths.push_back(polygonThrough(rim));
  return makeDrawing(std::move(paths));
}

}  // namespace

class TestSymmetry : public QObject {
  Q_OBJECT

 private slots:
  /// A lopsided badge: exactly symmetric afterwards, the axis within a tenth of a degree.
  void aLopsidedBadgeBecomesExact() {
    for (unsigned seed = 1; seed <= 8; ++seed) {
      for (const double turn : {0.0, 33.0, 90.0}) {
        const Drawing drawing = refine::rotated(badge(0.15, seed), turn);
        const auto found = refine::symmetryOf(drawing, refine::SymmetryWish::Auto, 1);
        QVERIFY(found && found->turns == 0);
        double off = found->axisAngle * 180 / std::numbers::pi - 90 - turn;
        off -= std::round(off / 180) * 180;
        QVERIFY2(std::abs(off) < 0.5, qPrintable(QString("seed %1: %2").arg(seed).arg(off)));
        const refine::Refined refined =
            refine::symmetrized(drawing, refine::SymmetryWish::Auto, refine::SymmetryFrom::Best, 1);
        QCOMPARE(refined.drawing.outlines.size(), 4U);
        QVERIFY(residual(refined.drawing, reflection(found->centre, found->axisAngle)) < 1e-6);
        for (const mend::Finding& f : mend::inspect(refined.drawing, {}))
          QVERIFY(f.kind != mend::FindingKind::OpenEnd && f.kind != mend::FindingKind::Crossing);
      }
    }
  }

  void theAxisIsWhereTheDrawingHasIt() {
    const auto found = refine::symmetryOf(refine::rotated(badge(0, 1), 17), refine::SymmetryWish::Mirror, 0.3);
    QVERIFY(found && std::abs(found->axisAngle * 180 / std::numbers::pi - 107) < 0.1);
    QVERIFY2(found->farthestMm < 1e-6, qPrintable(QString::number(found->farthestMm)));
  }

  void theHalfThatIsAskedForCounts() {
    const Drawing drawing = badge(0.3, 3);
    const Box left = boxOf(
        pathsOf(refine::symmetrized(drawing, refine::SymmetryWish::Mirror, refine::SymmetryFrom::Left, 2).drawing));
    const Box right = boxOf(
        pathsOf(refine::symmetrized(drawing, refine::SymmetryWish::Mirror, refine::SymmetryFrom::Right, 2).drawing));
    const Box was = boxOf(pathsOf(drawing));
    QVERIFY(std::abs(left.low.x - was.low.x) < 0.1);
    QVERIFY(std::abs(right.high.x - was.high.x) < 0.1);
    const auto found = refine::symmetryOf(drawing, refine::SymmetryWish::Mirror, 2);
    const Drawing mean =
        refine::symmetrized(drawing, refine::SymmetryWish::Mirror, refine::SymmetryFrom::Mean, 2).drawing;
    QVERIFY(residual(mean, reflection(found->centre, found->axisAngle)) < 1e-6);
  }

  void openLinesAreMirroredToo() {
    Drawing drawing = badge(0, 1);
    add(drawing, {{20, 10}, {Segment::line({40, 14}), Segment::line({60, 10})}, false});
    add(drawing, {{20, 50}, {Segment::line({22.1, 40})}, false});
    add(drawing, {{60, 50}, {Segment::line({58, 40})}, false});
    const Drawing exact =
        refine::symmetrized(drawing, refine::SymmetryWish::Mirror, refine::SymmetryFrom::Left, 0.5).drawing;
    const auto found = refine::symmetryOf(drawing, refine::SymmetryWish::Mirror, 0.5);
    QVERIFY(residual(exact, reflection(found->centre, found->axisAngle)) < 1e-6);
    QCOMPARE(countsOf(pathsOf(exact)).open, 3U);
    // Lines that go on straight become one, and an open line stays open, with both its ends.
    Drawing zigzag = badge(0, 1);
    add(zigzag, {{20, 10},
                 {Segment::line({26, 10}), Segment::line({30, 14}), Segment::line({50, 14}), Segment::line({54, 10}),
                  Segment::line({60, 10})},
                 false});
    const Drawing both =
        refine::symmetrized(zigzag, refine::SymmetryWish::Mirror, refine::SymmetryFrom::Left, 0.5).drawing;
    const Path& line = both.outlines.back().path();
    QVERIFY(!line.closed && line.segments.size() == 5);
    const double width = std::abs(line.segments.back().end.x - line.start.x);
    QVERIFY2(std::abs(width - 40) < 1e-6, qPrintable(QString::number(width)));
  }

  void aFlowerIsTurned() {
    for (unsigned seed = 1; seed <= 8; ++seed) {
      const Drawing drawing = flower(0.1, seed);
      const auto found = refine::symmetryOf(drawing, refine::SymmetryWish::Auto, 0.8);
      QVERIFY(found);
      QCOMPARE(found->turns, 5);
      QVERIFY(distance(found->centre, {20, 30}) < 0.1);
      const Drawing exact =
          refine::symmetrized(drawing, refine::SymmetryWish::Turn, refine::SymmetryFrom::Best, 0.8).drawing;
      QCOMPARE(exact.outlines.size(), drawing.outlines.size());
      const Affine spin = shift(found->centre) * rotation(2 * std::numbers::pi / 5) * shift(-found->centre);
      QVERIFY(residual(exact, spin) < 1e-6);
    }
  }

  void whatHasNoneKeepsItsShape() {
    const Drawing odd = makeDrawing({polygonThrough({{0, 0}, {30, 2}, {25, 14}, {8, 22}}), circlePath({50, 3}, 4)});
    QVERIFY(!refine::symmetryOf(odd, refine::SymmetryWish::Auto, 0.3));
    QVERIFY(refine::symmetrized(odd, refine::SymmetryWish::Auto, refine::SymmetryFrom::Best, 0.3).drawing.outlines ==
            odd.outlines);
    QVERIFY(!refine::symmetryOf(Drawing{}, refine::SymmetryWish::Auto, 0.3));
  }
};

RIM_TEST(TestSymmetry)
#include "tst_symmetry.moc"
