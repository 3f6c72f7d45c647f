#pragma once

#include <array>
#include <functional>
#include <stop_token>
#include <vector>

#include "core/job/job.h"
#include "core/trace/contour/border.h"

namespace rim::job {

/// What is asked of the stages while they work, and what they tell.
struct StageWatch {
  WorkControl control;
  /// Following borders is quick: it is not given up for control.stop, only for this.
  std::stop_token closing{};
  /// Works out a prepared picture in place of prepared(), as one that remembers does; none: prepared().
  std::function<picture::Picture(const Recipe&, const std::stop_token&)> prepare{};
  /// The borders of two tones, and the threshold that they were followed at, before outlines are fitted to them.
  std::function<void(std::vector<trace::contour::Border>, int)> borders{};
  /// A stage has worked, and gave this; not called for those that had nothing to do.
  std::function<void(StageKind, const Job&)> done{};
};

/// One step of the work from a recipe to outlines. A new one is a new entry in stages().
struct Stage {
  StageKind kind;
  bool (*sameFor)(const Recipe& a, const Recipe& b);  ///< whether both decide the same about this stage alone
  bool (*isNeeded)(const Recipe& recipe);             ///< whether such a job has this stage at all
  Job (*work)(Job job, const StageWatch& watch);      ///< throws InputError, and Cancelled
  void (*drop)(Job& job);                             ///< its result goes
};

/// All stages in their order; each needs the results of those before it.
const std::array<Stage, kStages>& stages();

/// Whether the result of a stage is there and belongs to what is decided now, or is not needed: by its key alone.
bool isThere(const Job& job, StageKind stage);

/// Whether what tracing gave is there and belongs to what is decided now.
bool hasTracing(const Job& job);

/// Whether the outlines are there, with all decisions about findings.
bool hasOutlines(const Job& job);

/// The same job with what it holds taken for the results of its recipe, up to a stage and with it.
Job withKeys(Job job, StageKind upTo);

/// The job with all results that it lacks. Throws what the stages throw.
Job workedOut(Job job, const StageWatch& watch = {});

/// Drops from a job what does not belong to its recipe any more.
void dropStale(Job& job);

}  // namespace rim::job
