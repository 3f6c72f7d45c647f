#pragma once

#include <opencv2/core.hpp>
#include <optional>
#include <stop_token>
#include <vector>

#include "core/picture/picture.h"
#include "core/trace/contour/border.h"
#include "core/trace/contour/roughness.h"
#include "core/trace/contour/sharpen.h"
#include "core/trace/contour/threshold.h"
#include "core/trace/contour/wanted_coverage.h"

namespace rim::trace::contour {

/// The grey levels that are traced in two tones, and what is known of the edges in them.
struct Tones {
  cv::Mat grey;
  TwoTone tone;
  EdgeLevel level = EdgeLevel::Coverage;
  double mostNoisePx = std::numeric_limits<double>::infinity();  ///< what borders may be off by (trace/contour/grain.h)
  std::vector<Roughness> rough{};                                ///< of each border, beyond that
  std::optional<WantedCoverage> greys{};  ///< what outlines can be judged by (trace/outline/by_greys.h); else nothing
  int fineness = 1;                       ///< of the borders (trace/contour/fine_borders.h)
};

/// The tones of a picture as these settings mean them. With the automatic threshold uneven light is divided away first,
/// and a blur of small clean pictures taken away (trace/contour/deblur.h). Throws Cancelled.
Tones tonesFor(const picture::Picture& picture, const TraceSettings& settings, const std::stop_token& stop = {});

/// Finds how rough each of the borders (of the picture's own fineness) is; `mostNoisePx` is what grain makes of them.
void judgeNoise(Tones& tones, double mostNoisePx, const std::vector<Border>& borders);

/// The borders to fit outlines to: those of a small clean picture are followed anew, finer than its pixels. Says
/// whether the picture is small and has greys at its edges that tell more than its borders (`greys`). Those that
/// enclose somewhat less than `minAreaPx2` are among them, as corners that pixels round off are missing from their
/// area. Throws what followBorders() throws.
std::vector<Border> finer(Tones& tones, std::vector<Border> borders, double minAreaPx2, std::stop_token stop);

/// Border i where the edge is; as it is within `keepPx` of the places `keep`.
SharpBorder measuredBorder(const Tones& tones, std::size_t i, const Border& border, std::span<const Point> keep = {},
                           double keepPx = 0);

}  // namespace rim::trace::contour
