// Decisions and refining that go on from what is known come to the same as all of it done again; and what refining
// breaks is told.

#include <QTest>
#include <algorithm>
#include <random>

#include "core/job/faults.h"
#include "core/job/stages.h"
#include "core/mend/decide.h"
#include "core/mend/find/inspect.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

Drawing spoilt(std::mt19937& random) {
  const Drawing whole = plate(random);
  return withDirt(withDoubles(withGaps(takenApart(whole, random), 0.4, random), random), random);
}

QStringList textsOf(const std::vector<mend::Finding>& findings) {
  QStringList texts;
  for (const mend::Finding& f : findings) {
    texts << QStringLiteral("%1 %2,%3 %4")
                 .arg(QString::fromStdString(mend::nameOf(f.kind)))
                 .arg(f.at.x, 0, 'f', 9)
                 .arg(f.at.y, 0, 'f', 9)
                 .arg(QString::fromStdString(mend::sentenceOf(f)));
  }
  return texts;
}

/// Something that a person might decide next about what was found.
mend::MendStep nextStep(const Drawing& drawing, const std::vector<mend::Finding>& findings, std::mt19937& random) {
  const mend::Finding& f = findings[random() % findings.size()];
  const std::vector<std::string> repairs = mend::repairsFor(f);
  mend::MendStep step;
  switch (random() % 8) {
    case 0:
      return step;
    case 1:
      step.what = mend::MendStep::What::Kind;
      step.kind = f.kind;
      step.repair = repairs.empty() ? "" : repairs.front();
      return step;
    case 2:
      step.what = mend::MendStep::What::Proposals;
      return step;
    case 3:
      return mend::stepFor(drawing, f, mend::MendStep::What::Leave, "");
    default:
      return mend::stepFor(drawing, f, mend::MendStep::What::One,
                           repairs.empty() ? "" : repairs[random() % repairs.size()]);
  }
}

std::vector<refine::Step> someSteps(std::mt19937& random) {
  const std::vector<refine::Step> all{refine::Simplify{0.02}, refine::Rotate{}, refine::TrueUp{{}, 0.1},
                                      refine::Sharpen{}, refine::PlaceAt{{3, 4}, refine::Hold::Centre}};
  std::vector<refine::Step> some;
  for (int i = 0; i < 3; ++i) some.push_back(all[random() % all.size()]);
  return some;
}

Drawing twoSquares() { return makeDrawing({squarePath(10), squarePath(10, {20, 0})}); }

std::vector<mend::Finding> faultsBetween(const Drawing& before, const Drawing& after) {
  return job::newFaults(before, mend::inspect(before, {}), after, mend::inspect(after, {}));
}

}  // namespace

class TestFaults : public QObject {
  Q_OBJECT

 private slots:
  void aDecisionThatGoesOnComesToWhatAllOfThemCome_data() {
    QTest::addColumn<int>("seed");
    for (int seed = 0; seed < 8; ++seed) QTest::addRow("%d", seed) << seed;
  }
  void aDecisionThatGoesOnComesToWhatAllOfThemCome() {
    QFETCH(int, seed);
    std::mt19937 random(static_cast<unsigned>(seed));
    job::Job job = job::jobOn(spoilt(random), "spoilt");
    if (seed % 2 == 1) job.size = {job::SizeWish::Of::OutlinesWidth, 77};
    for (int round = 0; round < 12; ++round) {
      const job::JobFaults faults = job::faultsOf(job);
      job.memo = faults.memo;
      if (faults.ofMended.empty()) break;
      if (round % 5 == 4) job.mend.steps.pop_back();  // taken back
      job.mend.steps.push_back(nextStep(job::mendedDrawingOf(job), faults.ofMended, random));
      job = job::withMending(std::move(job));
      job::Job anew = job;
      anew.memo.reset();
      anew = job::withMending(std::move(anew));
      QVERIFY(job.mended->outlines == anew.mended->outlines);
      QCOMPARE(job.lost, anew.lost);
      const job::JobFaults again = job::faultsOf(job);
      QVERIFY(anew.memo != job.memo);
      anew.memo.reset();
      QCOMPARE(textsOf(again.ofMended), textsOf(job::faultsOf(anew).ofMended));
    }
  }

  void refiningThatGoesOnComesToWhatAllOfItComes() {
    for (unsigned seed = 0; seed < 6; ++seed) {
      std::mt19937 random(seed);
      const auto start = std::make_shared<const Drawing>(plate(random));
      refine::Refining known;
      std::vector<refine::Step> steps = someSteps(random);
      for (int round = 0; round < 6; ++round) {
        known = refine::refinedOn(start, steps, 1, known);
        const refine::Refined anew = refine::done(*start, steps);
        QVERIFY(known.refined().drawing.outlines == anew.drawing.outlines);
        QCOMPARE(known.refined().changes.size(), anew.changes.size());
        QVERIFY(known.states.size() <= 2);
        if (round % 3 == 2) steps.pop_back();
        if (round % 3 == 1) steps.back() = refine::Simplify{0.1};
        steps.push_back(someSteps(random).front());
      }
      // Of another drawing nothing is known.
      const auto other = std::make_shared<const Drawing>(plate(random));
      QVERIFY(refine::refinedOn(other, steps, 1, known).refined().drawing.outlines ==
              refine::done(*other, steps).drawing.outlines);
    }
  }

  void whatRefiningBreaksIsTold() {
    const Drawing before = twoSquares();
    Drawing over = before;
    over.setPath(1, scaled(over.path(1), 1, {-15, 3}));
    std::vector<mend::Finding> found = faultsBetween(before, over);
    QCOMPARE(found.size(), 2U);
    QVERIFY(found[0].kind == mend::FindingKind::Crossing && found[1].kind == mend::FindingKind::Crossing);
    Drawing opened = before;
    Path path = opened.path(0);
    path.closed = false;
    path.segments.pop_back();
    opened.setPath(0, path);
    found = faultsBetween(before, opened);
    QCOMPARE(found.size(), 2U);
    QVERIFY(found[0].kind == mend::FindingKind::OpenEnd);
    Drawing copied = before;
    add(copied, copied.path(0));
    found = faultsBetween(before, copied);
    QCOMPARE(found.size(), 1U);
    QVERIFY(found[0].kind == mend::FindingKind::DoubleLine);
  }

  void whatWasThereBeforeOrIsMeantIsNotTold() {
    Drawing crossing = twoSquares();
    crossing.setPath(1, scaled(crossing.path(1), 1, {-15, 3}));
    Drawing moved = crossing;
    moved.setPath(1, scaled(moved.path(1), 1, {0.5, 0}));  // they crossed before
    QVERIFY(faultsBetween(crossing, moved).empty());
    // A line that was drawn is meant to end; a border round all is no frame; helper lines are not cut.
    const Drawing before = twoSquares();
    Drawing drawn = before;
    add(drawn, linePath({0, 30}, {9, 30}));
    add(drawn, squarePath(60, {-15, -15}));
    QVERIFY(faultsBetween(before, drawn).empty());
    add(drawn, linePath({-5, 5}, {5, 5}));
    QCOMPARE(faultsBetween(before, drawn).size(), 1U);
    drawn.outlines.back().role = OutlineRole::Helper;
    QVERIFY(faultsBetween(before, drawn).empty());
  }

  void theFaultsOfAJobTellBoth() {
    job::Job job = job::jobOn(twoSquares(), "squares");
    QVERIFY(job::faultsOf(job).byRefining.empty());
    const Outline& outline = job.tracing->outlines[1];
    job.refine = refine::withHandwork({}, {refine::madeByHand(markOf(outline), {scaled(outline.path(), 1, {-15, 3})})});
    job.memo = job::faultsOf(job).memo;
    job = job::workedOut(std::move(job), {});
    const job::JobFaults faults = job::faultsOf(job);
    QVERIFY(faults.ofMended.empty());
    QCOMPARE(faults.byRefining.size(), 2U);
    QVERIFY(job::faultsOf(job::Job{}).byRefining.empty() && job::faultsOf(job::Job{}).memo == nullptr);
  }
};

RIM_TEST(TestFaults)
#include "tst_faults.moc"
