#pragma once

#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/geometry/box_index.h"
#include "core/refine/propose/proposal.h"

namespace rim::refine {

/// Tells proposals that would break outlines. It knows where the outlines of a drawing (mm) lie, which may have moved
/// by up to `withinMm` since.
class ProposalGuard {
 public:
  ProposalGuard(const Drawing& drawing, double withinMm);

  /// Whether there would be more crossings, loops, spikes and lines drawn twice than there are, among what the proposal
  /// changes and what lies beside it, as Mend finds them. Where lines cross in more places than Mend looks at, nothing
  /// is told to break. Throws Cancelled.
  bool breaks(const Drawing& now, const Proposal& proposal, const std::stop_token& stop) const;

 private:
  std::vector<std::size_t> beside(const Path& path) const;

  double withinMm_;
  std::vector<std::size_t> outlineOf_;  ///< of each chord
  BoxIndex chords_;
};

}  // namespace rim::refine
