#include "core/mend/branches.h"

#include "core/geometry/segment.h"

namespace rim {

bool Branches::lies(const End& end, std::size_t but, bool endsCount) const {
  Box place;
  place.include(end.place);
  bool found = false;
  index_.near(place, coincidentMm_, [&](std::size_t i) {
    const IndexedPiece& other = index_.pieces()[i];
    if (found || other.path == end.path || other.path == but) return;
    if (distanceTo(other.piece, end.place) > coincidentMm_) return;
    const Path& path = paths_[other.path];
    const bool atEnd = !path.closed && (distance(path.start, end.place) <= coincidentMm_ ||
                                        distance(path.segments.back().end, end.place) <= coincidentMm_);
    found = endsCount || !atEnd;
  });
  return found;
}

}  // namespace rim
