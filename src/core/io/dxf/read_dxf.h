#pragma once

#include <string_view>

#include "core/io/common/reading.h"

namespace rim::io::dxf {

/// Reads the outlines of a DXF text (R12 and later) with dxflib: LINE, ARC, CIRCLE, ELLIPSE, LWPOLYLINE, POLYLINE,
/// SPLINE and INSERT (scale, turn, arrays, blocks within blocks) of the model space, on layers that are neither off nor
/// frozen. Drawings mirrored by an extrusion of (0, 0, -1) are turned over. What is no outline is counted in notes.
/// Throws InputError beginning with the line of the fault: numbers that are none, an arc without radius, a block within
/// itself, a file that ends too early.
ReadResult readDxf(std::string_view bytes, const ReadOptions& options = {});

}  // namespace rim::io::dxf
