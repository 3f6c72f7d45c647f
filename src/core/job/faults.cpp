#include "core/job/faults.h"

#include <algorithm>
#include <limits>
#include <map>
#include <tuple>

namespace rim::job {
namespace {

bool isOfItsOwn(mend::FindingKind kind) {
  switch (kind) {
    case mend::FindingKind::OpenEnd:
    case mend::FindingKind::DoubleLine:
    case mend::FindingKind::SelfCrossing:
    case mend::FindingKind::Loop:
    case mend::FindingKind::Crossing:
    case mend::FindingKind::CoincidentNode:
    case mend::FindingKind::ZeroLength:
    case mend::FindingKind::Spike:
      return true;
    default:
      return false;
  }
}

using Key = std::tuple<mend::FindingKind, OutlineId, OutlineId>;

Key keyOf(const mend::Finding& f) { return {f.kind, std::min(f.outline, f.other), std::max(f.outline, f.other)}; }

/// Findings of one kind about the same outlines; each can be taken for one of a later state, the nearest first.
class Earlier {
 public:
  explicit Earlier(const std::vector<mend::Finding>& findings) {
    for (const mend::Finding& f : findings) places_[keyOf(f)].push_back(f.at);
  }

  bool take(const mend::Finding& f) {
    const auto same = places_.find(keyOf(f));
    if (same == places_.end() || same->second.empty()) return false;
    std::vector<Point>& places = same->second;
    const auto nearest = std::min_element(places.begin(), places.end(),
                                          [&f](Point a, Point b) { return distance(a, f.at) < distance(b, f.at); });
    places.erase(nearest);
    return true;
  }

 private:
  std::map<Key, std::vector<Point>> places_;
};

}  // namespace

std::vector<mend::Finding> newFaults(const Drawing& before, const std::vector<mend::Finding>& then,
                                     const Drawing& after, const std::vector<mend::Finding>& now) {
  const OutlinePlaces was = placesOf(before);
  const OutlinePlaces is = placesOf(after);
  const auto isTouched = [&](OutlineId id) {
    const auto at = was.find(id);
    return at == was.end() || !before.outlines[at->second].sharesPath(after.outlines[is.at(id)]);
  };
  const auto isHelper = [&](OutlineId id) { return after.outlines[is.at(id)].role == OutlineRole::Helper; };
  Earlier earlier(then);
  std::vector<mend::Finding> found;
  for (const mend::Finding& f : now) {
    if (!isOfItsOwn(f.kind) || isHelper(f.outline) || isHelper(f.other)) continue;
    if (!isTouched(f.outline) && !isTouched(f.other)) continue;
    const bool meantToEnd = f.kind == mend::FindingKind::OpenEnd && f.repair.empty() && was.count(f.outline) == 0;
    if (!meantToEnd && !earlier.take(f)) found.push_back(f);
  }
  return found;
}

JobFaults faultsOf(const Job& job, const std::stop_token& stop) {
  JobMemo memo = job.memo ? *job.memo : JobMemo{};
  const auto outlines = mendedOf(job);
  if (!outlines) return {};
  const double k = mmPerPixel(job);
  const mend::MendSettings& settings = job.mend.settings;
  if (job.tracing) memo.traced = inMillimetres(job.tracing, k, {&memo.traced});
  memo.mended = inMillimetres(outlines, k, {&memo.traced, &memo.mended});
  const Drawing& mended = *memo.mended.mm;
  const bool known = memo.faultsOfMended.isThere();
  memo.faultsOfMended = mend::inspected(mended, settings, known ? memo.faultsOfMended : memo.decisions.inspected, stop);
  JobFaults faults{mend::withoutLeft(memo.faultsOfMended.findings(), mended, job.mend, k), {}, nullptr};
  for (mend::Finding& lost : mend::lostDecisions(mended, job.mend, job.lost, k))
    faults.ofMended.push_back(std::move(lost));
  if (job.refined) {
    memo.refined = inMillimetres(job.refined, k, {&memo.mended, &memo.refined});
    const bool again = memo.faultsOfRefined.isThere();
    memo.faultsOfRefined =
        mend::inspected(*memo.refined.mm, settings, again ? memo.faultsOfRefined : memo.faultsOfMended, stop);
    faults.byRefining =
        newFaults(mended, memo.faultsOfMended.findings(), *memo.refined.mm, memo.faultsOfRefined.findings());
  }
  faults.memo = std::make_shared<const JobMemo>(std::move(memo));
  return faults;
}

}  // namespace rim::job
