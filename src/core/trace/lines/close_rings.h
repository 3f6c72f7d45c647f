#pragma once

#include <vector>

#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// The same ink with as many closed figures as its corners allow. Where a line ends on another one that bends there, no
/// one sees which two of the three arms the pen drew at once: they are joined so that a ring closes, and the third arm
/// ends on it. Where a line goes straight on it stays, as do rings that are closed; a corner sharper than a right angle
/// by more than a little is not made. Of several rings in question the one that costs the least bending is closed
/// first. `width`: of the pen, px, > 0.
std::vector<StrokeLine> withRingsClosed(std::vector<StrokeLine> lines, double width);

}  // namespace rim::trace::lines
