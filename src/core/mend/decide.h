#pragma once

#include <stop_token>
#include <string>
#include <vector>

#include "core/mend/find/finding.h"
#include "core/mend/find/settings.h"

namespace rim {

/// One decision about findings, kept in the job and made anew whenever the outlines change.
struct MendStep {
  enum class What {
    One,        ///< repair the finding of this kind nearest to `at`
    Kind,       ///< repair all findings of this kind
    Safe,       ///< repair all that cannot be seen
    Leave,      ///< leave the finding of this kind at this place: it is listed no more
    Proposals,  ///< take every repair that is proposed
  };
  What what = What::Safe;
  FindingKind kind = FindingKind::OpenEnd;
  /// In the units of the outlines that are mended: upright px of a picture, mm of a drawing that was read. So it stays
  /// in its place whatever size is wished for.
  Point at;
  std::string repair;  ///< one of repairsFor()

  friend bool operator==(const MendStep&, const MendStep&) = default;
};

/// What is to be mended in a job, and what counts as a fault.
struct MendWork {
  MendSettings settings;
  std::vector<MendStep> steps;

  friend bool operator==(const MendWork&, const MendWork&) = default;
};

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
/// What was left by one of the `steps`, whose places are `mmPerUnit` large, stays.
Drawing repairedAsProposed(const Drawing& drawing, const MendSettings& settings,
                           const std::vector<MendStep>& steps = {}, double mmPerUnit = 1,
                           const std::stop_token& stop = {});

/// The drawing (mm) after all decisions in order, oriented; their places are in units of `mmPerUnit`. A decision about
/// a place where nothing of its kind is found any more within 1 mm is passed over. Throws Cancelled.
Drawing decided(const Drawing& drawing, const MendWork& work, double mmPerUnit = 1, const std::stop_token& stop = {});

/// The findings (mm) without those that were left, and without common borders that are to be drawn twice. Places of
/// steps are in units of `mmPerUnit`.
std::vector<Finding> withoutLeft(std::vector<Finding> findings, const std::vector<MendStep>& steps,
                                 double mmPerUnit = 1);

}  // namespace rim
