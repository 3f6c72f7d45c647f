#pragma once

#include "core/picture/preparation.h"

namespace rim::picture {

/// Ink in black on white paper: darker than the mean of the square round each pixel by more than
/// the bias. For light that stays uneven (OpenCV's adaptive mean threshold), with edges softened to
/// one pixel so that borders can be measured between pixels.
Picture withLocalThreshold(const Picture& picture, const LocalThreshold& what);

/// Jagged borders made smooth: ink and paper are blurred and parted again half-way, which takes
/// away what is smaller than about `px` and rounds corners by about as much.
Picture withSmoothEdges(const Picture& picture, double px);

/// Brush strokes painted in white (paper) or black (ink), their rims covering pixels in part.
Picture touchedUp(const Picture& picture, const TouchUp& what);

/// Everything inside or outside the frame in white. The frame may reach beyond the picture.
Picture cleared(const Picture& picture, const ClearFrame& what);

/// Every pixel whose colour differs from the picked one by no more than the tolerance becomes
/// white or black. Differences are CIE76, the distance in CIE L*a*b* (CIE 15:2004, 8.2.1).
/// Throws InputError when the place lies outside the picture.
Picture withColourPicked(const Picture& picture, const PickColour& what);

}  // namespace rim::picture
