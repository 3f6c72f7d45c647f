#pragma once

#include "core/picture/preparation.h"

namespace rim::picture {

/// Width by height of the true rectangle of which `corners` is a photograph.
///
/// Source: Z. Zhang and L.-W. He, "Whiteboard scanning and image enhancement", Digital Signal
/// Processing 17 (2007), 414-432, section 3: square pixels, the optical axis through the middle of
/// the picture. Where the perspective is too weak to give the focal length (two sides almost
/// parallel in the picture) one of 1.2 picture widths is taken, as of a phone (common practice, no source).
double estimateSideRatio(const Quad& corners, int widthPx, int heightPx);

/// Whether the corners, in their order, go round a convex quadrilateral.
bool isConvex(const Quad& corners);

/// The sheet between the corners as a rectangle of this ratio, about as many pixels as it has in
/// the picture. Corners that are not given are found; throws InputError when that is not sure, and as prepared() does.
Picture straightened(const Picture& picture, const Straighten& what);

}  // namespace rim::picture
