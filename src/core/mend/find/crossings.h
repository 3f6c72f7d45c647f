#pragma once

#include <stop_token>
#include <vector>

#include "core/mend/find/double_lines.h"
#include "core/mend/find/piece_index.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// A place on a path by segment and share of it.
struct OnPath {
  std::size_t path = 0;
  std::size_t segment = 0;
  double t = 0;
};

/// A place where a path passes through itself or another one, from one side to the other.
struct TrueCrossing {
  OnPath a;
  OnPath b;  ///< on the same path: farther along than a
  Point place;
};

/// All true crossings, each once. Passing by within `touchMm` is touching; where two lines run on one track
/// (`covered`), and within `gapMm` of the end of an open path, nothing counts as crossing: those are double lines and
/// open ends. A path that comes back onto its own line and runs on along it counts as crossing itself where it does.
/// Lines of different layers do not cross. Throws InputError when there are more than 100 000.
std::vector<TrueCrossing> trueCrossings(const Drawing& drawing, const PieceIndex& index,
                                        const std::vector<CoveredStretch>& covered, const MendSettings& settings,
                                        const std::stop_token& stop = {});

/// The open path from one place to a later one of the same path.
Path between(const Path& path, const OnPath& from, const OnPath& to);

/// The open path up to a place on it, where it ends at `place`; from a place on it, where it starts at `place`. Without
/// a segment when nothing lies there.
Path upTo(const Path& path, const OnPath& at, Point place);
Path from(const Path& path, const OnPath& at, Point place);

/// The rest of the path: of a closed one from `to` on over its start to `from`; of an open one from its start to `from`
/// joined to what comes after `to`. Its nodes at both places become one, at `place`.
Path without(const Path& path, const OnPath& from, const OnPath& to, Point place);

}  // namespace rim::mend
