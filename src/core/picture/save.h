#pragma once

#include <cstddef>
#include <vector>

#include "core/picture/picture.h"

namespace rim {

/// The picture's pixels as a PNG file, without loss. Throws WriteError when memory does not suffice.
std::vector<std::byte> pngOf(const Picture& picture);

}  // namespace rim
