#pragma once

#include <stop_token>
#include <vector>

#include "core/mend/find/piece_index.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// A stretch of a segment that lies on another path's line, or on another stretch of its own.
struct CoveredStretch {
  std::size_t path = 0;
  std::size_t segment = 0;
  double from = 0;  ///< 0..1 along the segment
  double to = 1;
  std::size_t byPath = 0;  ///< whose line lies there as well
  std::size_t bySegment = 0;
  double byFrom = 0;  ///< the same stretch on that segment; descending when it runs the other way
  double byTo = 1;
  double lengthMm = 0;
};

/// Whether a path comes back onto its own line and runs on along it: a loop that closes along a stretch, not a second
/// line.
inline bool isRetraced(const CoveredStretch& c) { return c.path == c.byPath && c.byFrom < c.byTo; }

/// Every stretch that is drawn twice, named as part of the path that is the better one to leave out: an open one rather
/// than a closed one, one of short segments rather than of long ones, the shorter one, the later one. Lines of
/// different layers are no doubles: what lies on different layers is cut from different sheets. Neighbours along a path
/// do not count (mend/find/small_faults.h finds spikes). Two arcs or curves over what approximates them count when they
/// stay within `doubleMm`. Straight lines that only pass each other at a small angle do not (mend/find/straight_on.h).
/// Throws InputError when there are more than 300 000.
std::vector<CoveredStretch> coveredStretches(const Drawing& drawing, const PieceIndex& index,
                                             const MendSettings& settings, const std::stop_token& stop = {});

/// Whether a path that covers a stretch of itself does so within a twenty-fifth of `doubleMm`: it runs there and back
/// on one line, as to a hole, while two sides that only come near each other bound something.
bool liesOnItself(const Path& path, const CoveredStretch& c, double doubleMm);

/// What a path has in common with another one, or with itself, along all its stretches.
struct CommonTrack {
  std::size_t path = 0;
  std::size_t byPath = 0;
  double lengthMm = 0;
  CoveredStretch longest;
  bool whole = false;     ///< the path lies on the other one all along
  bool onItself = false;  ///< a stretch of it liesOnItself()
};

/// The covered stretches by pairs of paths, ascending; what is retraced is left out.
std::vector<CommonTrack> commonTracks(const Paths& paths, const std::vector<CoveredStretch>& covered, double doubleMm);

}  // namespace rim::mend
