#pragma once

#include <filesystem>

#include "core/sketch/solid.h"

namespace rim::io {

/// Writes a solid as a binary STL, mm: 80 bytes that say what it is, the number of triangles, and each as its normal
/// and corners in 32-bit floats (3D Systems, "StereoLithography Interface Specification", 1989). Written beside and
/// renamed. Throws WriteError.
void writeStl(const sketch::Solid& solid, const std::filesystem::path& file);

}  // namespace rim::io
