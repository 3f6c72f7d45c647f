#pragma once

#include <optional>
#include <vector>

#include "core/trace/lines/stroke_track.h"

namespace rim::trace::lines {

/// An end of a track that comes to a junction.
struct Arm {
  std::size_t track = 0;  ///< index
  std::size_t end = 0;    ///< 0 its start, 1 its end
  Continuation on;
  double width = 0;
};

/// What becomes of an arm.
struct ArmEnd {
  std::optional<Point> stop;  ///< where it ends or turns; what of its track lies beyond is to be cut off
  std::vector<Point> more;    ///< points that it runs on by, in that direction; the last one may be the partner's tip
  std::optional<std::size_t> partner;  ///< index of the arm that it goes over into behind both one's `more`
  bool isCorner = false;               ///< the last point of `more` is a corner
};

/// How the arms of a junction run on: those that continue one another pair by pair go straight through; one that is
/// left over runs on to the middle of such a stroke; those that are left over without any meet at a point, and the two
/// of them that turn least are one stroke. Crossings stay crossings, a T ends on the other's middle; a corner that the
/// ink does not reach was drawn round.
std::vector<ArmEnd> meet(const MedialAxis& axis, const std::vector<Arm>& arms, const StrokeJunction& junction);

}  // namespace rim::trace::lines
