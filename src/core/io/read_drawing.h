#pragma once

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "core/io/common/reading.h"
#include "core/mend/find/finding.h"

namespace rim::io {

/// Reads an SVG or DXF; the ending says which. Pieces whose ends meet are put together (mend/repair/join.h). Throws
/// InputError with a sentence that begins with the line where the fault is, if there is one: "118: arc with radius 0".
ReadResult readDrawing(const std::filesystem::path& file, const ReadOptions& options = {});

/// The same from the bytes of such a file; the name's ending says which.
ReadResult readDrawing(std::string_view bytes, const std::filesystem::path& name, const ReadOptions& options = {});

/// A finding of kind Unjoined for each outline that the file holds in pieces.
std::vector<mend::Finding> unjoined(const ReadResult& read);

/// What the drawing would measure with other units: one sentence for the person who has to choose.
std::string unitChoices(const ReadResult& read);

}  // namespace rim::io
