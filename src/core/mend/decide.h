#pragma once

#include <memory>
#include <stop_token>
#include <string>
#include <vector>

#include "core/mend/find/inspected.h"
#include "core/mend/step.h"

namespace rim::mend {

/// The names of the repairs that a finding can get, the proposed one first: "join", "nearest" (joins however far, but
/// crosses nothing), "drop", "one", "once" and "twice" (of a border that two outlines share; twice leaves it at that),
/// "outer", "inner", "centre", "untangle", "split", "cut off", "merge". Empty when there is none.
std::vector<std::string> repairsFor(const Finding& finding);

/// The drawing with one finding of it repaired. Unknown repairs change nothing. Throws Cancelled.
Drawing repaired(const Drawing& drawing, const Finding& finding, const std::string& repair,
                 const MendSettings& settings, const std::stop_token& stop = {});

/// The drawing with all findings of a kind repaired.
Drawing repairedAll(const Drawing& drawing, FindingKind kind, const std::string& repair, const MendSettings& settings,
                    const std::stop_token& stop = {});

/// The drawing with all repaired that cannot be seen: dots and nodes in one place, lines drawn twice, and ends, loops,
/// spikes, specks and scraps of less than `invisibleMm`.
Drawing repairedSafely(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop = {});

/// The drawing with every repair done that is proposed: all that mended() does, and what is proposed to be dropped.
/// What was left by one of the steps, whose places are `mmPerUnit` large, stays.
Drawing repairedAsProposed(const Drawing& drawing, const MendWork& work, double mmPerUnit = 1,
                           const std::stop_token& stop = {});

/// A drawing after decisions, and which of them (indices into the steps) were about a finding that cannot be found
/// again: something above them changed.
struct Decided {
  Drawing drawing;
  std::vector<std::size_t> lost;
};

/// The drawing (mm) after all decisions in order, oriented; their places are in units of `mmPerUnit`.
/// Throws Cancelled.
Decided decided(const Drawing& drawing, const MendWork& work, double mmPerUnit = 1, const std::stop_token& stop = {});

/// What decisions made of a drawing, and what is known on the way, so that one more needs no new beginning. A value.
struct Decisions {
  std::shared_ptr<const Drawing> start;  ///< mm; null: nothing was decided yet
  double mmPerUnit = 1;
  MendWork work;
  Drawing drawing;  ///< after all of it, not oriented
  std::vector<std::size_t> lost;
  Inspected inspected;  ///< of the drawing before one of the last decisions
};

/// The same from what may be known: where `before` began with the same drawing (shared) and decided the first of these
/// steps, only the others are done. `known` are the faults of some state of it. What comes out is just what comes of
/// doing all of them. Throws Cancelled.
Decisions decisionsOn(std::shared_ptr<const Drawing> start, const MendWork& work, double mmPerUnit,
                      const Decisions& before = {}, const Inspected& known = {}, const std::stop_token& stop = {});

/// The findings (mm) of a drawing without those that were left, and without common borders that are to be drawn twice.
/// Places of steps are in units of `mmPerUnit`.
std::vector<Finding> withoutLeft(std::vector<Finding> findings, const Drawing& drawing, const MendWork& work,
                                 double mmPerUnit = 1);

/// What is told of decisions that found nothing, as findings; the repair "forget" takes such a decision back.
std::vector<Finding> lostDecisions(const Drawing& drawing, const MendWork& work, const std::vector<std::size_t>& lost,
                                   double mmPerUnit = 1);

}  // namespace rim::mend
