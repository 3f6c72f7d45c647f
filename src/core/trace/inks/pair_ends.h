#pragma once

#include <cstddef>
#include <vector>

#include "core/trace/inks/lone_inks.h"
#include "core/trace/inks/ways.h"

namespace rim::trace::inks {

/// Which border goes over into which other one in the junctions. End 2 i is the start of border i, 2 i + 1 its end.
struct EndPairs {
  static constexpr std::size_t kNone = static_cast<std::size_t>(-1);

  std::vector<std::size_t> partner;  ///< of each end, or kNone
  std::vector<bool> bent;            ///< it goes over along a lone ink's outline, not straight
};

/// First those that go over into each other most straightly, within 20 degrees; then those along an outline of a lone
/// ink (trace/inks/lone_inks.h) without a corner, in the order of these inks, as far as one ink lies beside all of the
/// way. Nothing goes on at a corner of the picture, and its sides only into each other.
EndPairs pairedEnds(const std::vector<Junction>& junctions, const std::vector<InkBorder>& borders,
                    const LoneInks& lone);

}  // namespace rim::trace::inks
