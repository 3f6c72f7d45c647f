#include "core/io/common/read_bytes.h"

#include <fstream>

#include "core/error.h"

namespace rim::io {

std::string bytesOf(const std::filesystem::path& file, std::uintmax_t mostBytes, const std::string& what) {
  std::error_code error;
  if (std::filesystem::is_directory(file, error)) throw InputError("this is a folder, not a " + what + ".");
  std::ifstream in(file, std::ios::binary);
  if (!in) throw InputError("the file cannot be opened; does it exist, and may you read it?");
  const auto size = std::filesystem::file_size(file, error);
  if (error) throw InputError("this is no ordinary file; save the " + what + " to disk first.");
  if (size > mostBytes) {
    throw InputError("the file is larger than " + std::to_string(mostBytes / 1'000'000) + " MB.");
  }
  std::string bytes(size, '\0');
  in.read(bytes.data(), static_cast<std::streamsize>(size));
  if (static_cast<std::size_t>(in.gcount()) != bytes.size()) throw InputError("the file could not be read to its end.");
  return bytes;
}

}  // namespace rim::io
