// Curves as arcs: true within the tolerance, tangent to each other, and nearly as few as can be.

#include <QTest>
#include <cmath>
#include <random>

#include "core/geometry/arc.h"
#include "core/geometry/arc_spline.h"
#include "core/geometry/segment.h"
#include "support/test_list.h"

using namespace rim;

namespace {

constexpr double kDegree = M_PI / 180;

/// A small curve: cubics one after the other, smooth where they meet, as a tracer's are.
std::vector<Cubic> smallCurve(std::mt19937& random) {
  const auto real = [&random](double low, double high) { return std::uniform_real_distribution(low, high)(random); };
  std::vector<Cubic> curve;
  Point from{0, 0};
  double direction = 0;
  for (int k = 0; k < 6; ++k) {
    const double turn = real(-1.6, 1.6);
    const double size = real(5, 40);
    const Point along{std::cos(direction), std::sin(direction)};
    const double half = direction + turn / 2;
    const Point to = from + Point{std::cos(half), std::sin(half)} * size;
    direction += turn;
    const Point arriving{std::cos(direction), std::sin(direction)};
    curve.push_back({from, from + along * size * real(0.2, 0.5), to - arriving * size * real(0.2, 0.5), to});
    from = to;
  }
  return curve;
}

/// The farthest that a curve lies from its arcs, densely sampled, and they from it.
double apart(const Cubic& cubic, const std::vector<Segment>& arcs) {
  const Path path{cubic.p0, arcs, false};
  const Path own{cubic.p0, {Segment::cubic(cubic.p1, cubic.p2, cubic.p3)}, false};
  const auto farthest = [](const Path& a, const Path& b) {
    double most = 0;
    for (std::size_t i = 0; i < a.segments.size(); ++i) {
      for (int k = 0; k <= 40; ++k) {
        const Point p = pointAt(pieceOf(a, i), k / 40.0);
        double least = 1e9;
        for (std::size_t j = 0; j < b.segments.size(); ++j) least = std::min(least, distanceTo(pieceOf(b, j), p));
        most = std::max(most, least);
      }
    }
    return most;
  };
  return std::max(farthest(path, own), farthest(own, path));
}

/// The fewest arcs by dynamic programming over nodes on the curve and directions there, which may differ by a
/// fortieth of a degree where arcs meet; so none that are tangent to each other can be fewer.
std::size_t fewestArcs(const Cubic& cubic, double tolerance) {
  constexpr int kNodes = 48;
  constexpr double kStep = 0.05 * kDegree;
  constexpr int kOff = 180;  // directions up to 9 degrees off the curve's
  constexpr int kNever = 1000;
  std::vector<std::vector<int>> fewest(kNodes + 1, std::vector<int>(2 * kOff + 1, kNever));
  fewest[0][kOff] = 0;
  std::vector<Point> place;
  std::vector<double> direction;
  for (int i = 0; i <= kNodes; ++i) {
    place.push_back(pointOn(cubic, static_cast<double>(i) / kNodes));
    const Point t = tangent(cubic, static_cast<double>(i) / kNodes);
    direction.push_back(std::atan2(t.y, t.x));
  }
  const auto follows = [&](int i, int j, const Segment& arc) {
    if (std::abs(arc.bulge) < 1e-12) return false;
    const Arc own = arcFromBulge(place[static_cast<std::size_t>(i)], arc.end, arc.bulge);
    for (int k = 1; k < 8; ++k) {
      const Point p = pointOn(cubic, (i + (j - i) * k / 8.0) / kNodes);
      if (std::abs(distance(p, own.centre) - own.radius) > tolerance) return false;
    }
    return true;
  };
  for (int i = 0; i < kNodes; ++i) {
    for (int off = 0; off <= 2 * kOff; ++off) {
      const int own = fewest[static_cast<std::size_t>(i)][static_cast<std::size_t>(off)];
      if (own == kNever) continue;
      const double leaving = direction[static_cast<std::size_t>(i)] + (off - kOff) * kStep;
      for (int j = i + 1; j <= kNodes; ++j) {
        const Point to = place[static_cast<std::size_t>(j)];
        const Point chord = to - place[static_cast<std::size_t>(i)];
        const Segment arc = Segment::arc(
            to, bulgeFromTangent(place[static_cast<std::size_t>(i)], {std::cos(leaving), std::sin(leaving)}, to));
        const double arriving = 2 * std::atan2(chord.y, chord.x) - leaving;
        const double there = std::remainder(arriving - direction[static_cast<std::size_t>(j)], 2 * M_PI) / kStep;
        const int at = static_cast<int>(std::lround(there)) + kOff;
        if (at < 0 || at > 2 * kOff || (j == kNodes && at != kOff) || !follows(i, j, arc)) continue;
        int& best = fewest[static_cast<std::size_t>(j)][static_cast<std::size_t>(at)];
        best = std::min(best, own + 1);
      }
    }
  }
  return static_cast<std::size_t>(fewest[kNodes][kOff]);
}

}  // namespace

class TestArcSpline : public QObject {
  Q_OBJECT

 private slots:
  void arcsAreTrueAndTangent() {
    std::mt19937 random(5);
    for (int k = 0; k < 60; ++k) {
      for (const Cubic& cubic : smallCurve(random)) {
        for (const double tolerance : {0.3, 0.03, 0.003}) {
          const std::vector<Segment> arcs = arcsFromCubic(cubic, tolerance);
          QVERIFY(arcs.back().end == cubic.p3);
          const double off = apart(cubic, arcs);
          QVERIFY2(off <= 1.05 * tolerance, qPrintable(QString::number(off / tolerance)));
          const Path path{cubic.p0, arcs, false};
          Point before = tangent(cubic, 0);
          for (std::size_t i = 0; i < arcs.size(); ++i) {
            const Piece piece = pieceOf(path, i);
            QVERIFY(std::abs(angleBetween(before, tangentAt(piece, 0))) < 0.02 * kDegree);
            before = tangentAt(piece, 1);
          }
          QVERIFY(std::abs(angleBetween(before, tangent(cubic, 1))) < 0.02 * kDegree);
        }
      }
    }
  }

  void theyAreNearlyAsFewAsCanBe() {
    std::mt19937 random(11);
    std::vector<double> shares;
    for (int k = 0; k < 14; ++k) {
      const double tolerance = k % 2 == 0 ? 0.03 : 0.006;
      std::size_t used = 0;
      std::size_t fewest = 0;
      for (const Cubic& cubic : smallCurve(random)) {
        used += arcsFromCubic(cubic, tolerance).size();
        fewest += fewestArcs(cubic, tolerance);
      }
      shares.push_back(static_cast<double>(used) / static_cast<double>(fewest));
    }
    std::sort(shares.begin(), shares.end());
    qInfo("median %.3f, most %.3f", shares[shares.size() / 2], shares.back());
    QVERIFY2(shares[shares.size() / 2] <= 1.1, qPrintable(QString::number(shares[shares.size() / 2])));
    QVERIFY2(shares.back() <= 1.25, qPrintable(QString::number(shares.back())));
  }

  void aQuarterOfACircleIsOneArc() {
    const Segment arc = Segment::arc({0, 10}, std::tan(M_PI / 8));
    const std::vector<Segment> cubics = cubicsFromArc({10, 0}, arc, 0.01);
    QCOMPARE(cubics.size(), 1U);
    const std::vector<Segment> back = arcsFromCubic({{10, 0}, cubics[0].handle1, cubics[0].handle2, {0, 10}}, 0.01);
    QCOMPARE(back.size(), 1U);
    QVERIFY(std::abs(back[0].bulge - arc.bulge) < 1e-9);
  }

  void cuspsLoopsAndNothingAtAllEnd() {
    const std::vector<Cubic> awkward{
        {{0, 0}, {10, 10}, {0, 10}, {10, 0}},   {{0, 0}, {10, 10}, {-0.001, 10}, {10, 0}},
        {{0, 0}, {30, 20}, {-20, 20}, {10, 0}}, {{0, 0}, {0, 0}, {10, 0}, {10, 0}},
        {{0, 0}, {20, 0}, {-10, 0}, {10, 0}},   {{5, 5}, {5, 5}, {5, 5}, {5, 5}},
        {{0, 0}, {40, 40}, {-40, 40}, {0, 0}},  {{0, 0}, {1e-9, 1}, {1, 1e-9}, {1e6, 1e6}}};
    for (const Cubic& cubic : awkward) {
      for (const double tolerance : {0.1, 0.001}) {
        const std::vector<Segment> arcs = arcsFromCubic(cubic, tolerance);
        QVERIFY(!arcs.empty() && arcs.size() < 5000 && arcs.back().end == cubic.p3);
        for (const Segment& s : arcs) QVERIFY(std::isfinite(s.bulge) && std::isfinite(s.end.x + s.end.y));
        // From the curve to the arcs: near a cusp the nearest place of a curve is not found that well.
        const Path path{cubic.p0, arcs, false};
        for (int k = 0; k <= 400; ++k) {
          const Point p = pointOn(cubic, k / 400.0);
          double off = 1e9;
          for (std::size_t i = 0; i < arcs.size(); ++i) off = std::min(off, distanceTo(pieceOf(path, i), p));
          QVERIFY2(off <= 1.1 * tolerance, qPrintable(QString("%1 of %2").arg(off).arg(tolerance)));
        }
      }
    }
  }
};

RIM_TEST(TestArcSpline)
#include "tst_arc_spline.moc"
