#pragma once

#include <optional>
#include <set>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/drawing/guide.h"
#include "core/geometry/box_index.h"
#include "core/geometry/segment.h"

namespace rim::refine {

/// What a place can be brought to.
enum class SnapTo { Node, Crossing, Quadrant, Tangent, Middle, Centre, Guide, Line, Grid };
inline constexpr std::size_t kSnaps = 9;

/// What else there is to bring places to than outlines, in the drawing's frame.
struct SnapAids {
  std::vector<rim::Guide> guides;
  double grid = 0;            ///< from one line of a grid through the origin to the next; 0: there is none
  std::optional<Point> from;  ///< where a line comes from, which may touch a curve
};

struct Snapped {
  Point place;
  SnapTo to = SnapTo::Node;
};

/// What places of a drawing can be brought to, so that what lies near one is found without a look at all. n log n to
/// build; a copy of the segments is kept.
class SnapIndex {
 public:
  explicit SnapIndex(const Drawing& drawing);

  /// What lies within `reach` of a place: the nearest node or end, else crossing (of guides, too), quadrant of an arc,
  /// place where a line from elsewhere touches a curve, middle of a segment, centre of an arc, else the nearest place
  /// of a guide, of an outline, or of a grid's crossings. `wanted` says which of them count; outlines in `without` do
  /// not. None: nothing is there.
  std::optional<Snapped> at(Point place, double reach, const std::set<SnapTo>& wanted,
                            const std::set<OutlineId>& without = {}, const SnapAids& aids = {}) const;

 private:
  struct Side {
    Piece piece;
    OutlineId outline;
  };
  struct Centre {
    Point place;
    OutlineId outline;
  };
  static std::vector<Box> sidesOf(const Drawing& drawing, std::vector<Side>& sides);
  static std::vector<Box> centresOf(const std::vector<Side>& sides, std::vector<Centre>& centres);

  std::vector<Side> sides_;
  std::vector<Centre> centres_;
  BoxIndex ofSides_;
  BoxIndex ofCentres_;
};

/// The same for a single place.
std::optional<Snapped> snapped(const Drawing& drawing, Point place, double reach, const std::set<SnapTo>& wanted,
                               const std::set<OutlineId>& without = {}, const SnapAids& aids = {});

}  // namespace rim::refine
