// Decisions about findings, one by one.

#include <QTest>
#include <algorithm>
#include <set>

#include "core/mend/decide.h"
#include "core/mend/find/inspect.h"
#include "core/mend/repair/join.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

std::set<mend::FindingKind> kindsOf(const std::vector<mend::Finding>& findings) {
  std::set<mend::FindingKind> kinds;
  for (const mend::Finding& f : findings) kinds.insert(f.kind);
  return kinds;
}

/// A drawing with at least one fault of nearly every kind.
Drawing broken(unsigned seed) {
  std::mt19937 random(seed);
  Drawing d = withDirt(withDoubles(withGaps(takenApart(plate(random), random), 0.4, random), random), random);
  const Drawing whole = plate(random);
  add(d, polygonThrough({{150, 0}, {170, 0}, {160, 18}, {172, 12}, {147, 11}}));  // bow-tie
  add(d, polygonThrough({{150, 30},
                         {170, 30},
                         {170, 35.2},
                         {170.4, 35.2},
                         {170.4, 34.9},
                         {169.8, 34.9},
                         {170, 40},
                         {162, 40},
                         {162, 44},
                         {162, 40},
                         {150, 40}}));                                                  // loop, spike
  add(d, polygonThrough({{150, 50}, {170, 50}, {170, 50.001}, {170, 60}, {150, 60}}));  // node
  add(d, circlePath({160, 70}, 4.13));                                                  // stroke
  add(d, circlePath({160, 70}, 3.9));
  add(d, polygonThrough({{180, 30}, {190, 30}, {190, 40}, {180, 40}}));  // a common border
  add(d, polygonThrough({{190, 32}, {196, 32}, {196, 50}, {190, 50}}));
  add(d, circlePath({180, 70}, 0.1));  // speck
  add(d, circlePath({900, 70}, 2));    // stray
  return d;
}

}  // namespace

class TestDecide : public QObject {
  Q_OBJECT

 private slots:
  void theBrokenDrawingHasFaultsOfManyKinds() {
    const auto kinds = kindsOf(mend::inspect(broken(1), {}));
    for (const mend::FindingKind kind :
         {mend::FindingKind::OpenEnd, mend::FindingKind::DoubleLine, mend::FindingKind::StrokePair,
          mend::FindingKind::SelfCrossing, mend::FindingKind::Loop, mend::FindingKind::CoincidentNode,
          mend::FindingKind::ZeroLength, mend::FindingKind::Spike, mend::FindingKind::Speck,
          mend::FindingKind::Stray}) {
      QVERIFY2(kinds.count(kind) == 1, mend::nameOf(kind).c_str());
    }
  }

  void everyRepairDoesAwayWithItsFindingAndMakesNoneOfAnotherKind() {
    for (unsigned seed = 1; seed <= 3; ++seed) {
      const Drawing drawing = broken(seed);
      const auto before = mend::inspect(drawing, {});
      const auto kinds = kindsOf(before);
      for (const mend::Finding& f : before) {
        for (const std::string& repair : mend::repairsFor(f)) {
          const Drawing changed = mend::repaired(drawing, f, repair, {});
          // No end may be within reach of a line that crosses nothing; then nothing is done.
          if (repair == "nearest" && pathsOf(changed) == pathsOf(drawing)) continue;
          const mend::MendStep step = mend::stepFor(drawing, f, mend::MendStep::What::One, repair);
          const auto after = mend::withoutLeft(mend::inspect(changed, {}), changed, {{}, {step}});
          const QString where = QString("seed %1: %2 by %3 at %4, %5")
                                    .arg(seed)
                                    .arg(mend::nameOf(f.kind).c_str(), repair.c_str())
                                    .arg(f.at.x)
                                    .arg(f.at.y);
          for (const mend::FindingKind kind : kindsOf(after)) {
            QVERIFY2(kinds.count(kind) == 1, qPrintable(where + " makes a " + mend::nameOf(kind).c_str()));
          }
          // A long line that went out and back ends freely at its tip.
          const std::size_t tips = f.kind == mend::FindingKind::Spike && repair == "one" ? 1 : 0;
          QVERIFY2(after.size() <= before.size() + tips, qPrintable(where));
          // Where lines lie twice, several findings may be alike.
          const auto alike = [&f](const mend::Finding& g) {
            return g.kind == f.kind && g.at == f.at && mend::sentenceOf(g) == mend::sentenceOf(f);
          };
          QVERIFY2(
              std::count_if(after.begin(), after.end(), alike) < std::count_if(before.begin(), before.end(), alike),
              qPrintable(where + " is still there"));
        }
      }
    }
  }

  void allOfAKindGoAtOnce() {
    const Drawing drawing = broken(4);
    for (const mend::Finding& f : mend::inspect(drawing, {})) {
      for (const std::string& repair : mend::repairsFor(f)) {
        if (repair == "nearest" || f.kind == mend::FindingKind::OpenEnd) continue;
        const mend::MendStep step{mend::MendStep::What::Kind, f.kind, f.at, repair};
        const Drawing changed = mend::repairedAll(drawing, f.kind, repair, {});
        for (const mend::Finding& g : mend::withoutLeft(mend::inspect(changed, {}), changed, {{}, {step}})) {
          const auto offered = mend::repairsFor(g);
          const bool again = std::find(offered.begin(), offered.end(), repair) != offered.end();
          QVERIFY2(g.kind != f.kind || !again, (mend::nameOf(f.kind) + " by " + repair).c_str());
        }
      }
    }
  }

  void whatIsSafeCannotBeSeen() {
    const Drawing drawing = broken(5);
    const Drawing safe = mend::repairedSafely(drawing, {});
    const auto kinds = kindsOf(mend::inspect(safe, {}));
    QVERIFY(kinds.count(mend::FindingKind::ZeroLength) == 0 && kinds.count(mend::FindingKind::CoincidentNode) == 0);
    // The loop of 0.5 mm, the spike of 4 mm, the stray and the bow-tie are for a person to decide.
    for (const mend::FindingKind kind :
         {mend::FindingKind::Loop, mend::FindingKind::Spike, mend::FindingKind::Stray, mend::FindingKind::SelfCrossing})
      QVERIFY2(kinds.count(kind) == 1, mend::nameOf(kind).c_str());
    QVERIFY(boxOf(pathsOf(safe)).width() == boxOf(pathsOf(drawing)).width());
  }

  void gapsThatCanBeSeenAreNotClosedSafely() {
    std::mt19937 random(6);
    const Drawing drawing = withGaps(takenApart(plate(random), random), 0.45, random);
    const auto wide = [](const Drawing& d) {
      const auto findings = mend::inspect(d, {});
      return std::count_if(findings.begin(), findings.end(), [](const mend::Finding& f) { return f.sizeMm > 0.1; });
    };
    QVERIFY(wide(drawing) > 3);
    QCOMPARE(wide(mend::repairedSafely(drawing, {})), wide(drawing));
    const auto left = mend::inspect(mend::repairedSafely(drawing, {}), {});
    QVERIFY(std::all_of(left.begin(), left.end(), [](const mend::Finding& f) { return f.sizeMm > 0.1; }));
  }

  void decisionsAreMadeAnewInOrder() {
    Drawing drawing;
    setPaths(drawing, {linePath({0, 0}, {10, 0}), linePath({10.3, 0}, {10.3, 10}), linePath({10.3, 10}, {0, 10}),
                       linePath({0, 10}, {0, 0})});
    mend::MendWork work;
    work.steps = {{mend::MendStep::What::Safe, {}, {}, {}},
                  {mend::MendStep::What::One, mend::FindingKind::OpenEnd, {10.2, 0}, "join"},
                  {mend::MendStep::What::One, mend::FindingKind::OpenEnd, {500, 500}, "join"}};  // nothing is there
    const mend::Decided result = mend::decided(drawing, work);
    QVERIFY2(result.lost == std::vector<std::size_t>{2}, "what finds nothing is told");
    const auto told = mend::lostDecisions(result.drawing, work, result.lost);
    QVERIFY(told.size() == 1 && told[0].at == (Point{500, 500}));
    const Drawing& got = result.drawing;
    QCOMPARE(got.outlines.size(), 1U);
    QVERIFY(got.path(0).closed);
    QVERIFY(std::abs(signedArea(got.path(0)) - 103) < 0.01);
    const Drawing undecided = mend::decided(drawing, {}).drawing;
    QVERIFY(pathsOf(undecided) == pathsOf(drawing));
  }

  /// Two parts beside each other, each open by a gap; the gap of the right one is to be joined.
  void aDecisionStaysWithItsOutline() {
    const auto open = [](double x, double side, double gap) {
      Path path = polygonThrough({{x, 0}, {x + side, 0}, {x + side, side}, {x, side}});
      path.closed = false;
      path.segments.back().end = {x, gap};
      return path;
    };
    const Drawing drawing = makeDrawing({open(0, 10, 0.3), open(10.6, 20, 0.3)});
    const auto findings = mend::inspect(drawing, {});
    QCOMPARE(findings.size(), 2U);
    mend::MendWork work;
    work.steps = {mend::stepFor(drawing, findings[1], mend::MendStep::What::One, "join")};
    const auto openOnes = [&work](const Drawing& d) {
      const mend::Decided got = mend::decided(d, work);
      QString text = got.lost.empty() ? "" : "lost ";
      for (std::size_t i = 0; i < got.drawing.outlines.size(); ++i)
        if (!got.drawing.path(i).closed) text += QString::number(i);
      return text;
    };
    QCOMPARE(openOnes(drawing), QString("0"));
    // The same outlines in another order, and on a drawing that is as many units large as it likes.
    QCOMPARE(openOnes(makeDrawing({drawing.path(1), drawing.path(0)})), QString("1"));
    // What lies above changed: both outlines are others by a little; the place and the area tell which is meant.
    QCOMPARE(openOnes(makeDrawing({open(0.02, 10, 0.25), open(10.62, 20.05, 0.25)})), QString("0"));
    // It is gone, and its neighbour is far smaller: nothing is repaired in its stead, and that is told.
    QCOMPARE(openOnes(makeDrawing({open(10.2, 10, 0.3)})), QString("lost 0"));
    QCOMPARE(openOnes(makeDrawing({open(60, 20, 0.3)})), QString("lost 0"));
  }

  void whatWasLeftIsListedNoMore() {
    Drawing drawing;
    setPaths(drawing, {circlePath({28, 0}, 0.1), circlePath({52, 0}, 0.1), circlePath({40, 0}, 5)});
    const auto all = mend::inspect(drawing, {});
    QCOMPARE(all.size(), 2U);
    const auto rest =
        mend::withoutLeft(all, drawing, {{}, {{mend::MendStep::What::Leave, mend::FindingKind::Speck, {52, 0}, {}}}});
    QCOMPARE(rest.size(), 1U);
    QVERIFY(rest[0].at.x < 29);
  }

  void lonelyEndsAreJoinedHoweverFar() {
    Drawing drawing;
    setPaths(drawing, {linePath({0, 0}, {10, 0}), linePath({10, 3}, {0, 3})});
    const auto findings = mend::inspect(drawing, {});
    QCOMPARE(findings.size(), 4U);
    QVERIFY(QString::fromStdString(mend::sentenceOf(findings[0])).contains("3.00 mm away"));
    QCOMPARE(mend::repaired(drawing, findings[0], "nearest", {}).outlines.size(), 1U);
  }

  void aFarJoinCrossesNothing() {
    Drawing drawing;
    setPaths(drawing, {linePath({0, 0}, {10, 0}), linePath({20, 2}, {30, 2}), linePath({12, 6}, {30, 6})});
    const auto nearest = [&drawing] {
      const auto findings = mend::inspect(drawing, {});
      const auto at = std::find_if(findings.begin(), findings.end(), [](const mend::Finding& f) {
        return f.at == Point{10, 0};
      });
      return mend::repaired(drawing, *at, "nearest", {});
    };
    // Between the end and its nearest partner stands an outline: the next one is taken.
    QCOMPARE(nearest().path(0).segments.back().end, (Point{30, 6}));
    add(drawing, polygonThrough({{10.5, 3}, {15, 3}, {15, 4}, {10.5, 4}}));
    const Point end = nearest().path(0).segments.back().end;
    QVERIFY2(end == (Point{30, 2}), qPrintable(QString("%1 %2").arg(end.x).arg(end.y)));
    // All round it: there is no way.
    add(drawing, circlePath({5, 0}, 6));
    const Drawing same = nearest();
    QVERIFY(pathsOf(same) == pathsOf(drawing));
  }

  void aCommonBorderIsDrawnOnceOrTwice() {
    Drawing drawing;
    for (int i = 0; i < 3; ++i) {
      for (int j = 0; j < 2; ++j) {
        const double x = 10 * i;
        const double y = 8 * j;
        add(drawing, polygonThrough({{x, y}, {x + 10, y}, {x + 10, y + 8}, {x, y + 8}}));
      }
    }
    const auto findings = mend::inspect(drawing, {});
    QCOMPARE(findings.size(), 7U);
    QVERIFY(mend::repairsFor(findings[0]) == (std::vector<std::string>{"once", "twice"}));
    QCOMPARE(totalLength(pathsOf(drawing)), 216.0);
    // Three rows of 30 mm and four columns of 16 mm.
    const Drawing once = mend::repairedAll(drawing, mend::FindingKind::DoubleLine, "once", {});
    QCOMPARE(totalLength(pathsOf(once)), 154.0);
    QVERIFY(mend::inspect(mend::joinEnds(once, {}).drawing, {}).empty());
    const Drawing one = mend::repaired(drawing, findings[0], "once", {});
    QCOMPARE(totalLength(pathsOf(one)), 216 - findings[0].sizeMm);
    QCOMPARE(mend::inspect(one, {}).size(), 6U);
    const auto twice = [&](mend::MendStep::What what) {
      return mend::withoutLeft(findings, drawing, {{}, {mend::stepFor(drawing, findings[0], what, "twice")}}).size();
    };
    QCOMPARE(twice(mend::MendStep::What::One), 6U);
    QCOMPARE(twice(mend::MendStep::What::Kind), 0U);
    const Drawing kept = mend::repairedAll(drawing, mend::FindingKind::DoubleLine, "twice", {});
    QVERIFY(pathsOf(kept) == pathsOf(drawing));
  }
};

RIM_TEST(TestDecide)
#include "tst_decide.moc"
