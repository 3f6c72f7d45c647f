#include "core/job/job.h"

#include "core/colour/reduce.h"
#include "core/job/job_memo.h"
#include "core/mend/repair/tidy.h"
#include "core/picture/tone.h"

namespace rim::job {
namespace {

double ownResolution(const picture::Picture& picture) {
  return picture.dotsPerInch > 0 ? picture.dotsPerInch : picture::kDefaultDotsPerInch;
}

/// How many pixels the picture has for one of the original.
double enlargementOf(const Job& job) {
  double factor = 1;
  for (const picture::PreparationStep& step : job.preparation) {
    const auto* enlarge = std::get_if<picture::Enlarge>(&step.what);
    if (enlarge != nullptr && step.on) factor *= enlarge->factor;
  }
  return factor;
}

/// The mended outlines back in the frame of those that they were made of, which were `k` times as large in mm. What
/// was not mended is what it was before.
Drawing mendedIn(const Drawing& before, const Drawing& beforeMm, const Drawing& mendedMm, double k) {
  Drawing after = emptyLike(before);
  after.layers = mendedMm.layers;
  after.outlines.reserve(mendedMm.outlines.size());
  const OutlinePlaces places = placesOf(before);
  for (const Outline& outline : mendedMm.outlines) {
    const auto then = places.find(outline.id);
    const bool same = then != places.end() && beforeMm.outlines[then->second].path() == outline.path();
    after.outlines.push_back(same ? outline.along(before.outlines[then->second]) : scaled(outline, 1 / k));
    after.outlines.back().stroke = scaled(outline.stroke, 1 / k);
  }
  return after;
}

}  // namespace

Job jobOn(picture::Picture picture) {
  Job job;
  job.original = std::move(picture);
  return withoutResults(std::move(job));
}

Job jobOn(Drawing drawing, const std::string& name) {
  Job job;
  job.original.name = name;
  mintIds(drawing);
  job.drawing = std::make_shared<const Drawing>(std::move(drawing));
  job.tracing = job.drawing;
  return job;
}

bool hasWork(const Job& job) { return job.drawing != nullptr || !job.original.empty(); }

std::shared_ptr<const Drawing> mendedOf(const Job& job) { return job.mended ? job.mended : job.tracing; }

std::shared_ptr<const Drawing> outlinesOf(const Job& job) { return job.refined ? job.refined : mendedOf(job); }

Recipe forOthers(Recipe recipe) {
  recipe.original = {};
  recipe.drawing.reset();
  recipe.guides.clear();
  recipe.references.clear();
  std::erase_if(recipe.preparation,
                [](const picture::PreparationStep& step) { return picture::isHandWork(step.what); });
  std::erase_if(recipe.mend.steps, [](const mend::MendStep& step) {
    return step.what == mend::MendStep::What::One || step.what == mend::MendStep::What::Leave;
  });
  std::erase_if(recipe.refine, [](const refine::Step& step) {
    return std::holds_alternative<refine::Remove>(step) || std::holds_alternative<refine::Replace>(step) ||
           std::holds_alternative<refine::ByHand>(step) || std::holds_alternative<refine::PutOnLayer>(step) ||
           std::holds_alternative<refine::Group>(step);
  });
  return recipe;
}

Job withoutResults(Job job) {
  Job fresh;
  static_cast<Recipe&>(fresh) = std::move(job);
  fresh.tracing = fresh.drawing;
  if (!fresh.preparation.empty()) return fresh;
  fresh.picture = fresh.original;
  fresh.madeOf[static_cast<std::size_t>(StageKind::Prepare)] = std::make_shared<const Recipe>(fresh);
  return fresh;
}

Job withPreparedPicture(Job job, std::stop_token stop) {
  job.picture = picture::prepared(job.original, job.preparation, std::move(stop));
  return job;
}

Job withInks(Job job, const std::stop_token& stop) {
  job.inks.reset();
  if (!job.colours.on || job.picture.empty()) return job;
  const bool known = job.found && job.found->in == job.picture.id && job.found->count == job.colours.count;
  if (!known) {
    job.found = std::make_shared<const FoundInks>(
        FoundInks{job.picture.id, job.colours.count, colour::reduced(job.picture, job.colours.count, stop)});
  }
  job.inks =
      std::make_shared<const colour::InkMap>(colour::decided(job.found->map, job.picture, job.colours.steps, stop));
  job.inkShares.reset();
  return job;
}

Job withInkShares(Job job) {
  if (job.inks) job.inkShares = std::make_shared<const std::vector<colour::InkShare>>(colour::sharesOf(*job.inks));
  return job;
}

Job withMending(Job job, const std::stop_token& stop) {
  job.mended.reset();
  job.lost.clear();
  if (job.mend.steps.empty() || !job.tracing) return job;
  JobMemo memo = job.memo ? *job.memo : JobMemo{};
  double k = mmPerPixel(job);
  // A wish for the size of the outlines means what is left of them, which is known once they are mended.
  constexpr int kMostRounds = 4;
  for (int round = 0; round < kMostRounds; ++round) {
    memo.traced = inMillimetres(job.tracing, k, {&memo.traced});
    memo.decisions = mend::decisionsOn(memo.traced.mm, job.mend, k, memo.decisions, memo.faultsOfMended, stop);
    const Drawing after = mend::oriented(memo.decisions.drawing);
    job.mended = std::make_shared<const Drawing>(mendedIn(*job.tracing, *memo.traced.mm, after, k));
    job.lost = memo.decisions.lost;
    const double now = mmPerPixel(job);
    constexpr double kSame = 1e-9;
    if (std::abs(now - k) <= kSame * k) break;
    k = now;
  }
  job.memo = std::make_shared<const JobMemo>(std::move(memo));
  return job;
}

Job withRefining(Job job, const std::stop_token& stop) {
  job.refined.reset();
  job.refineChanges.clear();
  job.keptByHand.clear();
  job.lostByHand.clear();
  const auto before = mendedOf(job);
  if (job.refine.empty() || !before) return job;
  JobMemo memo = job.memo ? *job.memo : JobMemo{};
  const double k = mmPerPixel(job);
  memo.mended = inMillimetres(before, k, {&memo.traced, &memo.mended});
  memo.refining = refine::refinedOn(memo.mended.mm, job.refine, k, memo.refining, stop);
  const refine::Refined& all = memo.refining.refined();
  job.refined = std::make_shared<const Drawing>(mendedIn(*before, *memo.mended.mm, all.drawing, k));
  job.refineChanges = all.changes;
  job.keptByHand = all.kept;
  job.lostByHand = all.lost;
  job.memo = std::make_shared<const JobMemo>(std::move(memo));
  return job;
}

double mmPerPixel(const Job& job) {
  const double byResolution = job.drawing ? 1 : kMmPerInch / ownResolution(job.picture);
  const auto share = [byResolution](double mm, double px) { return px > 0 ? mm / px : byResolution; };
  const auto box = [&job] {
    const auto outlines = mendedOf(job);
    return outlines ? boxOf(*outlines) : Box{};
  };
  switch (job.size.of) {
    case SizeWish::Of::PictureWidth:
      return share(job.size.value, job.picture.width());
    case SizeWish::Of::PictureHeight:
      return share(job.size.value, job.picture.height());
    case SizeWish::Of::OutlinesWidth:
      return share(job.size.value, box().width());
    case SizeWish::Of::OutlinesHeight:
      return share(job.size.value, box().height());
    case SizeWish::Of::Resolution:
      break;
  }
  if (job.size.value <= 0 || job.drawing) return byResolution;
  return kMmPerInch / (job.size.value * enlargementOf(job));
}

namespace {

Drawing inMillimetres(const Job& job, const std::shared_ptr<const Drawing>& outlines) {
  const double k = mmPerPixel(job);
  if (outlines) return inFrame(*outlines, Frame::Millimetres, k);
  Drawing none;
  none.pageWidth = job.picture.width() * k;
  none.pageHeight = job.picture.height() * k;
  return none;
}

}  // namespace

Drawing drawingOf(const Job& job) { return inMillimetres(job, outlinesOf(job)); }

Box outlinesBoxOf(const Job& job) {
  const auto outlines = outlinesOf(job);
  const Box px = outlines ? boxOf(*outlines) : Box{};
  if (px.empty()) return {};
  const double k = mmPerPixel(job);
  return {px.low * k, px.high * k};
}

Drawing mendedDrawingOf(const Job& job) { return inMillimetres(job, mendedOf(job)); }

bool looksLightOnDark(const picture::Picture& picture) {
  const auto threshold = picture::otsuThreshold(picture.histogram);
  if (!threshold) return false;
  const cv::Mat& grey = *picture.grey;
  int dark = 0;
  int all = 0;
  const auto count = [&](int x, int y) {
    dark += grey.at<std::uint8_t>(y, x) < *threshold ? 1 : 0;
    ++all;
  };
  for (int x = 0; x < grey.cols; ++x) {
    count(x, 0);
    count(x, grey.rows - 1);
  }
  for (int y = 0; y < grey.rows; ++y) {
    count(0, y);
    count(grey.cols - 1, y);
  }
  return dark > 0.9 * all;
}

}  // namespace rim::job
