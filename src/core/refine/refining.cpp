#include "core/refine/refining.h"

#include <algorithm>

namespace rim::refine {
namespace {

bool isBeginningOf(const std::vector<Step>& first, const std::vector<Step>& all) {
  return first.size() <= all.size() && std::equal(first.begin(), first.end(), all.begin());
}

/// A state after one more step.
SoFar after(const SoFar& state, const Step& step, double mmPerUnit, const std::stop_token& stop) {
  SoFar next = state;
  next.steps.push_back(step);
  append(next.refined, done(state.refined.drawing, step, stop, mmPerUnit));
  return next;
}

}  // namespace

Refining refinedOn(std::shared_ptr<const Drawing> start, const std::vector<Step>& steps, double mmPerUnit,
                   const Refining& before, const std::stop_token& stop) {
  Refining all{start, mmPerUnit, {{{}, {*start, {}}}}};
  if (before.start == start && before.mmPerUnit == mmPerUnit) {
    for (const SoFar& state : before.states) {
      if (isBeginningOf(state.steps, steps)) all.states = {state};
    }
  }
  while (all.states.back().steps.size() < steps.size()) {
    SoFar next = after(all.states.back(), steps[all.states.back().steps.size()], mmPerUnit, stop);
    all.states = {std::move(all.states.back()), std::move(next)};
  }
  return all;
}

}  // namespace rim::refine
