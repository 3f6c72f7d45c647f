#pragma once

#include <vector>

#include "core/trace/lines/stroke_chains.h"

namespace rim::trace::lines {

/// How wide a stroke is at each point of its middle, px: the mean distances of both its flanks, each taken over about
/// the stroke's width along it. Discs alone would be too small where the border is rough, as they touch what juts out.
std::vector<double> widthsAlong(const MedialAxis& axis, const std::vector<CentrePoint>& middle, bool closed);

}  // namespace rim::trace::lines
