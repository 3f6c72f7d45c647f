#pragma once

#include <vector>

#include "core/geometry/path.h"
#include "core/trace/lines/stroke_track.h"

namespace rim::trace::lines {

/// The path of straight lines through points; `points` must not be empty.
Path pathThrough(const std::vector<Point>& points, bool closed);

/// The box round points.
Box boxOf(const std::vector<Point>& points);

/// A box for each point, for a BoxIndex.
std::vector<Box> boxesAt(const std::vector<Point>& points);

/// The same line with points kTrackStepPx apart; `points` must not be empty.
std::vector<Point> evenly(const std::vector<Point>& points);

/// So many points of a track from one of them on (`step` 1) or back (-1), without the first `skip`; fewer where an open
/// track ends, round and round a closed one.
std::vector<Point> pointsFrom(const StrokeTrack& track, std::size_t at, int step, std::size_t skip, std::size_t count);

/// How far points of two stretches together are off the line or circle that suits them best, px: the mean.
double offOf(std::vector<Point> one, const std::vector<Point>& other);

/// How far a place lies beside a line of points, px; before its start or behind its end from there.
double besideOf(const std::vector<Point>& line, Point p);

}  // namespace rim::trace::lines
