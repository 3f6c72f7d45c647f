#pragma once

#include <cstdint>
#include <vector>

#include "core/trace/contour/border.h"

namespace rim::trace::lines {

/// A point of a border of the ink, and where along its ring.
struct RingSample {
  Point place;
  std::uint32_t ring = 0;  ///< index into MedialAxis::rings
  double along = 0;        ///< px from the ring's first sample
};

/// A ring of samples that follow each other, `first` to `end` - 1 and round again.
struct SampleRing {
  std::uint32_t first = 0;
  std::uint32_t end = 0;
  double length = 0;  ///< px
};

/// The middle of a disc that touches the border in two places or more and lies in the ink.
struct AxisPoint {
  Point place;
  double radius = 0;  ///< px
};

/// Points `from` and `to` are joined by middles between two samples of the border.
struct AxisEdge {
  std::uint32_t from = 0;
  std::uint32_t to = 0;
  std::uint32_t left = 0;   ///< sample beside it, seen from `from` to `to`
  std::uint32_t right = 0;  ///< the other one
};

/// The medial axis of ink: all middles of largest discs in it, with what their discs touch.
struct MedialAxis {
  std::vector<RingSample> samples;
  std::vector<SampleRing> rings;
  std::vector<AxisPoint> points;
  std::vector<AxisEdge> edges;
};

/// The medial axis of one island of ink with its holes, without the branches into corners and bumps of its border.
///
/// `rings` are the island (counter-clockwise) and its holes (clockwise) in upright px. The axis is the inner part of
/// the Voronoi diagram of points along them, at most `kSampleSpacingPx` apart (Boost.Polygon, which is exact), pruned
/// by how much longer the border between the two touched places is than the chord between them: R. L. Ogniewicz and O.
/// Kübler, "Hierarchic Voronoi skeletons", Pattern Recognition 28 (1995), 343-359 (chord residual). A branch whose
/// residual nowhere exceeds `pruning` times its disc's radius goes: at 2 a round tip, a square one and a mitred corner
/// of 55 degrees and more have none, and a stroke's axis ends about where the pen's middle stopped. What is left stays
/// connected, and goes round each hole. Empty when all of it goes: a dot.
MedialAxis medialAxis(const std::vector<const contour::Border*>& rings, double pruning);

/// No two neighbouring samples lie farther apart.
inline constexpr double kSampleSpacingPx = 0.75;

/// The ring's length between two of its samples, the shorter way.
double wayAlongRing(const MedialAxis& axis, std::uint32_t a, std::uint32_t b);

/// 1 where the shorter way from one sample of a ring to another goes on along it, -1 where it goes back.
int shorterWay(const MedialAxis& axis, std::uint32_t a, std::uint32_t b);

/// The sample so many after (or, negative, before) another one, round and round its ring.
std::uint32_t sampleBeside(const MedialAxis& axis, std::uint32_t sample, std::ptrdiff_t by);

}  // namespace rim::trace::lines
