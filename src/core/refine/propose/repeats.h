#pragma once

#include <stop_token>
#include <vector>

#include "core/refine/propose/proposal.h"

namespace rim::refine {

/// Parts (a border with its holes) that are nearly one part, moved, turned and perhaps mirrored: each proposal a group
/// of at least two on one layer, all made of the one with the fewest segments, in their places. A part is brought onto
/// another one by iterated closest points (see symmetryOf()) from every tenth degree, by up to `withinMm` (> 0) and
/// a sixtieth of its smaller side. Circles are left to equalRadii(). Throws Cancelled.
std::vector<Proposal> repeatedParts(const Drawing& drawing, double withinMm, const std::stop_token& stop = {});

}  // namespace rim::refine
