#pragma once

#include "core/mend/open_ends.h"
#include "core/mend/settings.h"

namespace rim {

/// A drawing after a repair, and how often it was done.
struct Repaired {
  Drawing drawing;
  std::size_t count = 0;
};

/// Joins the ends that belong together (mend/open_ends.h), so that loose lines in any order and direction become the
/// longest outlines that they can. Lines that go on in one line, and arcs on one circle, become one. A joined path lies
/// where the first of its parts lay in the list, on that part's layer; all else stays as it is. Where ends meet at
/// junctions of borders only (mend/branches.h), nothing is open and all stays.
Repaired joinEnds(const Drawing& drawing, const MendSettings& settings);

/// Joins one pair of ends, whatever their distance.
Drawing joinPair(const Drawing& drawing, const EndPair& pair, const MendSettings& settings);

}  // namespace rim
