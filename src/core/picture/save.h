#pragma once

#include <cstddef>
#include <vector>

#include "core/picture/picture.h"

namespace rim::picture {

/// The picture's pixels as a PNG file, without loss: packed once for all that share them. It lives as long as one of
/// these. Throws WriteError when memory does not suffice.
const std::vector<std::byte>& pngOf(const Picture& picture);

}  // namespace rim::picture
