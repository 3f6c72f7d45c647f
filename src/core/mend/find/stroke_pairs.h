#pragma once

#include <optional>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/geometry/nesting.h"

namespace rim::mend {

/// The two edges of a drawn stroke that closes on itself.
struct StrokePair {
  std::size_t outer = 0;
  std::size_t inner = 0;
  double widthMm = 0;         ///< the stroke's width: the median distance between the edges
  std::vector<Point> unlike;  ///< places of the outer edge that the inner one does not follow, such as a whisker
};

/// A closed outline and the one directly round it when they run side by side all along, at most `widestMm` (> 0) apart:
/// at seven in ten places of either and eight in ten of both the distance is within a quarter of the median (sharp
/// corners reach farther), and the way round is at least 8 widths. `round` are the surroundings of the drawing's paths.
std::optional<StrokePair> strokePairOf(const Drawing& drawing, Surroundings& round, std::size_t inner, double widestMm);

/// Of pairs in the order of their inner edges those in which each outline is in one at most, the first one.
std::vector<StrokePair> eachInOne(const std::vector<StrokePair>& pairs);

/// All such pairs of a drawing, each outline in one at most.
std::vector<StrokePair> strokePairs(const Drawing& drawing, double widestMm);

}  // namespace rim::mend
