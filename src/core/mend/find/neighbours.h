#pragma once

#include <functional>
#include <optional>
#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// The outlines on which another one's faults may hang, ascending by their place in the drawing.
struct Neighbours {
  std::vector<std::size_t> touching;  ///< segments of theirs come within what counts as one line or one node
  std::vector<std::size_t> ending;    ///< open as well, and an end of theirs comes within what may be joined
};

/// The neighbours of every outline. n log n for lines spread out. Throws Cancelled, and InputError when lines lie over
/// each other too often (mend/find/piece_index.h).
std::vector<Neighbours> neighboursOf(const Drawing& drawing, const MendSettings& settings,
                                     const std::stop_token& stop = {});

/// Those of one outline alone. n, and the segments of what lies near it.
Neighbours neighboursOf(const Drawing& drawing, std::size_t outline, const MendSettings& settings);

/// How far the ends of two lines may be apart that a pairing looks at together, mm.
double reachOfEnds(const MendSettings& settings);

}  // namespace rim::mend
