#pragma once

#include <stop_token>

#include "core/trace/inks/ink_borders.h"

namespace rim::trace::inks {

/// Borders that cross nothing without what is too thin or too short to be seen (zigzags and hooks of less than 1.1 px,
/// segments of less than 0.06 px, slivers: trace/inks/slivers.h), but what they would cross without. Throws Cancelled.
InkBorders withoutUnseen(const InkBorders& borders, const std::stop_token& stop);

}  // namespace rim::trace::inks
