#pragma once

#include <vector>

#include "core/trace/lines/stroke_lines.h"
#include "core/trace/settings.h"

namespace rim::trace::lines {

/// Makes the parts on which these places lie the other thing: an area of what was a line, a line of what was an area;
/// with a second place on the same part it is again what it was. A part is a track, or the whole of a dot; all parts of
/// its net where a switch is of the whole. A place within a part's ink, or hardly beside it (3 px, or
/// three fifths of its width), is on the nearest; others are passed over. The nets need their tracks.
void switchParts(std::vector<StrokeNet>& nets, const std::vector<PartSwitch>& switches);

/// Whether anything of a net with tracks keeps its borders.
bool hasArea(const StrokeNet& net);

}  // namespace rim::trace::lines
