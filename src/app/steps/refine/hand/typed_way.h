#pragma once

#include <QString>
#include <optional>

#include "core/geometry/point.h"

namespace rim::app {

/// The way that a typed length means (mm, > 0), in the direction of `way`; or a length and an angle in degrees,
/// counter-clockwise from the right: "40<30". None: it is none, or there is no direction.
std::optional<Point> typedWay(const QString& typed, Point way);

}  // namespace rim::app
