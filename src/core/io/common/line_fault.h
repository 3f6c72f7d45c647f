#pragma once

#include <concepts>
#include <string>

#include "core/error.h"

namespace rim::io {

/// Throws InputError with a sentence behind the line of the file that it is about: "118: arc with radius 0".
[[noreturn]] inline void failAt(std::integral auto line, const std::string& what) {
  throw InputError(std::to_string(line) + ": " + what);
}

/// "3 texts": a count in the notes on what was left out.
inline std::string countOf(std::size_t count, const std::string& what) { return std::to_string(count) + " " + what; }

}  // namespace rim::io
