#pragma once

#include <opencv2/core.hpp>

namespace rim::colour {

/// A colour in CIE L*a*b* (D65, 2 degrees): lightness 0..100, green-red and blue-yellow.
struct Lab {
  double l = 0;
  double a = 0;
  double b = 0;

  friend bool operator==(const Lab&, const Lab&) = default;
};

/// A colour as pictures hold it: 8 bits a channel, sRGB (IEC 61966-2-1).
struct Rgb {
  int r = 0;
  int g = 0;
  int b = 0;

  friend bool operator==(const Rgb&, const Rgb&) = default;
};

/// sRGB (IEC 61966-2-1) to L*a*b* (CIE 15, D65), and back to the nearest displayable colour.
Lab labFrom(Rgb colour);
Rgb rgbFrom(Lab colour);

/// A pixel of labPicture().
inline Lab labOf(const cv::Vec3f& pixel) { return {pixel[0], pixel[1], pixel[2]}; }

/// The squared distance of two colours in L*a*b* with a* and b* taken times `colourWeight`: quicker than
/// differenceOf(), for finding the nearest of several.
inline double squareBetween(Lab one, Lab other, double colourWeight = 1) {
  const double l = one.l - other.l;
  const double a = colourWeight * (one.a - other.a);
  const double b = colourWeight * (one.b - other.b);
  return l * l + a * a + b * b;
}

/// A picture (CV_8UC3, OpenCV's channel order) in L*a*b*, CV_32FC3.
cv::Mat labPicture(const cv::Mat& bgr);

/// Y, Cb and Cr of blue, green and red (ITU-T T.871, section 7), 0..255 and -128..128.
cv::Vec3d lumaChromaOf(const cv::Vec3d& bgr);

/// The same with the chroma taken at a fifth: a measure of how far one colour is on the way to another that trusts
/// lightness where there is any. Most JPEGs keep chroma at half the resolution, so borders are blurred in it; in other
/// pictures both say the same, as mixtures are linear.
cv::Vec3d mostlyLuma(const cv::Vec3d& bgr);

/// The difference of two colours as people see it, CIEDE2000 with unit weights: about 1 is just to be
/// seen side by side, 100 black against white. Source: G. Sharma, W. Wu and E. N. Dalal, "The
/// CIEDE2000 color-difference formula: implementation notes, supplementary test data, and mathematical
/// observations", Color Research and Application 30 (2005), 21-30.
double differenceOf(Lab one, Lab other);

}  // namespace rim::colour
