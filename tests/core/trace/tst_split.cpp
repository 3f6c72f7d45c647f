// Splitting a border into lines and arcs: breakpoint candidates, the optimum among them, and the sums that both rest
// on.

#include <QTest>
#include <array>
#include <random>

#include "core/error.h"
#include "core/trace/split/breakpoint_candidates.h"
#include "core/trace/split/split.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

/// Points about a px apart along a closed polygon, moved by noise.
trace::contour::Border pointsAlong(const std::vector<Point>& corners, double noisePx, unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> off(0, noisePx);
  trace::contour::Border border;
  for (std::size_t k = 0; k < corners.size(); ++k) {
    const Point a = corners[k];
    const Point b = corners[(k + 1) % corners.size()];
    const int steps = static_cast<int>(distance(a, b));
    for (int i = 0; i < steps; ++i)
      border.push_back(lerp(a, b, (i + 0.5) / steps) + leftNormal(unit(b - a)) * off(random));
  }
  return border;
}

/// A stadium: two half circles of this radius joined by lines of this length.
trace::contour::Border stadium(double radius, double straight, double noisePx, unsigned seed) {
  std::vector<Point> corners;
  constexpr int kSteps = 180;
  for (int side = 0; side < 2; ++side) {
    for (int i = 0; i <= kSteps; ++i) {
      const double angle = std::numbers::pi * (i / static_cast<double>(kSteps) + side) - std::numbers::pi / 2;
      corners.push_back(Point{side == 0 ? straight : 0, 0} + Point{std::cos(angle), std::sin(angle)} * radius);
    }
  }
  // The corners lie closer than a px: points are put along the whole way.
  const trace::split::Track way(corners, 0);
  std::mt19937 random(seed);
  std::normal_distribution<double> off(0, noisePx);
  trace::contour::Border border;
  for (double at = 0; at < way.length(); at += 1) {
    const std::size_t i = std::max<std::size_t>(1, way.indexAt(at));
    const double share = (at - way.arcLength(i - 1)) / std::max(1e-9, way.arcLength(i) - way.arcLength(i - 1));
    const Point across = leftNormal(unit(way.point(i) - way.point(i - 1)));
    border.push_back(lerp(way.point(i - 1), way.point(i), share) + across * off(random));
  }
  return border;
}

/// A star, whose sides are lines, and a stadium; both other ones for another seed.
std::array<trace::contour::Border, 2> starAndStadium(double noisePx, unsigned seed) {
  return {pointsAlong(starCorners(100, 100, 5, 80, 35, 0.1 * seed), noisePx, seed),
          stadium(20 + 4.0 * seed, 60, noisePx, seed)};
}

/// The sum of misfits and prices, as splitTrack() adds them up, of pieces that meet without gaps or with them.
double priceOf(const trace::split::Track& track, const std::vector<trace::split::TrackPiece>& pieces,
               const trace::split::SplitLimits& limits) {
  double price = 0;
  for (const trace::split::TrackPiece& piece : pieces) {
    const auto [from, to] = track.within(piece.from, piece.to, limits.trimPx);
    price += trace::split::priceOfPiece(trace::fit::momentsOf(track.points(from, to)),
                                        track.arcLength(piece.to) - track.arcLength(piece.from), limits);
  }
  return price;
}

/// The same with the points that no piece follows: one each within a trim, and three each and one in all in a gap.
double fullPriceOf(const trace::split::Track& track, const std::vector<trace::split::TrackPiece>& pieces,
                   const trace::split::SplitLimits& limits) {
  double price = priceOf(track, pieces, limits);
  std::size_t end = 0;
  for (const trace::split::TrackPiece& piece : pieces) {
    const auto [from, to] = track.within(piece.from, piece.to, limits.trimPx);
    price += static_cast<double>(piece.to - piece.from - (to - from));
    if (piece.from > end) price += 1 + 3 * static_cast<double>(piece.from - end);
    end = piece.to;
  }
  return end < track.last() ? price + 1 + 3 * static_cast<double>(track.last() - end) : price;
}

bool near(const std::vector<std::size_t>& breaks, std::size_t place, std::size_t count, std::size_t reach) {
  return std::any_of(breaks.begin(), breaks.end(), [&](std::size_t at) {
    const std::size_t off = at > place ? at - place : place - at;
    return std::min(off, count - off) <= reach;
  });
}

}  // namespace

class TestSplit : public QObject {
  Q_OBJECT

 private slots:
  void theMeanSquareOfACircleIsKnownWithoutIt() {
    std::mt19937 random(3);
    std::normal_distribution<double> off(0, 0.05);
    for (const double sweep : {0.2, 1.0, 3.0, 6.2}) {
      for (const double radius : {4.0, 60.0}) {
        trace::contour::Border arc;
        for (int i = 0; i < 40; ++i) {
          const double angle = sweep * i / 40;
          arc.push_back(Point{300, 200} + Point{std::cos(angle), std::sin(angle)} * (radius + off(random)));
        }
        const trace::fit::Moments m = trace::fit::momentsOf(arc);
        const double square = trace::fit::circleMeanSquare(m);
        QVERIFY(std::abs(trace::fit::circleFrom(m)->meanSquare - square) < 2e-5 * square);
        QVERIFY(distance(trace::fit::circleFrom(m, square)->centre, trace::fit::circleFrom(m)->centre) < 1e-3 * radius);
        const double seen = trace::fit::circleMeanSquare(m, square / 2);
        QVERIFY(seen > square / 2 && seen <= square);
        QCOMPARE(trace::fit::circleMeanSquare(m, 2 * square), square);
      }
    }
  }

  void noPointsOffACircleAreOffByNoNumber() {
    // Rounding must not make a square less than nothing.
    for (int from = 0; from < 320; from += 7) {
      trace::contour::Border arc;
      for (int i = from; i < from + 8; ++i) {
        const double angle = 2 * std::numbers::pi * i / 320;
        arc.push_back(Point{std::cos(angle), std::sin(angle)} * 60);
      }
      const double square = trace::fit::circleMeanSquare(trace::fit::momentsOf(arc));
      QVERIFY(square >= 0 && square < 1e-12);
    }
  }

  void sumsOfTwoRangesAreThoseOfAll() {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> place(0, 3000);
    for (int round = 0; round < 50; ++round) {
      const Point a{place(random), place(random)};
      std::vector<Point> points;
      for (int i = 0; i < 24; ++i) points.push_back(a + Point{place(random), place(random)} * 0.01);
      trace::fit::MomentSums first(points.front());
      trace::fit::MomentSums second(points[9]);
      for (std::size_t i = 0; i < points.size(); ++i) (i < 9 ? first : second).add(points[i]);
      first.add(second);
      const trace::fit::Moments sum = first.central();
      const trace::fit::Moments all = trace::fit::momentsOf(points);
      QCOMPARE(sum.count, all.count);
      QVERIFY(distance(sum.mean, all.mean) < 1e-9);
      for (const auto& [x, y] : {std::pair{sum.xx, all.xx},
                                 {sum.yy, all.yy},
                                 {sum.xy, all.xy},
                                 {sum.xz, all.xz},
                                 {sum.yz, all.yz},
                                 {sum.zz, all.zz}})
        QVERIFY2(std::abs(x - y) <= 1e-8 * (1 + std::abs(y)), qPrintable(QString("%1 %2").arg(x).arg(y)));
    }
  }

  void cornersAreBreakpointCandidates() {
    for (const double noise : {0.0, 0.03, 0.1}) {
      const trace::split::SplitLimits limits{std::max(0.02, noise), 1.2};
      const auto corners = starCorners(200, 200, 7, 150, 80, 0.3);
      const trace::contour::Border border = pointsAlong(corners, noise, 4);
      const trace::split::Track track(border, 0);
      const auto breaks = trace::split::breakpointCandidates(track, limits);
      QVERIFY(std::is_sorted(breaks.begin(), breaks.end()));
      QVERIFY2(breaks.size() >= 14 && breaks.size() <= 3 * 14, qPrintable(QString::number(breaks.size())));
      std::size_t at = 0;
      for (std::size_t k = 0; k < corners.size(); ++k) {
        QVERIFY2(near(breaks, at, border.size(), 4), qPrintable(QString("corner %1, noise %2").arg(k).arg(noise)));
        at += static_cast<std::size_t>(distance(corners[k], corners[(k + 1) % corners.size()]));
      }
    }
  }

  void noBreakWherePiecesGoOn() {
    // The track starts in the middle of a line: that is no break.
    const trace::contour::Border border = pointsAlong({{0, 0}, {200, 0}, {200, 100}, {0, 100}}, 0, 1);
    const trace::split::Track track(border, 100);
    const auto breaks = trace::split::breakpointCandidates(track, {0.02, 1.2});
    QVERIFY(!near(breaks, 0, border.size(), 40));
    QVERIFY(breaks.size() >= 4 && breaks.size() <= 8);
  }

  void noPieceEndsBetterElsewhere() {
    for (unsigned seed = 1; seed <= 12; ++seed) {
      const double noise = 0.03 * seed;
      const trace::split::SplitLimits limits{std::max(0.02, noise), 1.2};
      for (const trace::contour::Border& border : starAndStadium(noise, seed)) {
        const trace::split::Track track(border, 10);
        const auto pieces = trace::split::splitTrack(track, limits, {});
        QVERIFY(pieces.size() > 1);
        const double price = fullPriceOf(track, pieces, limits);
        for (std::size_t k = 0; k + 1 < pieces.size(); ++k) {
          auto one = pieces;
          one[k].to = one[k + 1].to;
          one.erase(one.begin() + static_cast<std::ptrdiff_t>(k) + 1);
          QVERIFY2(fullPriceOf(track, one, limits) > price - 1e-9, "two pieces had better be one");
          for (const int off : {-9, -4, -3, -2, -1, 1, 2, 3, 4, 9}) {
            auto moved = pieces;
            moved[k].to += static_cast<std::size_t>(off);
            moved[k + 1].from += static_cast<std::size_t>(off);
            if (moved[k].to <= moved[k].from + 3 || moved[k + 1].from + 3 >= moved[k + 1].to) continue;
            QVERIFY2(fullPriceOf(track, moved, limits) > price - 1e-9,
                     qPrintable(QString("seed %1, piece %2 had better end %3 on").arg(seed).arg(k).arg(off)));
          }
        }
      }
    }
  }

  /// Every way to part a short track into one, two or three pieces is tried, with gaps between them and without.
  void noneOfAllWaysCostsLess() {
    for (unsigned seed = 1; seed <= 6; ++seed) {
      const double noise = 0.03 * seed;
      const trace::split::SplitLimits limits{std::max(0.02, noise), 1.2};
      // A bent line: two sides and an arc of a triangle's way round, some 40 points.
      std::vector<Point> points = pointsAlong({{0, 0}, {16, 3.0 * seed}, {30, 0}, {14, -2}}, noise, seed);
      points.resize(std::min<std::size_t>(points.size(), 40));
      const trace::split::Track track = trace::split::Track::open(points);
      const double price = fullPriceOf(track, trace::split::splitTrack(track, limits, {}), limits);
      double least = std::numeric_limits<double>::infinity();
      const auto consider = [&](const std::vector<trace::split::TrackPiece>& pieces) {
        for (const trace::split::TrackPiece& piece : pieces) {
          if (piece.to < piece.from + 4) return;
        }
        least = std::min(least, fullPriceOf(track, pieces, limits));
      };
      consider({{0, track.last(), {}}});
      for (std::size_t a = 4; a + 4 < track.last(); ++a) {
        for (std::size_t b = a; b < a + 6 && b + 4 <= track.last(); ++b) {
          consider({{0, a, {}}, {b, track.last(), {}}});
          for (std::size_t c = b + 4; c + 4 <= track.last(); ++c) {
            for (std::size_t d = c; d < c + 6 && d + 4 <= track.last(); ++d)
              consider({{0, a, {}}, {b, c, {}}, {d, track.last(), {}}});
          }
        }
      }
      QVERIFY2(price <= least + 1e-9, qPrintable(QString("seed %1: %2 and not %3").arg(seed).arg(price).arg(least)));
      QVERIFY2(least < price + 2, "what was tried is what is looked for");
    }
  }

  void theChoiceAmongCandidatesCostsHardlyMore() {
    double among = 0;
    double everywhere = 0;
    for (unsigned seed = 1; seed <= 8; ++seed) {
      const double noise = 0.02 * seed;
      const trace::split::SplitLimits limits{std::max(0.02, noise), 1.2};
      for (const trace::contour::Border& border : starAndStadium(noise, seed)) {
        const trace::split::Track track(border, 10);
        const auto few = trace::split::splitAmong(track, trace::split::breakpointCandidates(track, limits), limits, {});
        const auto all = trace::split::splitTrack(track, limits, {});
        QVERIFY(few.size() <= all.size() + 1);
        among += priceOf(track, few, limits);
        everywhere += priceOf(track, all, limits);
      }
    }
    QVERIFY2(among < 1.03 * everywhere, qPrintable(QString("%1 against %2").arg(among).arg(everywhere)));
  }

  void aStadiumIsLinesAndArcs() {
    const trace::contour::Border border = stadium(40, 120, 0.03, 3);
    const trace::split::Track track(border, 220);
    const trace::split::SplitLimits limits{0.03, 1.2};
    const auto pieces = trace::split::splitAmong(track, trace::split::breakpointCandidates(track, limits), limits, {});
    QVERIFY2(pieces.size() >= 4 && pieces.size() <= 5, qPrintable(QString::number(pieces.size())));
    for (const trace::split::TrackPiece& piece : pieces) {
      if (piece.primitive.kind == trace::fit::Primitive::Kind::Circle)
        QVERIFY2(std::abs(std::abs(piece.primitive.radius) - 40) < 0.1,
                 qPrintable(QString::number(piece.primitive.radius)));
    }
  }

  void stopsWhenAsked() {
    const trace::split::Track track(pointsAlong(starCorners(200, 200, 7, 150, 80, 0.3), 0.02, 4), 0);
    const trace::split::SplitLimits limits{0.02, 1.2};
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(
        Cancelled,
        trace::split::splitAmong(track, trace::split::breakpointCandidates(track, limits), limits, stop.get_token()));
  }

  void shortAndEvenTracks() {
    const trace::split::SplitLimits limits{0.02, 1.2};
    for (const std::size_t count : {3U, 4U, 5U, 7U, 10U}) {
      std::vector<Point> points;
      for (std::size_t i = 0; i < count; ++i)
        points.push_back({static_cast<double>(i), 0.01 * static_cast<double>(i % 2)});
      const trace::split::Track open = trace::split::Track::open(points);
      const auto pieces = trace::split::splitAmong(open, trace::split::breakpointCandidates(open, limits), limits, {});
      for (const trace::split::TrackPiece& piece : pieces) QVERIFY(piece.from < piece.to && piece.to < count);
      const trace::split::Track closed(points, 0);
      for (const std::size_t at : trace::split::breakpointCandidates(closed, limits)) QVERIFY(at < count);
    }
  }
};

RIM_TEST(TestSplit)
#include "tst_split.moc"
