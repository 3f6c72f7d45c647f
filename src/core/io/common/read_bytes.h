#pragma once

#include <cstdint>
#include <filesystem>
#include <string>

namespace rim::io {

/// All bytes of a file that should be a `what` ("drawing"). Throws InputError when it cannot be read, is no ordinary
/// file, or is larger than `mostBytes`.
std::string bytesOf(const std::filesystem::path& file, std::uintmax_t mostBytes, const std::string& what);

}  // namespace rim::io
