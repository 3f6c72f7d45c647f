#pragma once

#include <algorithm>
#include <optional>
#include <vector>

#include "core/geometry/box_index.h"
#include "core/trace/lines/medial_axis.h"

namespace rim::trace::lines {

/// The middle of a pen as a sample of the border shows it: half the pen's width inside. What a pen drew is all that
/// lies within half its width of its way, so wherever an edge of its stroke is seen, that distance inside the edge is
/// its way; round the tip of a stroke, and outside a corner, the middle stands still.
struct ShownMiddle {
  Point place;
  Point way;           ///< unit, along the ring
  bool shown = false;  ///< false where another stroke hides it, and at the inner side of a corner
};

/// Tells how far places in the ink are from its border.
class BorderNearby {
 public:
  /// The axis is kept by reference.
  explicit BorderNearby(const MedialAxis& axis);

  /// Whether no sample of the border lies nearer to the place than `radius` px.
  bool isClear(Point place, double radius) const;

  /// How far it is from a place in the ink to its border in a direction (unit), px; none when that is beyond `reach`.
  std::optional<double> wayOut(Point from, Point direction, double reach) const;

 private:
  const MedialAxis& axis_;
  BoxIndex index_;
};

/// The middle that each sample shows of a pen `width` px wide.
std::vector<ShownMiddle> shownMiddles(const MedialAxis& axis, const BorderNearby& border, double width);

/// How far a tangent of the border reaches to either side, px: the wider the pen, the farther aside noise would put its
/// middle.
inline double tangentReachOf(double width) { return std::max(1.5, width / 8); }

/// By how much a place may lie nearer to the border than half the pen's width and still be its middle, px.
inline double slackOf(double width) { return std::max(0.4, 0.025 * width); }

}  // namespace rim::trace::lines
