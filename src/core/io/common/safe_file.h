#pragma once

#include <filesystem>
#include <functional>

namespace rim::io {

/// Writes a file whole or not at all: `write` is given a name beside `file` to write to; when it
/// returns, the new file is flushed to the disk and put in the place of an older one. When it
/// throws, or the disk is full, the older file stays as it was and nothing is left behind.
/// A symbolic link keeps pointing, and the permissions of an older file are kept; one that is protected against writing
/// is not replaced.
/// Throws WriteError with one sentence, and whatever `write` throws.
void writeBeside(const std::filesystem::path& file, const std::function<void(const std::filesystem::path&)>& write);

}  // namespace rim::io
