#pragma once

#include <vector>

#include "core/colour/inks.h"
#include "core/trace/inks/cracks.h"

namespace rim::trace::inks {

/// Of every chain of the graph whether it is so short that it may be none: where several inks meet in one place pixels
/// that are mixtures of them often show two junctions with a border of a few sides between them. One of up to two sides
/// is; of up to five it is when the borders that end at either of its ends, prolonged, meet within 0.75 px of one
/// place. No side of the picture is.
std::vector<bool> bordersThatAreNone(const CrackGraph& graph, const cv::Mat& bgr, const colour::InkMap& map);

}  // namespace rim::trace::inks
