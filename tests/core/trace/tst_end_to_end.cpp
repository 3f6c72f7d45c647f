// Lines of a pen that end at one place are one move.

#include <QTest>

#include "core/trace/lines/end_to_end.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::trace::lines;

namespace {

StrokeLine lineOf(const std::vector<Point>& corners, double width = 6) {
  constexpr int kParts = 40;
  StrokeLine line;
  for (std::size_t i = 1; i < corners.size(); ++i) {
    for (int k = i == 1 ? 0 : 1; k <= kParts; ++k)
      line.points.push_back(lerp(corners[i - 1], corners[i], static_cast<double>(k) / kParts));
  }
  line.widths = {width};
  return line;
}

/// Whether a line runs through all of the places, in this order or the other way round.
bool runsThrough(const StrokeLine& line, std::vector<Point> places) {
  const auto inOrder = [&] {
    std::size_t next = 0;
    for (const Point p : line.points) {
      if (next < places.size() && distance(p, places[next]) < 0.6) ++next;
    }
    return next == places.size();
  };
  if (inOrder()) return true;
  std::reverse(places.begin(), places.end());
  return inOrder();
}

}  // namespace

class TestEndToEnd : public QObject {
  Q_OBJECT

 private slots:
  void twoThatMeetAtACornerAreOne() {
    for (const bool turned : {false, true}) {
      StrokeLine other = lineOf({{50, 0.4}, {50, 40}});
      if (turned) std::reverse(other.points.begin(), other.points.end());
      const auto lines = endToEnd({lineOf({{0, 0}, {50, 0}}), other});
      QCOMPARE(lines.size(), 1U);
      QVERIFY(!lines.front().closed);
      QVERIFY(runsThrough(lines.front(), {{0, 0}, {50, 0.2}, {50, 40}}));
      QCOMPARE(lines.front().widths.size(), 2U);
    }
  }

  void ofThreeTheTwoThatGoOnStraightestAre() {
    const auto lines = endToEnd({lineOf({{0, 0}, {50, 0}}), lineOf({{50, 0}, {60, 40}}), lineOf({{50, 0}, {100, 5}})});
    QCOMPARE(lines.size(), 2U);
    QVERIFY(runsThrough(lines.front(), {{0, 0}, {50, 0}, {100, 5}}));
  }

  void aTriangleIsClosed() {
    const auto lines = endToEnd({lineOf({{0, 0}, {50, 0}}), lineOf({{25, 40}, {50, 0}}), lineOf({{25, 40}, {0, 0}})});
    QCOMPARE(lines.size(), 1U);
    QVERIFY(lines.front().closed);
    QVERIFY(distance(lines.front().points.front(), lines.front().points.back()) > 0.1);
  }

  void aChainOfManyKeepsItsOrder() {
    std::vector<StrokeLine> links;
    std::vector<Point> all{{0, 0}};
    for (int i = 0; i < 9; ++i) {
      const Point next = all.back() + (i % 2 == 0 ? Point{20, 4} : Point{3, 20});
      links.push_back(lineOf(i % 3 == 0 ? std::vector{next, all.back()} : std::vector{all.back(), next}));
      all.push_back(next);
    }
    std::swap(links[1], links[7]);
    const auto lines = endToEnd(links);
    QCOMPARE(lines.size(), 1U);
    QVERIFY(runsThrough(lines.front(), all));
  }

  void whatOnlyEndsOnAnotherStays() {
    QCOMPARE(endToEnd({lineOf({{0, 0}, {100, 0}}), lineOf({{50, 0}, {50, 40}})}).size(), 2U);
    // Beside itself, and too far away.
    QCOMPARE(endToEnd({lineOf({{0, 0}, {50, 0}}), lineOf({{50, 0}, {0, 3}})}).size(), 2U);
    QCOMPARE(endToEnd({lineOf({{0, 0}, {50, 0}}), lineOf({{52, 0}, {90, 0}})}).size(), 2U);
    // A short stroke that curls is no ring.
    QVERIFY(!endToEnd({lineOf({{0, 0}, {4, 3}, {4, -3}, {0, 0.2}})}).front().closed);
  }

  void endsAtAreasStay() {
    StrokeLine a = lineOf({{0, 0}, {50, 0}});
    StrokeLine b = lineOf({{50, 0}, {50, 40}});
    a.freeEnds[1] = FreeEnd{};
    a.freeEnds[1]->atArea = true;
    QCOMPARE(endToEnd({a, b}).size(), 2U);
    QVERIFY(endToEnd({}).empty());
  }
};

RIM_TEST(TestEndToEnd)
#include "tst_end_to_end.moc"
