#pragma once

#include <array>
#include <vector>

#include "core/trace/lines/shown_middles.h"

namespace rim::trace::lines {

/// How a stretch of a pen's way ends.
struct StretchEnd {
  enum class Kind {
    Free,    ///< the pen stopped there
    Hidden,  ///< other strokes hide how it goes on
    OnLine,  ///< it comes onto another stretch, or the same one
  };
  Kind kind = Kind::Free;
  std::size_t stretch = 0;  ///< OnLine: which one
  Point at;                 ///< OnLine: where on it
  Point out;                ///< unit, on beyond the end, as the border runs there
};

/// A stretch of a pen's way that the border shows.
struct PenStretch {
  std::vector<Point> points;   ///< in order, at no regular distance
  std::vector<double> widths;  ///< px, where both edges are seen
  bool closed = false;
  std::array<StretchEnd, 2> ends;
};

/// The way of a pen `width` px wide that drew this ink, as far as it is shown (shownMiddles()), each part of it once:
/// both edges of a stroke show the same, when they put it nearer to each other than the share `same` of the width.
/// Borders that show it all round are followed first, then the longest.
std::vector<PenStretch> penStretches(const MedialAxis& axis, const BorderNearby& border, double width, double same);

}  // namespace rim::trace::lines
