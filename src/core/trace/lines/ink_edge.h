#pragma once

#include <optional>

#include "core/trace/lines/medial_axis.h"

namespace rim::trace::lines {

/// Where the line from `from` in a direction leaves the ink: the farthest crossing with the ring between two samples,
/// the shorter way; none when it does not, or they are of two rings.
std::optional<Point> leavesInk(const MedialAxis& axis, std::uint32_t a, std::uint32_t b, Point from, Point direction);

}  // namespace rim::trace::lines
