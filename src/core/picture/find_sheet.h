#pragma once

#include <optional>
#include <stop_token>

#include "core/picture/preparation.h"

namespace rim::picture {

/// A sheet that was found in a photograph.
struct FoundSheet {
  Quad corners;          ///< upper left first, clockwise as seen; may lie outside the picture
  double certainty = 0;  ///< 0..1, the weakest side's: how much of it parts paper from something else
  bool sure = false;     ///< certain enough to be taken without asking
};

/// The sheet of paper in a photograph, whatever it lies on, or nothing when there is none that takes a tenth of the
/// picture or more, or it fills the picture.
///
/// Straight edges of lightness and of colour are found in a small copy (R. Grompone von Gioi et al., "LSD: a fast line
/// segment detector with a false detection control", IEEE PAMI 32 (2010), 722-732) and those in line are put together.
/// Of all quadrilaterals of four of them the one is taken whose sides part paper from what is not along most of their
/// length, and that holds one paper, light or in a shadow, and ink. Each side is then fitted to the steepest places
/// along lines across it, in the colour in which both of its sides differ most, and neighbouring sides are met. Where a
/// sheet leaves the picture its fourth side is put at the rim, as the perspective of the other three says: square
/// corners, a focal length of 1.2 picture widths (as of a phone; common practice, no source). Throws Cancelled.
std::optional<FoundSheet> findSheet(const Picture& picture, const std::stop_token& stop = {});

}  // namespace rim::picture
