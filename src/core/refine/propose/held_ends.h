#pragma once

#include <vector>

#include "core/drawing/drawing.h"
#include "core/refine/propose/proposal.h"

namespace rim::refine {

/// An end of an open outline.
struct HeldEnd {
  std::size_t outline = 0;
  bool atStart = false;
  Point place;  ///< mm
};

/// The ends of all open outlines of a drawing (mm).
std::vector<HeldEnd> endsIn(const Drawing& drawing);

/// Those that lie on an outline other than their own, within 0.002 mm.
std::vector<HeldEnd> endsOn(const std::vector<HeldEnd>& ends, const Drawing& drawing, std::size_t outline);

/// A proposal for which all holds together as it did: where lines end on an outline that it changes, they come along,
/// and the outline has a node there. What the proposal changes itself ends where it says.
Proposal withHeldEnds(Proposal proposal, const Drawing& drawing, const std::vector<HeldEnd>& ends);

}  // namespace rim::refine
