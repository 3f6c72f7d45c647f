#pragma once

#include <numbers>
#include <string>
#include <vector>

#include "core/geometry/path.h"
#include "core/trace/settings.h"
#include "core/trace/split/split.h"

namespace rim::trace::outline {

/// Lines and axes within this of level, or of another's direction, become so: 0.3 degrees.
inline constexpr double kMostTurnRadians = 0.3 * std::numbers::pi / 180;

/// The rules' names for files and command lines: level, parallel, radii, concentric, tangent.
std::vector<std::string> namesOf(const Rules& rules);

/// The rules that are named, and no others. Throws InputError for a name that is none.
Rules rulesNamed(const std::vector<std::string>& names);

/// The pieces of one outline made regular: lines turn about their middles, circles move and change
/// their radii, each piece by no more than keeps its points within six tenths of `tolerancePx`.
/// What would leave them is left as it is.
std::vector<split::TrackPiece> madeRegular(const split::Track& track, std::vector<split::TrackPiece> pieces,
                                           const Rules& rules, double tolerancePx);

/// Outlines that are one circle each (two half circles): those with nearly equal radii get the same
/// one, those with nearly the same centre become concentric; "nearly" is a quarter of `tolerancePx`.
void makeCirclesRegular(std::vector<Path>& outlines, const Rules& rules, double tolerancePx);

}  // namespace rim::trace::outline
