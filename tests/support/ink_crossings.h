#pragma once

#include <algorithm>
#include <vector>

#include "core/geometry/crossing.h"
#include "core/geometry/flatten.h"
#include "core/trace/inks/ink_outlines.h"

namespace rim::test {

/// Where outlines of one ink cross themselves or each other, save at junctions, where areas of one ink may meet.
inline std::vector<Point> crossingsOffJunctions(const trace::inks::InkBorders& borders, std::size_t inks,
                                                double chordErrorPx = 0.01) {
  std::vector<Point> places;
  for (std::size_t ink = 0; ink < inks; ++ink) {
    std::vector<bool> only(inks, false);
    only[ink] = true;
    std::vector<Polyline> outlines;
    for (const Path& path : trace::inks::outlinesRound(borders, only)) outlines.push_back(flatten(path, chordErrorPx));
    for (const Crossing& crossing : findCrossings(outlines, {})) {
      const auto meets = [&crossing](Point junction) { return distance(junction, crossing.place) < 0.1; };
      if (std::none_of(borders.junctions.begin(), borders.junctions.end(), meets)) places.push_back(crossing.place);
    }
  }
  return places;
}

}  // namespace rim::test
