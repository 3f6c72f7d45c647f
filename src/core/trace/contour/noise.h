#pragma once

#include "core/trace/contour/border.h"

namespace rim::trace::contour {

/// The standard deviation of the border's points across it, in px: what smooth curves leave over.
///
/// A circle or line is fitted to every window of 16 points and what is left is taken at its
/// median over all windows, so that corners, in less than half of them, do not count. Slow waves
/// as JPEG blocks make them are seen as far as they are shorter than a window. Where the border
/// itself turns within a window, as small letters do, windows of 8 points bound what may be noise.
double noiseOf(const Border& border);

}  // namespace rim::trace::contour
