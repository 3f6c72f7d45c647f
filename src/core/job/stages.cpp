#include "core/job/stages.h"

namespace rim {
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
void take(Job& job, Tracing tracing) {
  job.threshold = tracing.threshold;
  Drawing drawing = makeDrawing(std::move(tracing.outlines), std::move(tracing.layers), tracing.layerOf);
  drawing.frame = Frame::Pixels;
  drawing.pageWidth = job.picture.width();
  drawing.pageHeight = job.picture.height();
  job.tracing = std::make_shared<const Drawing>(std::move(drawing));
}

Job tracedJob(Job job, const StageWatch& watch) {
  if (job.inks) {
    take(job, traceInks(job.picture, *job.inks, job.colours.layout, job.trace, watch.control));
    return job;
  }
  if (!watch.borders) {
    take(job, trace(job.picture, job.trace, watch.control));
    return job;
  }
  const std::vector<Border> borders = traceBorders(job.picture, job.trace, watch.closing);
  watch.borders(borders, thresholdFor(job.picture, job.trace));
  take(job, fitBorders(job.picture, borders, job.trace, watch.control));
  return job;
}

constexpr std::array<Stage, 4> kStages{{
    {StageKind::Prepare,
     [](const Recipe& a, const Recipe& b) { return sameSource(a, b) && a.preparation == b.preparation; },
     [](const Job& job) { return job.drawing || !job.picture.empty(); }, preparedJob,
     [](Job& job) { job.picture = {}; }},
    // Inks stay to be seen until others are found; whether they are the right ones shows in the outlines.
    {StageKind::Inks, [](const Recipe& a, const Recipe& b) { return a.colours == b.colours; },
     [](const Job& job) { return job.tracing != nullptr; },
     [](Job job, const StageWatch& watch) { return withInkShares(withInks(std::move(job), watch.control.stop)); },
     [](Job&) {}},
    {StageKind::Trace, [](const Recipe& a, const Recipe& b) { return a.trace == b.trace; },
     [](const Job& job) { return job.tracing != nullptr; }, tracedJob,
     [](Job& job) {
       if (!job.drawing) job.tracing.reset();
     }},
    {StageKind::Mend, [](const Recipe& a, const Recipe& b) { return a.size == b.size && a.mend == b.mend; },
     [](const Job& job) { return job.mended || job.mend.steps.empty(); },
     [](Job job, const StageWatch& watch) { return withMending(std::move(job), watch.control.stop); },
     [](Job& job) {
       job.mended.reset();
       job.lost.clear();
     }},
}};

}  // namespace

const std::array<Stage, 4>& stages() { return kStages; }

Job workedOut(Job job, const StageWatch& watch) {
  for (const Stage& stage : kStages) {
    if (stage.isThere(job)) continue;
    job = stage.work(std::move(job), watch);
    if (watch.done) watch.done(stage.kind, job);
  }
  return job;
}

void dropStale(Job& job, const Recipe& before) {
  bool same = true;
  for (const Stage& stage : kStages) {
    same = same && stage.sameFor(job, before);
    if (!same) stage.drop(job);
  }
}

}  // namespace rim
