#pragma once

#include <filesystem>
#include <string>

#include "core/drawing/drawing.h"
#include "core/job/file_wish.h"

namespace rim {

/// Writes the drawing as DXF in its unit, y up, with $INSUNITS, $MEASUREMENT and the
/// extents of the outlines. Every path of lines and arcs becomes one polyline with bulges; a path
/// that holds a cubic becomes one SPLINE of degree 3 through all its nodes (DXF 2000 only).
/// Throws WriteError; InputError when cubics are to be written as R12, which has no curves.
/// A note, when there is one, becomes a comment (group code 999) on one line.
void writeDxf(const Drawing& drawing, const std::filesystem::path& file, DxfVersion version,
              const std::string& note = {});

}  // namespace rim
