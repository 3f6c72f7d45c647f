#pragma once

#include <optional>
#include <string>

#include "core/drawing/drawing.h"

namespace rim::io::dxf {

/// Millimetres per unit of a drawing with this $INSUNITS; none for 0 (unitless) and unknown codes.
/// Source: DXF reference, HEADER section, $INSUNITS.
std::optional<double> mmPerDxfUnit(int code);

/// A layer by its colour number (sign: off or on) and, if it is not negative, its true colour 0xRRGGBB.
Layer layerOfColour(const std::string& name, int colour, int trueColour);

}  // namespace rim::io::dxf
