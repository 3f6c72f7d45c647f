#pragma once

#include <cstddef>
#include <map>
#include <stop_token>
#include <string>
#include <string_view>
#include <vector>

namespace rim::io::dxf {

/// A DXF text brought to what its reader can rely on: only entities that are outlines, every number checked, every
/// count right, and each entity's handle (group 5) replaced by its line in the original file.
struct CleanDxf {
  std::string text;
  std::map<std::string, std::size_t> leftOut;  ///< kinds of entity that are no outlines, and how many
};

/// Checks a DXF text (pairs of lines: group code and value; DXF reference, "DXF Files") and cleans it.
/// Throws InputError beginning with the line of the fault, Cancelled when a stop is requested.
CleanDxf cleanDxf(std::string_view bytes, const std::stop_token& stop = {});

}  // namespace rim::io::dxf
