#pragma once

#include <vector>

#include "core/refine/propose/proposal.h"

namespace rim::refine {

/// Circles of nearly one radius, each proposal a group of them made of the mean one.
std::vector<Proposal> equalRadii(const Drawing& drawing, double withinMm);

/// Circles with nearly one centre, each proposal a group of them moved to that of the largest.
std::vector<Proposal> concentric(const Drawing& drawing, double withinMm);

/// Like outlines (nearly one size and area), three or more, nearly evenly spaced in a row or all round a circle.
std::vector<Proposal> evenlySpaced(const Drawing& drawing, double withinMm);

}  // namespace rim::refine
