// Mending keeps all that can be seen: what crosses itself parts into its lobes, long lines stay, small faults leave
// nothing behind, and what is merged or simplified stays where it was.

#include <QTest>
#include <numbers>
#include <random>

#include "core/error.h"
#include "core/geometry/flatten.h"
#include "core/geometry/segment.h"
#include "core/geometry/segment_distance.h"
#include "core/mend/decide.h"
#include "core/mend/find/crossings.h"
#include "core/mend/find/inspect.h"
#include "core/mend/repair/mend.h"
#include "core/mend/repair/smoothing.h"
#include "core/mend/repair/tidy.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

Drawing of(std::vector<Path> paths) {
  Drawing drawing;
  setPaths(drawing, std::move(paths));
  return drawing;
}

/// By chords, so that nothing of the mender judges itself.
std::vector<std::pair<Point, Point>> chordsOf(const Drawing& drawing) {
  std::vector<std::pair<Point, Point>> chords;
  for (const Path& path : pathsOf(drawing)) {
    const std::vector<Point> points = flatten(path, 1e-5);
    for (std::size_t i = 0; i + 1 < points.size(); ++i) chords.emplace_back(points[i], points[i + 1]);
    if (path.closed) chords.emplace_back(points.back(), points.front());
  }
  return chords;
}

double distanceTo(const std::vector<std::pair<Point, Point>>& chords, Point p) {
  double least = std::numeric_limits<double>::infinity();
  for (const auto& [a, b] : chords) least = std::min(least, distanceToSegment(p, a, b));
  return least;
}

/// How far a place of the one drawing lies from the other at most, looked at every `step` mm.
double farthest(const Drawing& from, const Drawing& to, double step = 0.2) {
  const auto chords = chordsOf(to);
  double most = 0;
  for (const Path& path : pathsOf(from)) {
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const Piece piece = pieceOf(path, i);
      const int steps = 1 + static_cast<int>(lengthOf(piece) / step);
      for (int k = 0; k <= steps; ++k)
        most = std::max(most, distanceTo(chords, pointAt(piece, static_cast<double>(k) / steps)));
    }
  }
  return most;
}

std::size_t countOf(const std::vector<mend::Finding>& findings, mend::FindingKind kind) {
  return static_cast<std::size_t>(
      std::count_if(findings.begin(), findings.end(), [kind](const mend::Finding& f) { return f.kind == kind; }));
}

Path scribble(unsigned seed, int lines, bool closed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> anywhere(0, 150);
  std::vector<Point> corners;
  for (int i = 0; i < lines; ++i) corners.push_back({anywhere(random), anywhere(random)});
  Path path = polygonThrough(corners);
  if (!closed) {
    path.closed = false;
    path.segments.pop_back();
  }
  return path;
}

}  // namespace

class TestLosingNothing : public QObject {
  Q_OBJECT

 private slots:
  void theLobesOfABowTieBothStay() {
    const Drawing bowTie = of({polygonThrough({{0, 0}, {40, 30}, {40, 0}, {0, 30}})});
    const mend::Mended result = mend::mended(bowTie, {});
    QCOMPARE(result.drawing.outlines.size(), 2U);
    QVERIFY(mend::inspect(result.drawing, {}).empty());
    QVERIFY(farthest(bowTie, result.drawing) < 1e-9 && farthest(result.drawing, bowTie) < 1e-9);
    // Asked for, its nodes are put in order instead, which moves lines far.
    mend::MendSettings settings;
    settings.bowTies = mend::BowTieRule::Untangle;
    QCOMPARE(mend::mended(bowTie, settings).drawing.outlines.size(), 1U);
  }

  void aCurveThatCrossesItselfIsFoundAndParted() {
    // The lobe of this cubic is 4.5 mm high: by formula it crosses itself in one place.
    Path path{{0, 0}, {Segment::cubic({30, 20}, {-20, 20}, {10, 0}), Segment::line({5, -10})}, true};
    path.segments.push_back(Segment::line({0, 0}));
    const Drawing looped = of({path});
    QCOMPARE(countOf(mend::inspect(looped, {}), mend::FindingKind::SelfCrossing), 1U);
    const mend::Mended result = mend::mended(looped, {});
    QVERIFY(mend::inspect(result.drawing, {}).empty());
    QCOMPARE(result.drawing.outlines.size(), 2U);
    QVERIFY2(farthest(looped, result.drawing) < 1e-4, qPrintable(QString::number(farthest(looped, result.drawing))));
  }

  void scribblesLoseNothing_data() {
    QTest::addColumn<int>("lines");
    QTest::addColumn<bool>("closed");
    for (const int lines : {12, 40, 80, 120}) {
      QTest::addRow("%d lines, closed", lines) << lines << true;
      QTest::addRow("%d lines, open", lines) << lines << false;
    }
  }
  void scribblesLoseNothing() {
    QFETCH(int, lines);
    QFETCH(bool, closed);
    for (unsigned seed = 1; seed <= 2; ++seed) {
      const Drawing drawing = of({scribble(seed, lines, closed)});
      const Drawing result = mend::mended(drawing, {}).drawing;
      const auto left = mend::inspect(result, {});
      QVERIFY(farthest(drawing, result, 0.5) <= mend::MendSettings{}.gapMm);
      QVERIFY(farthest(result, drawing, 0.5) <= mend::MendSettings{}.doubleMm);
      QCOMPARE(countOf(left, mend::FindingKind::SelfCrossing), 0U);
      QCOMPARE(countOf(left, mend::FindingKind::Loop), 0U);
      // What nearly coincides over a length is told, not guessed at.
      QVERIFY2(left.size() <= 2 + static_cast<std::size_t>(lines) / 20, qPrintable(QString::number(left.size())));
      for (const mend::Finding& f : left) {
        if (!f.repair.empty()) QVERIFY(!(pathsOf(mend::repaired(result, f, f.repair, {})) == pathsOf(result)));
      }
    }
  }

  void linesThatPassAtASmallAngleAreNoSecondLine() {
    // Two long sides cross at 0.4 degrees, and two others cut what lies between them 3 and 6 mm from there, where it is
    // 0.02 and 0.04 mm wide: drawn so, and clean once the crossings are parted.
    const Drawing crossed = of({polygonThrough({{0, 0},
                                                {62, 0},
                                                {62, 20},
                                                {36, 20},
                                                {36, -20},
                                                {33, -20},
                                                {33, 25},
                                                {70, 25},
                                                {70, 0.28},
                                                {-10, -0.28},
                                                {-10, -30},
                                                {-20, -30},
                                                {-20, 5}})});
    const Drawing parted = mend::mended(crossed, {}).drawing;
    QVERIFY(parted.outlines.size() > 3);
    QCOMPARE(mend::inspect(parted, {}).size(), 0U);
    // A careless copy of a line opens as much, but ends where the line ends.
    Path line{{0, 0}, {Segment::line({5, 0})}, false};
    Path copy{{0, 0.02}, {Segment::line({5, 0.04})}, false};
    QCOMPARE(countOf(mend::inspect(of({line, copy}), {}), mend::FindingKind::DoubleLine), 1U);
  }

  void whatRunsBesideItselfOffersNoRepairThatDoesNothing() {
    // A slot 0.04 mm wide: both its sides bound the outline, so neither is one too many.
    const Drawing slot =
        of({polygonThrough({{0, 0}, {30, 0}, {30, 20}, {15.04, 20}, {15.04, 5}, {15, 5}, {15, 20}, {0, 20}})});
    const auto found = mend::inspect(slot, {});
    QCOMPARE(countOf(found, mend::FindingKind::DoubleLine), 1U);
    for (const mend::Finding& f : found) {
      if (!f.repair.empty()) QVERIFY(!(pathsOf(mend::repaired(slot, f, f.repair, {})) == pathsOf(slot)));
    }
  }

  void smoothingKeepsEveryStretchOnce() {
    const Path path = scribble(7, 30, true);
    const Drawing drawing = of({path});
    const mend::PieceIndex index(pathsOf(drawing));
    const auto crossings = mend::trueCrossings(drawing, index, {}, {});
    QVERIFY(crossings.size() > 50);
    const std::vector<Path> parts = mend::smoothed(path, crossings);
    QVERIFY(std::abs(totalLength(parts) - pathLength(path)) < 1e-6);
    double area = 0;
    for (const Path& part : parts) {
      QVERIFY(part.closed && part.segments.back().end == part.start);
      area += signedArea(part);
    }
    // What the outline winds round stays wound round: the signed areas add up to its own.
    QVERIFY(std::abs(area - signedArea(path)) < 1e-6);
    // Of a part of them those that hang together are enough for parts that do not cross each other.
    const auto some = mend::interlacedWith(crossings, 3);
    const Drawing partly = of(mend::smoothed(path, some));
    const mend::PieceIndex partlyIndex(pathsOf(partly));
    for (const mend::TrueCrossing& c : mend::trueCrossings(partly, partlyIndex, {}, {})) QCOMPARE(c.a.path, c.b.path);
  }

  void whatGoesOutAndBackFarStaysAsALine() {
    const Drawing drawing = of({polygonThrough({{0, 0}, {20, 0}, {20, 10}, {12, 10}, {12, 32}, {12, 10}, {0, 10}})});
    const Drawing result = mend::mended(drawing, {}).drawing;
    QVERIFY(farthest(drawing, result) < 1e-6);
    QCOMPARE(countsOf(pathsOf(result)).open, 1U);
    QVERIFY(std::abs(totalLength(pathsOf(result)) - (60 + 22)) < 1e-6);
  }

  void smallLoopsAndSpikesLeaveNothing_data() {
    QTest::addColumn<double>("size");
    for (const double size : {0.1, 0.2, 0.3}) QTest::addRow("%.1f mm", size) << size;
  }
  void smallLoopsAndSpikesLeaveNothing() {
    QFETCH(double, size);
    const Drawing spiked = of({polygonThrough({{0, 0}, {20, 0}, {20, 8}, {10, 8}, {10, 8 + size}, {10, 8}, {0, 8}})});
    const Drawing looped = of({polygonThrough(
        {{0, 0}, {20, 0}, {20, 8}, {10, 8}, {10 - size, 8 + size}, {10, 8 + size}, {10 - size, 8}, {0, 8}})});
    for (const Drawing& drawing : {spiked, looped}) {
      QVERIFY(!mend::inspect(drawing, {}).empty());
      const Drawing result = mend::mended(drawing, {}).drawing;
      QCOMPARE(result.outlines.size(), 1U);
      QVERIFY(mend::inspect(result, {}).empty());
      QVERIFY(boxOf(pathsOf(result)).high.y <= 8 + size / 2 + 1e-9);
      QVERIFY(std::abs(signedArea(result.path(0)) - 160) < size * size);
    }
  }

  void mergedNodesDoNotCreep() {
    // 2000 chords of 1.6 micrometres: none of them is to be felt, all of them are a circle.
    const Path circle = polygonThrough([] {
      std::vector<Point> corners;
      for (int i = 0; i < 2000; ++i) {
        const double angle = 2 * std::numbers::pi * i / 2000;
        corners.push_back({0.5 * std::cos(angle), 0.5 * std::sin(angle)});
      }
      return corners;
    }());
    const mend::MendSettings settings;
    const Path merged = mend::withoutCoincidentNodes(of({circle}), settings).drawing.path(0);
    QVERIFY(merged.segments.size() < 1500 && merged.segments.size() > 300);
    QVERIFY(std::abs(signedArea(merged) / signedArea(circle) - 1) < 0.01);
    QVERIFY(farthest(of({circle}), of({merged}), 0.001) <= settings.coincidentMm);
    const Drawing safe = mend::repairedSafely(of({circle}), settings);
    QCOMPARE(safe.outlines.size(), 1U);
    QVERIFY(std::abs(std::abs(signedArea(safe.path(0))) / signedArea(circle) - 1) < 0.01);
    QVERIFY(mend::inspect(safe, settings).empty());
  }

  void whatIsSimplifiedCrossesNothing() {
    // Two wavy outlines 0.15 mm apart, simplified within 0.2 mm.
    const auto wavy = [](double radius, double turn) {
      std::vector<Point> corners;
      for (int i = 0; i < 720; ++i) {
        const double angle = 2 * std::numbers::pi * i / 720;
        const double r = radius + 0.4 * std::sin(23 * angle + turn);
        corners.push_back({r * std::cos(angle), r * std::sin(angle)});
      }
      return polygonThrough(corners);
    };
    const Drawing drawing = of({wavy(20, 0), wavy(19.85, 0)});
    QVERIFY(mend::inspect(drawing, {}).empty() ||
            countOf(mend::inspect(drawing, {}), mend::FindingKind::Crossing) == 0);
    mend::MendSettings settings;
    settings.simplifyMm = 0.2;
    settings.doubles = mend::DoubleRule::Leave;
    const Drawing result = mend::mended(drawing, settings).drawing;
    QCOMPARE(countOf(mend::inspect(result, settings), mend::FindingKind::Crossing), 0U);
    QVERIFY(countsOf(pathsOf(result)).nodes < countsOf(pathsOf(drawing)).nodes);
    QVERIFY(farthest(drawing, result) <= settings.simplifyMm);
  }

  void piecesWhoseEndsMeetAreOneOutline() {
    std::mt19937 random(3);
    const Drawing whole = plate(random);
    const Drawing pieces = takenApart(whole, random);
    const mend::PutTogether together = mend::putTogether(pieces);
    QCOMPARE(together.drawing.outlines.size(), whole.outlines.size());
    QCOMPARE(countsOf(pathsOf(together.drawing)).open, 0U);
    QVERIFY(mend::inspect(together.drawing, {}).empty());
    std::size_t count = 0;
    for (const mend::JoinedOutline& outline : together.joined) count += outline.pieces;
    QCOMPARE(count + whole.outlines.size() - together.joined.size(), pieces.outlines.size());
    // Nothing becomes one that was two, and what is whole stays as it is.
    QCOMPARE(countsOf(pathsOf(together.drawing)).lines, countsOf(pathsOf(pieces)).lines);
    QVERIFY(mend::putTogether(whole).joined.empty() && pathsOf(mend::putTogether(whole).drawing) == pathsOf(whole));
  }

  void tooMuchIsRefusedWithASentence() {
    Path back{{0, 0}, {}, false};
    for (int i = 0; i < 3000; ++i) back.segments.push_back(Segment::line({i % 2 == 0 ? 10.0 : 0.0, 0}));
    QVERIFY_THROWS_EXCEPTION(InputError, mend::inspect(of({back}), {}));
    // Mending takes it for what it is: a line.
    const Drawing result = mend::mended(of({back}), {}).drawing;
    QVERIFY(result.outlines.size() <= 2 && farthest(of({back}), result) < 0.05);
  }
};

RIM_TEST(TestLosingNothing)
#include "tst_losing_nothing.moc"
