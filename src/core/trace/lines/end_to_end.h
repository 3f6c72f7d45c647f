#pragma once

#include <vector>

#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// Lines that end at one place made one, which is one move of a machine: of several that end there the two that go on
/// straightest are the first; of an odd number one is left over. One whose own ends meet is closed. Lines that only end
/// on another one stay; so does what would run back beside itself, and what ends at an area.
std::vector<StrokeLine> endToEnd(std::vector<StrokeLine> lines);

}  // namespace rim::trace::lines
