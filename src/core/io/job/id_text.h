#pragma once

#include <string>

#include "core/drawing/outline.h"

namespace rim {

/// An outline's id as 16 hexadecimal digits, which no reader of JSON rounds.
std::string idText(OutlineId id);

/// The id of such a text. Throws InputError when it is none.
OutlineId idFromText(const std::string& text);

}  // namespace rim
