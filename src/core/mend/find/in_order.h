#pragma once

#include <vector>

#include "core/mend/find/finding.h"

namespace rim::mend {

/// Findings by kind, those first for which something is proposed, then by the places of their outlines in the drawing,
/// then from left to right and up.
std::vector<Finding> inOrder(std::vector<Finding> findings, const OutlinePlaces& places);

}  // namespace rim::mend
