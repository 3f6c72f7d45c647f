#pragma once

#include <functional>
#include <vector>

#include "core/colour/lab.h"
#include "core/picture/picture.h"

namespace rim::test {

/// Which of the colours a place has; y down.
using Area = std::function<std::size_t(double x, double y)>;

/// Flat artwork, each pixel the mean of its colours at 8 x 8 places.
picture::Picture artwork(int width, int height, const std::vector<colour::Rgb>& colours, const Area& area);

/// The same after a JPEG of this quality, colours at half the resolution.
picture::Picture asJpeg(const picture::Picture& picture, int quality);

}  // namespace rim::test
