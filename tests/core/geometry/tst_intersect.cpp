#include <QTest>
#include <random>

#include "core/geometry/arc.h"
#include "core/geometry/intersect.h"
#include "core/geometry/overlap.h"
#include "support/test_list.h"

using namespace rim;

namespace {

Piece line(Point a, Point b) { return {a, Segment::line(b)}; }
Piece arc(Point a, Point b, double bulge) { return {a, Segment::arc(b, bulge)}; }

Piece randomPiece(std::mt19937& random) {
  std::uniform_real_distribution<double> place(0, 10);
  std::uniform_real_distribution<double> bulge(-1, 1);
  const auto point = [&] { return Point{place(random), place(random)}; };
  const Point a = point();
  switch (random() % 3) {
    case 0:
      return line(a, point());
    case 1:
      return arc(a, point(), bulge(random));
    default:
      return {a, Segment::cubic(point(), point(), point())};
  }
}

/// How often chords of two pieces cross: slow and plain.
int chordCrossings(const Piece& a, const Piece& b) {
  constexpr int kChords = 1500;
  int count = 0;
  std::vector<Point> q;
  for (int j = 0; j <= kChords; ++j) q.push_back(pointAt(b, static_cast<double>(j) / kChords));
  Point p0 = pointAt(a, 0);
  for (int i = 1; i <= kChords; ++i) {
    const Point p1 = pointAt(a, static_cast<double>(i) / kChords);
    for (int j = 1; j <= kChords; ++j) {
      const Point r0 = q[static_cast<std::size_t>(j - 1)];
      const Point r1 = q[static_cast<std::size_t>(j)];
      const bool crosses = cross(p1 - p0, r0 - p0) * cross(p1 - p0, r1 - p0) < 0 &&
                           cross(r1 - r0, p0 - r0) * cross(r1 - r0, p1 - r0) < 0;
      count += crosses ? 1 : 0;
    }
    p0 = p1;
  }
  return count;
}

}  // namespace

class TestIntersect : public QObject {
  Q_OBJECT

 private slots:
  void linesMeetWhereTheFormulaSays() {
    const auto found = meetings(line({0, 0}, {4, 4}), line({0, 2}, {4, 2}));
    QCOMPARE(found.size(), 1U);
    QVERIFY(distance(found[0].place, {2, 2}) < 1e-12);
    QVERIFY(std::abs(found[0].t - 0.5) < 1e-12 && std::abs(found[0].u - 0.5) < 1e-12);
    QVERIFY(meetings(line({0, 0}, {1, 1}), line({0, 2}, {4, 2})).empty());
    QVERIFY(meetings(line({0, 0}, {4, 0}), line({0, 1}, {4, 1})).empty());
  }

  void aLineMeetsACircleTwiceOnceOrNever() {
    const Piece half = arc({5, 0}, {-5, 0}, 1);  // upper half of the circle of radius 5
    QCOMPARE(meetings(line({-9, 3}, {9, 3}), half).size(), 2U);
    QCOMPARE(meetings(line({-9, 5}, {9, 5}), half).size(), 1U);
    QVERIFY(meetings(line({-9, 5.001}, {9, 5.001}), half).empty());
    for (const Meeting& m : meetings(line({-9, 3}, {9, 3}), half)) QVERIFY(std::abs(std::abs(m.place.x) - 4) < 1e-12);
    QCOMPARE(meetings(half, line({-9, 3}, {9, 3})).size(), 2U);
  }

  void circlesMeetOnTheirRadicalLine() {
    const auto found = meetings(arc({5, 0}, {-5, 0}, 1), arc({11, 0}, {1, 0}, 1));
    QCOMPARE(found.size(), 1U);
    QVERIFY(distance(found[0].place, {3, 4}) < 1e-12);
  }

  void piecesOfAllKindsMeetAsOftenAsTheirChords() {
    const auto seed = qEnvironmentVariableIntValue("TEST_SEED") != 0
                          ? static_cast<std::uint32_t>(qEnvironmentVariableIntValue("TEST_SEED"))
                          : 20261125U;
    std::mt19937 random(seed);
    int meetingsFound = 0;
    for (int round = 0; round < 60; ++round) {
      const Piece a = randomPiece(random);
      const Piece b = randomPiece(random);
      const auto found = meetings(a, b, 1e-4);
      const int expected = chordCrossings(a, b);
      QVERIFY2(
          static_cast<int>(found.size()) == expected,
          qPrintable(QString("seed %1, round %2: %3 against %4").arg(seed).arg(round).arg(found.size()).arg(expected)));
      for (const Meeting& m : found) {
        QVERIFY(distance(pointAt(a, m.t), pointAt(b, m.u)) < 1e-6);
        ++meetingsFound;
      }
    }
    QVERIFY(meetingsFound > 20);
  }

  void curvesOnOneTrackComeToAnEnd() {
    const Piece curve{{0, 0}, Segment::cubic({3, 8}, {7, -8}, {10, 0})};
    meetings(curve, curve);
    meetings(curve, reversed(curve));
  }

  void overlapsOfLinesArcsAndCurves() {
    const auto share = [](const Piece& a, const Piece& b) {
      const auto found = overlapsOf(a, b, 0.02);
      return found.empty() ? 0.0 : found[0].to - found[0].from;
    };
    QVERIFY(std::abs(share(line({0, 0}, {10, 0}), line({4, 0.01}, {20, 0.01})) - 0.6) < 1e-9);
    QVERIFY(std::abs(share(line({0, 0}, {10, 0}), line({20, 0}, {4, 0})) - 0.6) < 1e-9);
    QCOMPARE(share(line({0, 0}, {10, 0}), line({0, 0.05}, {10, 0.05})), 0.0);
    QCOMPARE(share(line({0, 0}, {10, 0}), line({5, -1}, {5, 1})), 0.0);
    QCOMPARE(share(line({0, 0}, {10, 0}), line({10, 0}, {20, 0})), 0.0);
    // Two sides of a pointed tip part slowly; they are not one line.
    QCOMPARE(share(line({0, 0}, {10, 0}), line({0, 0}, {10, 0.5})), 0.0);
    const Piece half = arc({5, 0}, {-5, 0}, 1);
    QVERIFY(share(half, reversed(half)) > 0.999);
    // A quarter turn as a cubic stays within 0.0014 of radius 5 (see cubicsFromArc).
    const Piece quarter = arc({5, 0}, {0, 5}, std::tan(M_PI / 8));
    const auto cubics = cubicsFromArc({5, 0}, quarter.segment, 0.01);
    QCOMPARE(cubics.size(), 1U);
    QVERIFY(share({{5, 0}, cubics[0]}, half) > 0.999);
    QVERIFY(std::abs(share(half, {{5, 0}, cubics[0]}) - 0.5) < 1e-3);
  }

  void shortNeighboursAreNoDoubles() {
    QVERIFY(overlapsOf(line({0, 0}, {0.01, 0}), line({0.02, 0}, {0.03, 0.0005}), 0.05).empty());
  }
};

RIM_TEST(TestIntersect)
#include "tst_intersect.moc"
