#pragma once

#include "cli/options.h"
#include "core/refine/step.h"

namespace rim::cli {

/// The steps of the command line, in their order.
struct RefineSteps {
  std::vector<refine::Step> steps;
  double withinMm = refine::kWithinMm;  ///< for what comes next
};

/// Adds all steps of `refine`; `steps` must outlive the command. Simplifying uses `form` at the time when it is run.
void addRefineSteps(Command& command, RefineSteps& steps);

}  // namespace rim::cli
