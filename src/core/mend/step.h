#pragma once

#include <string>
#include <vector>

#include "core/mend/find/finding.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// One decision about findings, kept in the job and made anew whenever the outlines change.
struct MendStep {
  enum class What {
    One,        ///< repair one finding of this kind
    Kind,       ///< repair all findings of this kind
    Safe,       ///< repair all that cannot be seen
    Leave,      ///< leave one finding of this kind: it is listed no more
    Proposals,  ///< take every repair that is proposed
  };
  What what = What::Safe;
  FindingKind kind = FindingKind::OpenEnd;
  /// Of One and Leave: where the finding is, in the units of the outlines that are mended: upright px of a picture, mm
  /// of a drawing that was read. So it stays in its place whatever size is wished for.
  Point at;
  std::string repair;  ///< one of repairsFor()
  /// Of One and Leave: the outlines that take part. None: of a job file that knew none yet; the place alone tells.
  OutlineId outline = OutlineId::None;
  OutlineId other = OutlineId::None;
  double area = 0;  ///< that `outline` encloses, in those units squared

  friend bool operator==(const MendStep&, const MendStep&) = default;
};

/// What is to be mended in a job, and what counts as a fault.
struct MendWork {
  MendSettings settings;
  std::vector<MendStep> steps;

  friend bool operator==(const MendWork&, const MendWork&) = default;
};

/// The decision `what` about a finding of this drawing (mm), whose place is kept in units of `mmPerUnit`.
MendStep stepFor(const Drawing& drawing, const Finding& finding, MendStep::What what, const std::string& repair,
                 double mmPerUnit = 1);

/// Which of the findings of a drawing (mm) a One or Leave step is about: of its kind and of one of its outlines the one
/// nearest to its place; where those outlines are not there any more, as the trace above changed, the nearest of an
/// outline that encloses as much within a quarter. Never farther off than twice the gap that counts, or a fiftieth of
/// the diagonal of the outline's box. None: it cannot be found again.
std::optional<std::size_t> foundAgain(const MendStep& step, const Drawing& drawing,
                                      const std::vector<Finding>& findings, const MendSettings& settings,
                                      double mmPerUnit = 1);

}  // namespace rim::mend
