// The stages of work: what is there stays, what was decided otherwise goes with all that came of it.

#include <QTest>

#include "core/error.h"
#include "core/job/stages.h"
#include "support/drawings.h"
#include "support/pictures.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

picture::Picture square() { return pictureOf(drawn(100, 80, polygon({{20, 10}, {70, 10}, {70, 50}, {20, 50}}))); }

/// A job whose every stage has worked.
job::Job fullJob() {
  job::Job job = job::jobOn(square());
  job.preparation = {{picture::Thicken{1}}};
  job.mend.steps = {{mend::MendStep::What::Safe, {}, {}, {}}};
  return job::workedOut(std::move(job));
}

std::vector<job::StageKind> stagesThatWork(const job::Job& job) {
  std::vector<job::StageKind> kinds;
  job::StageWatch watch;
  watch.done = [&kinds](job::StageKind kind, const job::Job&) { kinds.push_back(kind); };
  job::workedOut(job, watch);
  return kinds;
}

/// What works again when this is decided otherwise.
std::vector<job::StageKind> redone(const std::function<void(job::Job&)>& change) {
  const job::Job before = fullJob();
  job::Job after = before;
  change(after);
  job::dropStale(after);
  return stagesThatWork(after);
}

}  // namespace

class TestStages : public QObject {
  Q_OBJECT

 private slots:
  void whatIsThereIsNotDoneAgain() {
    const job::Job job = fullJob();
    QVERIFY(!job.picture.empty() && job.tracing && job.mended);
    QVERIFY(stagesThatWork(job).empty());
    QVERIFY(job::workedOut(job).tracing == job.tracing);
  }

  void onlyWhatFollowsAChangeIsDoneAgain() {
    using enum job::StageKind;
    QCOMPARE(redone([](job::Job& job) { job.origin = "by hand"; }), std::vector<job::StageKind>{});
    QCOMPARE(redone([](job::Job& job) { job.mend.settings.gapMm = 1; }), std::vector{Mend});
    QCOMPARE(redone([](job::Job& job) { job.size.value = 300; }), std::vector{Mend});
    QCOMPARE(redone([](job::Job& job) { job.trace.tolerancePx = 1; }), (std::vector{Trace, Mend}));
    QCOMPARE(redone([](job::Job& job) { job.colours.on = true; }), (std::vector{Inks, Trace, Mend}));
    QCOMPARE(redone([](job::Job& job) { job.preparation.clear(); }), (std::vector{Prepare, Inks, Trace, Mend}));
    QCOMPARE(redone([](job::Job& job) { job.original = square(); }), (std::vector{Prepare, Inks, Trace, Mend}));
  }

  void aResultBelongsByItsKeyAlone() {
    const job::Job job = fullJob();
    job::Job other = job;
    other.trace.tolerancePx = 2;
    QVERIFY2(other.tracing && !job::hasOutlines(other), "what is held is not what was asked for");
    QVERIFY(job::isThere(other, job::StageKind::Prepare) && !job::isThere(other, job::StageKind::Mend));
    other.trace = job.trace;
    QVERIFY2(job::hasOutlines(other), "asked for again, it is there");
    other.original = square();
    QVERIFY(!job::isThere(other, job::StageKind::Prepare));
    QVERIFY(!job::hasOutlines(job::withoutResults(job)) && !job::hasOutlines(job::Job{}));
  }

  void refiningFollowsMending() {
    job::Job job = fullJob();
    job.refine = {refine::OffsetBy{1, refine::Joins::Mitre}};
    QCOMPARE(stagesThatWork(job), std::vector{job::StageKind::Refine});
    job = job::workedOut(job);
    const double k = job::mmPerPixel(job);
    QVERIFY(std::abs(boxOf(pathsOf(job::drawingOf(job))).width() - boxOf(pathsOf(job::mendedDrawingOf(job))).width() -
                     2) < 1e-6);
    // An offset is in mm, whatever size is wished for; the wish means what was there before it.
    job.size = {job::SizeWish::Of::OutlinesWidth, 200};
    job = job::workedOut(job);
    QVERIFY(job::mmPerPixel(job) > k);
    QVERIFY(std::abs(boxOf(pathsOf(job::drawingOf(job))).width() - 202) < 1e-6);
    job.refine.push_back(refine::OffsetBy{-150, refine::Joins::Round});
    QVERIFY_THROWS_EXCEPTION(InputError, job::workedOut(job));
  }

  /// What a hand moved stays, in its place on the picture, when size or trace change.
  void whatAHandDidSurvives() {
    job::Job job = job::jobOn(pictureOf(drawn(100, 80, [](double x, double y) {
      return (x > 20 && x < 40 && y > 20 && y < 50) || (x > 60 && x < 80 && y > 20 && y < 60);
    })));
    job = job::workedOut(job);
    QCOMPARE(job.tracing->outlines.size(), 2U);
    const Outline first = job.tracing->outlines[0];
    const OutlineMark second = markOf(job.tracing->outlines[1]);
    job.refine = {refine::Replace{"moved", {{markOf(first), scaled(first.path(), 1, {0, 5})}}}};
    const auto box = [&job] { return boxOf(job.refined->path(0)); };
    job = job::workedOut(job);
    const Box moved = box();
    QVERIFY(std::abs(moved.low.y - boxOf(first.path()).low.y - 5) < 1e-9);
    job.size = {job::SizeWish::Of::PictureWidth, 50};
    job = job::workedOut(job);
    QVERIFY(distance(box().low, moved.low) < 1e-9 && job.refined->outlines.size() == 2);
    // Traced otherwise it is another outline in the same place; the one that was moved counts.
    job.trace.threshold = 60;
    job = job::workedOut(job);
    QVERIFY(!placeOf(*job.tracing, first.id));
    QCOMPARE(job.refined->outlines.size(), 2U);
    QVERIFY(distance(box().low, moved.low) < 1e-9);
    // Gone from the trace altogether it is still there.
    job.trace.minAreaPx2 = 700;
    job = job::workedOut(job);
    QCOMPARE(job.tracing->outlines.size(), 1U);
    QCOMPARE(job.refined->outlines.size(), 2U);
    // Taken out by hand, it stays out.
    job.trace = {};
    job.refine = {refine::Remove{{second}}};
    QCOMPARE(job::workedOut(job).refined->outlines.size(), 1U);
    job.trace.threshold = 60;
    QCOMPARE(job::workedOut(job).refined->outlines.size(), 1U);
  }

  void aDrawingThatWasReadIsOnlyMended() {
    Drawing drawing;
    setPaths(drawing, {polygonThrough({{0, 0}, {10, 0}, {10, 10}})});
    job::Job job = job::jobOn(drawing, "a.svg");
    QVERIFY(stagesThatWork(job).empty());
    job.mend.steps = {{mend::MendStep::What::Safe, {}, {}, {}}};
    QCOMPARE(stagesThatWork(job), std::vector{job::StageKind::Mend});
    job::Job other = job;
    other.trace.tolerancePx = 3;
    job::dropStale(other);
    QVERIFY(other.tracing == job.tracing);
  }

  void eachStageTellsAndIsAskedToStop() {
    job::Job job = job::jobOn(square());
    job.picture = {};
    job.madeOf = {};
    int borders = 0;
    job::StageWatch watch;
    watch.prepare = [](const job::Recipe& recipe, const std::stop_token&) { return recipe.original; };
    watch.borders = [&borders](const std::vector<trace::contour::Border>& found, int threshold) {
      borders = static_cast<int>(found.size());
      QVERIFY(threshold > 0);
    };
    const job::Job done = job::workedOut(job, watch);
    QCOMPARE(borders, 1);
    QVERIFY(done.picture.id == job.original.id);
    QVERIFY(done.tracing->outlines == job::workedOut(job).tracing->outlines);
    std::stop_source stop;
    stop.request_stop();
    watch.control.stop = stop.get_token();
    QVERIFY_THROWS_EXCEPTION(Cancelled, job::workedOut(job, watch));
  }
};

RIM_TEST(TestStages)
#include "tst_stages.moc"
