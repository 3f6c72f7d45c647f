#pragma once

#include <array>
#include <limits>
#include <vector>

#include "core/trace/lines/medial_axis.h"

namespace rim::trace::lines {

/// A point of the middle of a stroke, upright px.
struct CentrePoint {
  Point place;
  double halfWidth = 0;
  std::uint32_t left = 0;   ///< sample of the border at its left
  std::uint32_t right = 0;  ///< and at its right
};

/// Where a chain ends.
struct ChainEnd {
  static constexpr std::size_t kFree = std::numeric_limits<std::size_t>::max();
  std::size_t junction = kFree;  ///< index of the junction, or a free end
  double radius = 0;             ///< of the disc there
};

/// A stretch of a stroke between two places where strokes meet or end.
struct StrokeChain {
  std::vector<CentrePoint> points;
  bool closed = false;  ///< a ring that meets no other stroke: the last point goes over into the first
  std::array<ChainEnd, 2> ends;
};

/// Where a tail that was left out ended: near the tip of the corner that two strokes make.
struct TailTip {
  Point place;
  std::uint32_t left = 0;  ///< samples of the border at both sides of it
  std::uint32_t right = 0;
};

/// A place where strokes meet: a disc that holds those of the axis there.
struct StrokeJunction {
  Point place;
  double radius = 0;
  std::vector<TailTip> tails;
};

/// Strokes as the medial axis shows them: chains, and the places where they meet.
struct StrokeGraph {
  std::vector<StrokeChain> chains;
  std::vector<StrokeJunction> junctions;
};

/// The chains of a medial axis. Tails that taper away from a junction into the corner of two strokes are left out;
/// junctions whose discs overlap, as those of two strokes that cross at a small angle, are one.
StrokeGraph strokeChains(const MedialAxis& axis);

}  // namespace rim::trace::lines
