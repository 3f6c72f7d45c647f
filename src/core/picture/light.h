#pragma once

#include "core/picture/picture.h"

namespace rim::picture {

/// How bright the paper would be at every pixel without ink, CV_32FC1 in grey levels: a polynomial
/// of third degree in both directions, fitted to the pixels that are no darker than it says, again
/// and again until they stay the same. It follows light that falls off, not the edges of shadows.
cv::Mat lightField(const Picture& picture);

/// The darkest by the brightest place of the light field, 0..1. It is 1 where the picture gives no
/// evidence: where less than a third of it is paper, or its light parts do not follow one smooth field.
double evenness(const Picture& picture);

/// The picture with the light field divided away: paper comes out near white everywhere.
Picture withEvenLight(const Picture& picture);

/// Only its grey levels, CV_8UC1.
cv::Mat evenGrey(const Picture& picture);

}  // namespace rim::picture
