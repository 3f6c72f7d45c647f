#pragma once

#include <filesystem>
#include <string>

#include "core/drawing/drawing.h"
#include "core/job/file_wish.h"

namespace rim::io::dxf {

/// Writes the drawing as DXF in its unit, y up, with $INSUNITS, $MEASUREMENT and the extents of the outlines, each
/// outline as one entity (io/dxf/dxf_entities.h). Numbers have at most six decimals (eight in inches), bulges twelve.
/// Throws WriteError; InputError when cubics are to be written as R12, which has no curves.
/// A note, when there is one, becomes a comment (group code 999) on one line.
/// `withinMm` (> 0): how far an ELLIPSE may lie from the curves that it stands for.
void writeDxf(const Drawing& drawing, const std::filesystem::path& file, job::DxfVersion version,
              const std::string& note = {}, double withinMm = 0.001);

/// The same as a text. Throws InputError.
std::string dxfTextOf(const Drawing& drawing, job::DxfVersion version, const std::string& note = {},
                      double withinMm = 0.001);

}  // namespace rim::io::dxf
