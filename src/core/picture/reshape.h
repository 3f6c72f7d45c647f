#pragma once

#include "core/picture/preparation.h"

namespace rim::picture {

/// The rectangle of the picture. Throws InputError when it is empty or leaves the picture.
Picture cropped(const Picture& picture, const Crop& crop);

/// The rectangle round all ink, with a margin of paper where the picture has any. Ink is the
/// darker of Otsu's two groups; specks below 4 px2 do not count. Throws InputError without ink.
Crop cropToInk(const Picture& picture, int marginPx);

/// Turned counter-clockwise about its middle; the picture grows to hold all of it and what comes
/// in at the corners has the colour of the nearest edge. Quarter turns move pixels only.
Picture turned(const Picture& picture, double degrees);

Picture mirrored(const Picture& picture);

/// More pixels by Lanczos interpolation over 8 x 8 pixels, which keeps edges steep.
/// Throws InputError past kMostPixels.
Picture enlarged(const Picture& picture, double factor);

/// Noise taken away and edges kept: a median of 3 x 3 against single pixels, then a bilateral
/// filter (C. Tomasi and R. Manduchi, "Bilateral filtering for gray and color images", ICCV 1998)
/// as strong as the noise that is measured times `strength`.
Picture denoised(const Picture& picture, double strength);

}  // namespace rim::picture
