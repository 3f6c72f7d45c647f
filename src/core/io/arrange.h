#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/job/file_wish.h"

namespace rim {

/// The drawing moved so that its origin lies there.
Drawing withOrigin(const Drawing& drawing, OriginAt origin);

/// The drawing on a page that is the box round all outlines and `marginMm` (>= 0) on every side.
Drawing onArtworkPage(const Drawing& drawing, double marginMm);

/// The outlines of one layer alone. Throws InputError, naming those that there are, when there is none of that name.
Drawing onlyLayer(const Drawing& drawing, const std::string& name);

}  // namespace rim
