#pragma once

#include <vector>

#include "core/geometry/path.h"
#include "core/trace/contour/tones.h"
#include "core/work_control.h"

namespace rim::trace::outline {

/// What an outline is fitted to, and how closely.
struct FitTarget {
  contour::Border points{};  ///< empty: the border as it is measured
  double roundingPx = 1.2;   ///< FitSettings::roundingPx
  double gapPx = 7;          ///< FitSettings::gapPx
  bool settled = false;      ///< it stays as it is
};

/// More rounds gain next to nothing; the first one most.
inline constexpr int kMostGreyRounds = 4;

/// Outlines that agree better with the greys of a small picture, `tones.greys`, which must be there.
///
/// Each is fitted several times: as if pixels rounded corners off as usual, by less, and hardly; to the points of its
/// border in few lines; and again with those of its points that could not be measured moved to where the rendered
/// greys (trace/contour/rendering.h) say that the edge is. The one is taken whose greys agree best, each node's price
/// (trace/split/split.h) counted; so in each of `rounds`, until nothing changes. `targets` are what the outlines were
/// fitted to, one each, and change with them. Throws Cancelled.
void agreeWithGreys(std::vector<Path>& outlines, std::vector<FitTarget>& targets, const contour::Tones& tones,
                    const std::vector<contour::SharpBorder>& borders, const TraceSettings& settings, int rounds,
                    const WorkControl& control);

}  // namespace rim::trace::outline
