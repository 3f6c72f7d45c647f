#pragma once

#include <memory>
#include <stop_token>
#include <vector>

#include "core/refine/step.h"

namespace rim::refine {

/// What the first of some steps made of a drawing.
struct SoFar {
  std::vector<Step> steps;
  Refined refined;
};

/// What steps made of a drawing, and what they had made before the last of them, which is the one that is dragged or
/// taken back most. A value.
struct Refining {
  std::shared_ptr<const Drawing> start;  ///< mm; null: nothing was done yet
  double mmPerUnit = 1;
  std::vector<SoFar> states;  ///< at most two, that of fewer steps first

  /// What all the steps made.
  const Refined& refined() const { return states.back().refined; }
};

/// All the steps done on a drawing in mm, whose own units measure `mmPerUnit`. Where `before` began with the same
/// drawing (shared), only those are done that come after what is known; what comes out is what done() makes of all of
/// them. Throws as done().
Refining refinedOn(std::shared_ptr<const Drawing> start, const std::vector<Step>& steps, double mmPerUnit,
                   const Refining& before = {}, const std::stop_token& stop = {});

}  // namespace rim::refine
