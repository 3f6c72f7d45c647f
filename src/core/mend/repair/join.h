#pragma once

#include "core/mend/find/open_ends.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// A drawing after a repair, and how often it was done.
struct Repaired {
  Drawing drawing;
  std::size_t count = 0;
};

/// Joins the ends that belong together (mend/find/open_ends.h), so that loose lines in any order and direction become
/// the longest outlines that they can. Lines that go on in one line, and arcs on one circle, become one. What is
/// joined is still the outline that the first of its parts in the list was; all else stays as it is. Where ends meet at
/// junctions of borders only (mend/find/branches.h), nothing is open and all stays.
Repaired joinEnds(const Drawing& drawing, const MendSettings& settings);

/// An outline that was there in pieces.
struct JoinedOutline {
  OutlineId outline = OutlineId::None;
  std::size_t pieces = 0;  ///< that it was made of; 1: its own ends met
  std::size_t joints = 0;  ///< places where ends met
  Point at;                ///< the start of the first piece, mm
};

struct PutTogether {
  Drawing drawing;
  std::vector<JoinedOutline> joined;
};

/// Joins the ends of open paths on one layer that meet within `coincidentMm`, but for those at a junction of borders
/// that part areas (mend/find/branches.h), and those of lines that are drawn twice in part: a file that holds every
/// segment by itself means the outlines that they make. Nothing moves farther than that, and no segments become one.
PutTogether putTogether(const Drawing& drawing, const MendSettings& settings = {});

/// Joins pairs of ends, whatever their distance.
Drawing joinPairs(const Drawing& drawing, const std::vector<EndPair>& pairs, const MendSettings& settings);
Drawing joinPair(const Drawing& drawing, const EndPair& pair, const MendSettings& settings);

}  // namespace rim::mend
