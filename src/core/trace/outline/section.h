#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/geometry/cubic.h"
#include "core/trace/split/split.h"

namespace rim::trace::outline {

/// A smooth stretch of a border, between two corners or straight edges, or all round: places where
/// a curve may be cut, the first and the last included, as indexes into the track.
struct Section {
  std::vector<std::size_t> cuts;
  std::optional<Point> start;         ///< where the curves begin; none: on the border
  std::optional<Point> end;           ///< and where they end
  std::optional<Point> startTangent;  ///< unit, of what goes over into it smoothly; none at a corner
  std::optional<Point> endTangent;
  bool startSlides = false;  ///< the start may move along its tangent: a straight edge lies before it
  bool endSlides = false;    ///< and so may the end
  double kinkDegrees = 6;    ///< a turn of more than this, and than noise explains, is kept
  bool closed = false;       ///< goes round: its start and its end are one smooth place
};

/// Cubics that follow a section, and what they cost as splitTrack() prices pieces.
struct CurveRun {
  double price = 0;
  std::vector<Cubic> cubics;
};

/// As few cubics as follow the section within the border's noise, joined smoothly (G1): dynamic
/// programming over the cuts, each range fitted with free tangents; then all are moved together
/// (trace/fit/polish.h) and neighbours become one wherever that costs less. Nothing when no cubics do.
std::optional<CurveRun> curvesAlong(const split::Track& track, const Section& section,
                                    const split::SplitLimits& limits);

/// What a cubic costs beside its misfit (trace/split/split.h).
inline constexpr double kPriceOfCubic = 22;

}  // namespace rim::trace::outline
