#pragma once

#include <memory>
#include <stop_token>
#include <vector>

#include "core/job/job.h"
#include "core/job/job_memo.h"

namespace rim::job {

/// What is wrong with the outlines of a job, mm.
struct JobFaults {
  std::vector<mend::Finding> ofMended;    ///< before they are refined, without what was left
  std::vector<mend::Finding> byRefining;  ///< what refining brought: newFaults()
  std::shared_ptr<const JobMemo> memo;
};

/// The faults of the outlines of a job; none without outlines. Where the job has a memo, only what changed is looked
/// at. Throws Cancelled.
JobFaults faultsOf(const Job& job, const std::stop_token& stop = {});

/// The faults of a drawing that an earlier state of it did not have: lines that end, are drawn twice, cross, or run
/// back, of outlines that have another path now. Lines that were drawn open since are meant to end; helper lines, which
/// are not cut, count nowhere.
std::vector<mend::Finding> newFaults(const Drawing& before, const std::vector<mend::Finding>& then,
                                     const Drawing& after, const std::vector<mend::Finding>& now);

}  // namespace rim::job
