#pragma once

#include <opencv2/core.hpp>

#include "core/geometry/path.h"

namespace rim::trace::outline {

/// The path (upright px) without what reaches beyond a picture of this size by more than 0.02 px: nodes and handles are
/// brought back to its rim, arcs become cubics before. A path that stays within is left as it is.
Path withinPicture(Path path, cv::Size picture);

}  // namespace rim::trace::outline
