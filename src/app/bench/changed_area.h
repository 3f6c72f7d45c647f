#pragma once

#include <optional>

#include "core/drawing/drawing.h"

namespace rim::app {

/// A box round all outlines that one of two drawings has and the other has not, or has elsewhere; empty when they look
/// the same. None when those that both have lie in another order.
std::optional<Box> changedArea(const Drawing& before, const Drawing& after);

}  // namespace rim::app
