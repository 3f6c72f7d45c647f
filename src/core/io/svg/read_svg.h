#pragma once

#include <string_view>

#include "core/io/common/reading.h"

namespace rim::io::svg {

/// Reads the outlines of an SVG with libxml2 and svgpp: paths, all basic shapes, nested transforms and viewports,
/// "use" and "symbol". Hidden elements (display, visibility, by attribute, style or class) are left out, so is what is
/// only a definition; text and pictures are counted in notes. Groups of the top level with a title become layers.
/// Units: as CSS has them, 96 px an inch; ReadOptions::mmPerUnit is the size of a px then.
/// Throws InputError beginning with the line of the fault.
ReadResult readSvg(std::string_view bytes, const ReadOptions& options = {});

}  // namespace rim::io::svg
