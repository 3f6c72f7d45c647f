#include <QTest>
#include <random>
#include <set>

#include "core/error.h"
#include "core/geometry/coming_near.h"
#include "core/geometry/crossing.h"
#include "core/geometry/flatten.h"
#include "core/trace/outline/outline_crossings.h"
#include "support/test_list.h"

using namespace rim;

namespace {

Polyline square(double x, double y, double side) {
  return {{x, y}, {x + side, y}, {x + side, y + side}, {x, y + side}};
}

bool crossesProperly(Point a, Point b, Point c, Point d) {
  return cross(b - a, c - a) * cross(b - a, d - a) < 0 && cross(d - c, a - c) * cross(d - c, b - c) < 0;
}

/// Every pair of edges compared: slow and plain.
std::set<std::size_t> crossingBruteForce(const std::vector<Polyline>& all) {
  std::set<std::size_t> found;
  for (std::size_t p = 0; p < all.size(); ++p) {
    for (std::size_t q = p; q < all.size(); ++q) {
      for (std::size_t i = 0; i < all[p].size(); ++i) {
        for (std::size_t j = 0; j < all[q].size(); ++j) {
          if (crossesProperly(all[p][i], all[p][(i + 1) % all[p].size()], all[q][j], all[q][(j + 1) % all[q].size()])) {
            found.insert({p, q});
          }
        }
      }
    }
  }
  return found;
}

/// Which polylines cross, ascending.
std::vector<std::size_t> crossingPolylines(const std::vector<Polyline>& all) {
  std::vector<std::size_t> which;
  for (const Crossing& crossing : findCrossings(all, {})) {
    if (which.empty() || which.back() != crossing.polyline) which.push_back(crossing.polyline);
  }
  return which;
}

}  // namespace

class TestCrossing : public QObject {
  Q_OBJECT

 private slots:
  void nestedSquaresDoNotCross() { QVERIFY(crossingPolylines({square(0, 0, 10), square(2, 2, 3)}).empty()); }

  void overlappingSquaresCross() {
    const std::vector<std::size_t> both{0, 1};
    QCOMPARE(crossingPolylines({square(0, 0, 10), square(8, 8, 10), square(30, 30, 1)}), both);
  }

  void touchingCountsAsCrossing() { QCOMPARE(crossingPolylines({square(0, 0, 10), square(10, 2, 3)}).size(), 2U); }

  void aBowTieCrossesItself() { QCOMPARE(crossingPolylines({{{0, 0}, {10, 10}, {10, 0}, {0, 10}}}).size(), 1U); }

  void outAndBackIsAFault() { QCOMPARE(crossingPolylines({{{0, 0}, {10, 0}, {5, 0}, {5, 5}}}).size(), 1U); }

  void agreesWithComparingEveryPair_data() {
    QTest::addColumn<int>("seed");
    for (int seed = 1; seed <= 20; ++seed) QTest::addRow("seed %d", seed) << seed;
  }
  void agreesWithComparingEveryPair() {
    QFETCH(int, seed);
    std::mt19937 random(static_cast<unsigned>(seed));
    std::uniform_real_distribution<double> at(0, 100);
    std::uniform_real_distribution<double> size(0.5, 9);
    std::vector<Polyline> all;
    for (int i = 0; i < 60; ++i) {
      const Point p{at(random), at(random)};
      const double s = size(random);
      all.push_back({p, p + Point{s, at(random) / 50}, p + Point{at(random) / 50, s}});
    }
    const std::vector<std::size_t> fast = crossingPolylines(all);
    QCOMPARE(std::set<std::size_t>(fast.begin(), fast.end()), crossingBruteForce(all));
  }

  void thePlaceIsWhereTheyCross() {
    const std::vector<Crossing> crossings = findCrossings({square(0, 0, 10), square(8, 8, 4)}, {});
    QVERIFY(!crossings.empty());
    for (const Crossing& c : crossings) {
      QVERIFY(std::min(distance(c.place, {10, 8}), distance(c.place, {8, 10})) < 1e-9);
    }
  }

  void comingNearIsWithinReach() {
    const std::vector<Polyline> squares{square(0, 0, 10), square(10.3, 0, 5), square(30, 0, 5), square(31, 1, 2)};
    QVERIFY(comingNear(squares, 0.2, {}).empty());
    using Groups = std::vector<std::vector<std::size_t>>;
    QCOMPARE(comingNear(squares, 0.4, {}), (Groups{{0, 1}}));
    QCOMPARE(comingNear(squares, 1.2, {}), (Groups{{0, 1}, {2, 3}}));
    QCOMPARE(comingNear({squares[0], squares[2], squares[1], squares[3]}, 1.2, {}), (Groups{{0, 2}, {1, 3}}));
    // A long narrow tongue comes near itself; two that cross have no ends near each other.
    QCOMPARE(comingNear({{{0, 0}, {50, 0}, {50, 0.3}, {0, 0.3}}}, 0.4, {}).size(), 1U);
    QCOMPARE(comingNear({{{0, 0}, {50, 0}, {25, 40}}, {{20, -10}, {30, -10}, {25, 20}}}, 0.1, {}), (Groups{{0, 1}}));
  }

  void onlySharpFoldsComeNearThemselves() {
    const auto wedge = [](double degrees) {
      const double half = degrees * M_PI / 360;
      return Polyline{{0, 0}, Point{std::cos(half), std::sin(half)} * 30, Point{std::cos(half), -std::sin(half)} * 30};
    };
    QVERIFY(comingNear({wedge(20)}, 0.1, {}).empty());
    QCOMPARE(comingNear({wedge(0.3)}, 0.1, {}).size(), 1U);
  }

  void whatCrossesComesNear() {
    // Rings of random cubics: whenever their fine chords cross, their wide ones come near.
    std::mt19937 random(11);
    std::uniform_real_distribution<double> at(0, 60);
    std::uniform_real_distribution<double> off(-6, 6);
    std::size_t crossed = 0;
    for (int round = 0; round < 200; ++round) {
      const Point a{at(random), at(random)};
      const auto around = [&](Point p) { return a + p + Point{off(random), off(random)}; };
      const Point start = around({0, 0});
      const Path path{start,
                      {Segment::cubic(around({10, 0}), around({20, 0}), around({20, 10})),
                       Segment::cubic(around({20, 15}), around({10, 20}), around({5, 15})), Segment::line(start)},
                      true};
      constexpr double kWide = 0.05;
      if (findCrossings({flatten(path, 0.001)}, {}).empty()) continue;
      ++crossed;
      QCOMPARE(comingNear({flatten(path, kWide)}, 2 * kWide, {}).size(), 1U);
    }
    QVERIFY2(crossed > 10, qPrintable(QString::number(crossed)));
  }

  void aLoopAtTheTipOfANeedleIsSeen() {
    // The curve leaves the line's end on its wrong side and crosses it 0.15 px on; it lies 0.0012 px beyond it there.
    const Point tip{411.811, 278.716};
    const Point foot{437.949, 292.531};
    const Point along = unit(foot - tip);
    const auto beside = [&](double way, double off) { return tip + along * way + leftNormal(along) * off; };
    const auto path = [&](double off) {
      return Path{
          tip,
          {Segment::cubic(beside(3, off), beside(10, 6), beside(20, 12)), Segment::line(foot), Segment::line(tip)},
          true};
    };
    QVERIFY(trace::outline::OutlineCrossings({path(0.5)}).find({}).empty());
    QVERIFY(findCrossings({flatten(path(-0.1), 0.002)}, {}).empty());
    const auto found = trace::outline::OutlineCrossings({path(-0.1)}).find({});
    QVERIFY(!found.empty());
    QVERIFY(distance(found.front().place, tip) < 1);
  }

  void outlinesThatChangeAreLookedAtAnew() {
    const Path large{{0, 0}, {Segment::line({10, 0}), Segment::line({10, 10}), Segment::line({0, 0})}, true};
    const Path away{{20, 0}, {Segment::line({30, 0}), Segment::line({30, 10}), Segment::line({20, 0})}, true};
    const Path across{{5, -5}, {Segment::line({8, -5}), Segment::line({8, 5}), Segment::line({5, -5})}, true};
    std::vector<Path> outlines{large, away};
    trace::outline::OutlineCrossings crossings(outlines);
    QVERIFY(crossings.find({}).empty());
    outlines[1] = across;
    crossings.changed(1);
    QVERIFY(crossings.find({}).size() >= 2);
    outlines[1] = away;
    crossings.changed(1);
    QVERIFY(crossings.find({}).empty());
  }

  void outlinesFarApartAreBothNamed() {
    const auto bow = [](double x) {
      return Path{{x, 0},
                  {Segment::line({x + 9, 9}), Segment::line({x + 9, 0}), Segment::line({x, 9}), Segment::line({x, 0})},
                  true};
    };
    const Path plain{{50, 0}, {Segment::line({60, 0}), Segment::line({60, 10}), Segment::line({50, 0})}, true};
    std::vector<std::size_t> named;
    for (const Crossing& crossing : trace::outline::OutlineCrossings({bow(100), plain, bow(0)}).find({}))
      named.push_back(crossing.polyline);
    QCOMPARE(named, (std::vector<std::size_t>{0, 2}));
  }

  void stopsWhenAsked() {
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, findCrossings({square(0, 0, 10)}, stop.get_token()));
    QVERIFY_THROWS_EXCEPTION(Cancelled, comingNear({square(0, 0, 10)}, 0.1, stop.get_token()));
  }
};

RIM_TEST(TestCrossing)
#include "tst_crossing.moc"
