#pragma once

#include <cstddef>
#include <filesystem>
#include <map>
#include <span>
#include <string>
#include <vector>

namespace rim::io {

/// The parts of a zip file by their names.
using ZipParts = std::map<std::string, std::vector<std::byte>>;

/// Reads the named parts; a part that is not there is left out.
/// Throws InputError when the file is no zip, is damaged, or a part holds more than `mostBytes`
/// when it is unpacked: that is told before any of it is unpacked.
ZipParts readZip(const std::filesystem::path& file, const std::vector<std::string>& names, std::size_t mostBytes);

/// A part to be written; its bytes are looked at, not copied.
struct ZipPart {
  std::string name;
  std::span<const std::byte> bytes;
  bool packed = false;  ///< as it is: nothing would be gained by packing it again
};

/// Writes a zip with these parts to `file`, over whatever is there. Throws WriteError.
void writeZip(const std::filesystem::path& file, const std::vector<ZipPart>& parts);

}  // namespace rim::io
