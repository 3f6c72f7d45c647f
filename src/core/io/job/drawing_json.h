#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/drawing/drawing.h"

namespace rim::io {

/// A drawing without any loss: every number is written with as many digits as bring the same number back. An object of
/// `page` (width, height, mm), `layers` (name, colour) and `paths`, each with `closed`, its `layer` where there are
/// layers, its `id`, what else an outline knows of itself where it does, and its outline `d`: the start "x y", then of
/// every segment "L x y" (a line), "A x y bulge" (an arc, its bulge as in DXF) or "C x1 y1 x2 y2 x y" (a cubic), mm, y
/// up.
nlohmann::json toJson(const Drawing& drawing);

/// The drawing that toJson() wrote. Throws InputError when it is none, or holds more than kMostSegments segments or
/// places farther away than kFarthestMm.
Drawing drawingFrom(const nlohmann::json& json);

}  // namespace rim::io
