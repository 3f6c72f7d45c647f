#pragma once

#include <set>
#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/mend/repair/join.h"
#include "core/trace/lines/centrelines.h"

namespace rim::mend {

/// The middles of the strokes that an area consists of: `rings` are its outline and its holes, whichever way they run,
/// in any unit, and so are the lines. Empty when it is no stroke: when any of it is wider than `widest` (> 0), the
/// width along a line changes by more than half, or all of it together is shorter than four times its width.
///
/// The area is looked at so large that its strokes are kStrokePx wide, as the ink of a traced picture is
/// (trace/lines/centrelines.h). Where a stroke's end is cut off flat the line runs to it, as a pen with a flat tip was
/// led; at a round end it ends where the pen's middle did. Throws Cancelled.
std::vector<trace::lines::Centreline> middleLinesOf(const std::vector<const Path*>& rings, double widest,
                                                    const std::stop_token& stop = {});

/// The same without a look at the widths: of any area that is nowhere wider than `widest`, strokes that taper, too.
std::vector<trace::lines::Centreline> middlesOf(const std::vector<const Path*>& rings, double widest,
                                                const std::stop_token& stop = {});

/// How wide a stroke is made before its middle is looked for.
inline constexpr double kStrokePx = 16;

/// Every area of a drawing that was drawn as a stroke round its ends, or as several that meet, and is at most `widest`
/// wide becomes the middle lines of its strokes, with their widths; its holes go. Areas are bounded by closed outlines
/// (even-odd), each layer by itself. What is in `without` and what is no stroke stays. Throws Cancelled.
Repaired strokesToMiddles(const Drawing& drawing, double widest, const std::set<OutlineId>& without = {},
                          const std::stop_token& stop = {});

}  // namespace rim::mend
