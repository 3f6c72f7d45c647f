#pragma once

#include "core/picture/picture.h"
#include "support/pictures.h"

namespace rim::bench {

/// 2000 x 2000 px, blurred artwork: rings of stars, some 70 outlines and 30 000 px of border.
inline picture::Picture fourMegapixels() {
  static const picture::Picture picture = [] {
    cv::Mat grey(2000, 2000, CV_8UC1, cv::Scalar(255));
    for (int k = 0; k < 64; ++k) {
      const double x = 130 + 248.0 * (k % 8);
      const double y = 130 + 248.0 * (k / 8);
      const cv::Mat star = test::drawn(236, 236, test::polygon(test::starCorners(118, 118, 5 + k % 5, 112, 50, k)));
      star.copyTo(grey(cv::Rect(static_cast<int>(x) - 118, static_cast<int>(y) - 118, 236, 236)));
    }
    return test::pictureOf(grey);
  }();
  return picture;
}

}  // namespace rim::bench
