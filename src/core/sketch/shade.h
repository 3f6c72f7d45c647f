#pragma once

#include <opencv2/core.hpp>

#include "core/sketch/solid.h"

namespace rim::sketch {

/// How a solid is looked at: turned round its upright axis, then tilted towards the eye; radians.
struct Sight {
  double turn = 0.2;
  double tilt = 0.9;  ///< 0: from above, pi / 2: from the side
};

/// The solid as it is seen from far away (no perspective), filling the picture but for a margin: per pixel how much
/// light comes from there, 1..255, by Lambert's cosine law with light from the upper left; 0 where nothing is. What is
/// nearer hides what lies behind it (a depth buffer). n in pixels that triangles cover.
cv::Mat1b shaded(const Solid& solid, const Sight& sight, cv::Size size);

}  // namespace rim::sketch
