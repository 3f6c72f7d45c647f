#pragma once

#include <vector>

#include "core/drawing/drawing.h"

/// Which closed outlines of a drawing lie in each other, each layer by itself.
namespace rim {

/// How many closed outlines of its layer lie round each outline: an odd number round a hole. 0 for open ones.
std::vector<int> depthsOf(const Drawing& drawing);

/// Every area that closed outlines bound (even-odd): its border, and behind it its holes, by their places.
std::vector<std::vector<std::size_t>> areasOf(const Drawing& drawing);

}  // namespace rim
