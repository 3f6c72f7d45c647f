#pragma once

#include <cstdint>
#include <string>

#include "core/drawing/outline.h"

namespace rim::io {

/// A number as 16 hexadecimal digits, which no reader of JSON rounds.
std::string hexText(std::uint64_t number);

/// An outline's id as such digits.
std::string idText(OutlineId id);

/// The id of such a text. Throws InputError when it is none.
OutlineId idFromText(const std::string& text);

}  // namespace rim::io
