#pragma once

#include <string>
#include <string_view>

#include "core/geometry/path.h"

namespace rim::io {

/// A path as text without any loss: the start "x y", then of every segment "L x y" (a line), "A x y bulge" (an arc, its
/// bulge as in DXF) or "C x1 y1 x2 y2 x y" (a cubic). Every number has as many digits as bring the same number back.
std::string textOf(const Path& path);

/// The path of such a text. Throws InputError when it is none, or holds places farther away than kFarthestMm.
Path pathFrom(std::string_view text, bool closed);

}  // namespace rim::io
