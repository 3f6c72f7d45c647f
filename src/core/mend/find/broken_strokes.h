#pragma once

#include <vector>

#include "core/mend/find/open_ends.h"

namespace rim::mend {

/// Pairs of ends of pen strokes where the pen's ink failed: lonely ends that point at each other, each by less than 35
/// degrees, over a break of at most three times the stroke's width; the nearest first, each end once. A pen's middle
/// stops half a width before the ink does: the break is what no ink covers. Short lines that would go on at both ends
/// are dashes and stay; so do lines shorter than twice the way over. An end of a line without a width is no stroke's.
std::vector<EndPair> brokenStrokes(const Drawing& drawing, const std::vector<End>& lonely);
std::vector<EndPair> brokenStrokes(const Drawing& drawing, const OpenEnds& ends);

/// The smooth way over a break: a cubic that goes on along both lines; a line where they lie on one.
Path bridgeOf(const EndPair& pair);

}  // namespace rim::mend
