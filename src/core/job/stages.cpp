#include "core/job/stages.h"

#include <algorithm>

namespace rim::job {
namespace {

bool sameSource(const Recipe& a, const Recipe& b) {
  return a.original.grey == b.original.grey && a.drawing == b.drawing;
}

Job preparedJob(Job job, const StageWatch& watch) {
  if (!watch.prepare) return withPreparedPicture(std::move(job), watch.control.stop);
  job.picture = watch.prepare(job, watch.control.stop);
  return job;
}

/// Takes what was traced as a drawing on a page as large as the picture.
void take(Job& job, trace::Tracing tracing) {
  job.threshold = tracing.threshold;
  job.strokes = tracing.facts ? std::make_shared<const trace::StrokeFacts>(std::move(*tracing.facts)) : nullptr;
  Drawing drawing = makeDrawing(std::move(tracing.outlines), std::move(tracing.layers), tracing.layerOf);
  for (std::size_t i = 0; i < tracing.strokes.size(); ++i) drawing.outlines[i].stroke = tracing.strokes[i];
  drawing.frame = Frame::Pixels;
  drawing.pageWidth = job.picture.width();
  drawing.pageHeight = job.picture.height();
  job.tracing = std::make_shared<const Drawing>(std::move(drawing));
  job.packedTracing = {};
}

Job tracedJob(Job job, const StageWatch& watch) {
  if (job.inks) {
    take(job, trace::traceInks(job.picture, *job.inks, job.colours.layout, job.trace, watch.control));
    return job;
  }
  if (!watch.borders) {
    take(job, trace::trace(job.picture, job.trace, watch.control));
    return job;
  }
  const std::vector<trace::contour::Border> borders = trace::traceBorders(job.picture, job.trace, watch.closing);
  watch.borders(borders, trace::contour::thresholdFor(job.picture, job.trace));
  take(job, trace::fitBorders(job.picture, borders, job.trace, watch.control));
  return job;
}

constexpr std::array<Stage, kStages> kAll{{
    {StageKind::Prepare,
     [](const Recipe& a, const Recipe& b) { return sameSource(a, b) && a.preparation == b.preparation; },
     [](const Recipe& recipe) { return recipe.drawing == nullptr; }, preparedJob, [](Job& job) { job.picture = {}; }},
    // Inks stay to be seen until others are found; whether they are the right ones says their key.
    {StageKind::Inks, [](const Recipe& a, const Recipe& b) { return a.colours == b.colours; },
     [](const Recipe& recipe) { return recipe.drawing == nullptr; },
     [](Job job, const StageWatch& watch) { return withInkShares(withInks(std::move(job), watch.control.stop)); },
     [](Job&) {}},
    {StageKind::Trace, [](const Recipe& a, const Recipe& b) { return a.trace == b.trace; },
     [](const Recipe& recipe) { return recipe.drawing == nullptr; }, tracedJob,
     [](Job& job) {
       if (!job.drawing) job.tracing.reset();
       job.packedTracing = {};
       job.strokes.reset();
     }},
    {StageKind::Mend, [](const Recipe& a, const Recipe& b) { return a.size == b.size && a.mend == b.mend; },
     [](const Recipe& recipe) { return !recipe.mend.steps.empty(); },
     [](Job job, const StageWatch& watch) { return withMending(std::move(job), watch.control.stop); },
     [](Job& job) {
       job.mended.reset();
       job.lost.clear();
     }},
    {StageKind::Refine, [](const Recipe& a, const Recipe& b) { return a.refine == b.refine; },
     [](const Recipe& recipe) { return !recipe.refine.empty(); },
     [](Job job, const StageWatch& watch) { return withRefining(std::move(job), watch.control.stop); },
     [](Job& job) {
       job.refined.reset();
       job.refineChanges.clear();
       job.keptByHand.clear();
       job.lostByHand.clear();
     }},
}};

/// Whether two recipes decide the same about a stage and all before.
bool sameUpTo(std::size_t stage, const Recipe& a, const Recipe& b) {
  return std::all_of(kAll.begin(), kAll.begin() + static_cast<std::ptrdiff_t>(stage) + 1,
                     [&](const Stage& s) { return s.sameFor(a, b); });
}

}  // namespace

const std::array<Stage, kStages>& stages() { return kAll; }

bool isThere(const Job& job, StageKind stage) {
  const auto i = static_cast<std::size_t>(stage);
  if (!kAll[i].isNeeded(job)) return true;
  return job.madeOf[i] && sameUpTo(i, *job.madeOf[i], job);
}

bool hasTracing(const Job& job) { return job.tracing && isThere(job, StageKind::Trace); }

bool hasOutlines(const Job& job) {
  // A job that was read may have its outlines before its picture, which their size hangs on.
  return hasWork(job) && isThere(job, StageKind::Prepare) && isThere(job, StageKind::Trace) &&
         isThere(job, StageKind::Mend) && isThere(job, StageKind::Refine);
}

Job withKeys(Job job, StageKind upTo) {
  const auto made = std::make_shared<const Recipe>(job);
  for (std::size_t i = 0; i <= static_cast<std::size_t>(upTo); ++i) job.madeOf[i] = made;
  return job;
}

Job workedOut(Job job, const StageWatch& watch) {
  const auto made = std::make_shared<const Recipe>(job);
  for (const Stage& stage : kAll) {
    if (isThere(job, stage.kind)) continue;
    job = stage.work(std::move(job), watch);
    job.madeOf[static_cast<std::size_t>(stage.kind)] = made;
    if (watch.done) watch.done(stage.kind, job);
  }
  return job;
}

void dropStale(Job& job) {
  for (const Stage& stage : kAll) {
    if (stage.isNeeded(job) && isThere(job, stage.kind)) continue;
    job.madeOf[static_cast<std::size_t>(stage.kind)].reset();
    stage.drop(job);
  }
}

}  // namespace rim::job
