#pragma once

#include "core/picture/preparation.h"

namespace rim::picture {

/// How the practice camera looks at a drawing. It stands in for a phone, so that the way from a
/// photo to outlines can be learned and tested without one.
struct PracticeShot {
  double tiltDegrees = 25;  ///< the sheet leans back, -50..50
  double panDegrees = -15;  ///< the sheet turns aside, -50..50
  double rollDegrees = 4;   ///< the phone is not held level, -45..45
  double lightFall = 0.5;   ///< what share of the light is lost across the picture, 0..0.9
  double blurPx = 0.8;      ///< standard deviation, 0..5
  double noiseLevels = 3;   ///< standard deviation in grey levels, 0..40
  double fabricDepth = 0;   ///< a plain weave of threads 4 px wide: by what share it darkens between threads, 0..0.5
  int widthPx = 1600;       ///< of the photo, 4 by 3; 200..6000
  unsigned seed = 1;        ///< of the noise and of the threads
  friend bool operator==(const PracticeShot&, const PracticeShot&) = default;
};

/// The photo, and where the corners of the sheet truly are in it.
struct PracticePhoto {
  Picture picture;
  Quad corners;
};

/// The drawing, a sheet on a dark table, taken by a pinhole camera of 1.2 picture widths focal
/// length (R. Hartley and A. Zisserman, "Multiple View Geometry in Computer Vision", 2nd ed.
/// 2004, 6.1). The sheet is moved away until it is all in the picture.
PracticePhoto takePracticePhoto(const Picture& drawing, const PracticeShot& shot);

}  // namespace rim::picture
