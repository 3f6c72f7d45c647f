#pragma once

#include <optional>
#include <vector>

#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// How wide the pen was, px, when all strokes of a net were drawn with one; none when they differ by more than an
/// eighth, or any is an area. Needs tracks.
std::optional<double> penWidthOf(const StrokeNet& net);

/// How wide the pen of a whole drawing was, px; none when it is not drawn with one for the most part.
std::optional<double> penWidthOf(const std::vector<StrokeNet>& nets);

/// The lines that a round pen of one width drew, by what its edges show (pen_stretches.h): ends that other strokes hide
/// go straight on to each other where they can, else on to the first line ahead, else to where two of them meet. All
/// that is added lies in the ink as deep as the pen's middle does.
std::vector<StrokeLine> penLines(const MedialAxis& axis, double width);

/// Lines of ink, and how well they describe it.
struct Description {
  std::vector<StrokeLine> lines;
  double misfitPx = 0;  ///< how far the border is from where a pen would have left it, had it drawn these lines
};

/// The description that lines of a pen about `width` px wide are. The misfit is the mean of what each sample is off by,
/// at most a tenth of the width; of widths up to a tenth off the one that fits the lines counts.
Description described(const MedialAxis& axis, std::vector<StrokeLine> lines, double width);

/// Of two descriptions the one from which the ink's border follows clearly better, else the first.
Description truerOf(Description first, Description second);

}  // namespace rim::trace::lines
