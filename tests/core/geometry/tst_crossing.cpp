#include <QTest>
#include <random>
#include <set>

#include "core/error.h"
#include "core/geometry/crossing.h"

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

  void stopsWhenAsked() {
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, findCrossings({square(0, 0, 10)}, stop.get_token()));
  }
};

QTEST_APPLESS_MAIN(TestCrossing)
#include "tst_crossing.moc"
