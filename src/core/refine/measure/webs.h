#pragma once

#include <optional>
#include <stop_token>

#include "core/drawing/drawing.h"

namespace rim::refine {

/// The shortest straight way across something, from border to border.
struct Across {
  double mm = 0;
  Point at;  ///< its middle
  Point from;
  Point to;
};

/// What is thin in a drawing's material and between it. Material is what its closed outlines hold, even-odd.
struct ThinPlaces {
  std::optional<Across> web;  ///< through material; none: there is no material
  std::optional<Across> gap;  ///< through what is none, between borders; none: no border faces another one
};

/// The thinnest web and the smallest gap: the shortest straight ways through material, and through what is none, that
/// meet the borders squarely at both ends, of one outline or of two. At a corner a way is square when no border leads
/// nearer on either side of it. Lines and arcs are looked at as what they are, cubics as arcs within a ten-thousandth
/// of a mm; pairs of sides farther apart than what was found already are not looked at. Throws Cancelled.
ThinPlaces thinPlaces(const Drawing& drawing, const std::stop_token& stop = {});

}  // namespace rim::refine
