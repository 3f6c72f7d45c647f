#include "core/colour/lab.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "core/colour/strips.h"

namespace rim::colour {
namespace {

constexpr double kDegree = std::numbers::pi / 180;

double seventh(double value) { return std::pow(value, 7); }

/// 0 at grey, 1 far from it.
double farFromGrey(double chroma) {
  const double c7 = seventh(chroma);
  return std::sqrt(c7 / (c7 + seventh(25)));
}

/// A hue angle in degrees, 0..360; 0 for grey.
double hueOf(double a, double b) {
  if (a == 0 && b == 0) return 0;
  const double degrees = std::atan2(b, a) / kDegree;
  return degrees < 0 ? degrees + 360 : degrees;
}

double hueDifference(double from, double to, bool grey) {
  if (grey) return 0;
  const double difference = to - from;
  if (difference > 180) return difference - 360;
  return difference < -180 ? difference + 360 : difference;
}

double meanHue(double one, double other, bool grey) {
  const double sum = one + other;
  if (grey) return sum;
  if (std::abs(one - other) <= 180) return sum / 2;
  return sum < 360 ? (sum + 360) / 2 : (sum - 360) / 2;
}

// The white of D65 and the primaries of ITU-R BT.709 as OpenCV has them.
constexpr double kWhiteX = 0.950456;
constexpr double kWhiteZ = 1.088754;

/// Of a share of white what lightness is made of (CIE 15), and back.
double rooted(double share) { return share > 0.008856 ? std::cbrt(share) : 7.787 * share + 16.0 / 116; }
double unrooted(double root) {
  constexpr double kStraight = 0.206893;  // the root of 0.008856
  return root > kStraight ? root * root * root : (root - 16.0 / 116) / 7.787;
}

/// The sRGB curve (IEC 61966-2-1): what a channel says of light, 0..1, and back.
double decoded(double channel) {
  return channel <= 0.04045 ? channel / 12.92 : std::pow((channel + 0.055) / 1.055, 2.4);
}
double encoded(double light) {
  return light <= 0.0031308 ? 12.92 * std::max(0.0, light) : 1.055 * std::pow(light, 1 / 2.4) - 0.055;
}

/// Both curves as tables. OpenCV's own conversion makes tables of every colour first, which takes longer than all else
/// that is done to a small picture; with these a conversion is exact to 0.01.
struct Curves {
  static constexpr std::size_t kSteps = 8192;
  std::array<float, 256> light{};
  std::array<float, kSteps + 2> roots{};

  Curves() {
    for (std::size_t i = 0; i < light.size(); ++i) light[i] = static_cast<float>(decoded(static_cast<double>(i) / 255));
    for (std::size_t i = 0; i < roots.size(); ++i)
      roots[i] = static_cast<float>(rooted(static_cast<double>(i) / kSteps));
  }

  float root(float share) const {
    const float at = share * kSteps;
    const auto step = std::min(static_cast<std::size_t>(at), kSteps);
    return roots[step] + (roots[step + 1] - roots[step]) * (at - static_cast<float>(step));
  }

  cv::Vec3f lab(float b, float g, float r) const {
    constexpr auto kX = static_cast<float>(1 / kWhiteX);
    constexpr auto kZ = static_cast<float>(1 / kWhiteZ);
    const float x = root(kX * (0.412453F * r + 0.357580F * g + 0.180423F * b));
    const float y = root(0.212671F * r + 0.715160F * g + 0.072169F * b);
    const float z = root(kZ * (0.019334F * r + 0.119193F * g + 0.950227F * b));
    return {116 * y - 16, 500 * (x - y), 200 * (y - z)};
  }
};

const Curves& theCurves() {
  static const Curves curves;
  return curves;
}

}  // namespace

Lab labFrom(Rgb colour) {
  const Curves& curves = theCurves();
  const auto light = [&curves](int value) { return curves.light[static_cast<std::size_t>(std::clamp(value, 0, 255))]; };
  return labOf(curves.lab(light(colour.b), light(colour.g), light(colour.r)));
}

Rgb rgbFrom(Lab colour) {
  const double fy = (colour.l + 16) / 116;
  const double x = kWhiteX * unrooted(fy + colour.a / 500);
  const double y = unrooted(fy);
  const double z = kWhiteZ * unrooted(fy - colour.b / 200);
  const auto channel = [](double light) { return cv::saturate_cast<std::uint8_t>(255 * encoded(light)); };
  return {channel(3.240479 * x - 1.537150 * y - 0.498535 * z), channel(-0.969256 * x + 1.875991 * y + 0.041556 * z),
          channel(0.055648 * x - 0.204043 * y + 1.057311 * z)};
}

cv::Mat labPicture(const cv::Mat& bgr) {
  cv::Mat lab(bgr.size(), CV_32FC3);
  const Curves& curves = theCurves();
  forStrips(bgr.rows, [&](const cv::Range& rows) {
    for (int y = rows.start; y < rows.end; ++y) {
      const auto* from = bgr.ptr<cv::Vec3b>(y);
      auto* to = lab.ptr<cv::Vec3f>(y);
      for (int x = 0; x < bgr.cols; ++x)
        to[x] = curves.lab(curves.light[from[x][0]], curves.light[from[x][1]], curves.light[from[x][2]]);
    }
  });
  return lab;
}

cv::Vec3d lumaChromaOf(const cv::Vec3d& bgr) {
  const double y = 0.299 * bgr[2] + 0.587 * bgr[1] + 0.114 * bgr[0];
  return {y, (bgr[0] - y) / 1.772, (bgr[2] - y) / 1.402};
}

cv::Vec3d mostlyLuma(const cv::Vec3d& bgr) {
  constexpr double kChroma = 0.2;
  const cv::Vec3d all = lumaChromaOf(bgr);
  return {all[0], kChroma * all[1], kChroma * all[2]};
}

double differenceOf(Lab one, Lab other) {
  const double meanChroma = (std::hypot(one.a, one.b) + std::hypot(other.a, other.b)) / 2;
  const double stretch = 1 + 0.5 * (1 - farFromGrey(meanChroma));
  const double a1 = one.a * stretch;
  const double a2 = other.a * stretch;
  const double c1 = std::hypot(a1, one.b);
  const double c2 = std::hypot(a2, other.b);
  const double h1 = hueOf(a1, one.b);
  const double h2 = hueOf(a2, other.b);
  const bool grey = c1 * c2 == 0;

  const double lightness = other.l - one.l;
  const double chroma = c2 - c1;
  const double hue = 2 * std::sqrt(c1 * c2) * std::sin(hueDifference(h1, h2, grey) / 2 * kDegree);

  const double l = (one.l + other.l) / 2 - 50;
  const double c = (c1 + c2) / 2;
  const double h = meanHue(h1, h2, grey);
  const double t = 1 - 0.17 * std::cos((h - 30) * kDegree) + 0.24 * std::cos(2 * h * kDegree) +
                   0.32 * std::cos((3 * h + 6) * kDegree) - 0.20 * std::cos((4 * h - 63) * kDegree);
  const double weightL = 1 + 0.015 * l * l / std::sqrt(20 + l * l);
  const double weightC = 1 + 0.045 * c;
  const double weightH = 1 + 0.015 * c * t;
  const double blue = (h - 275) / 25;
  const double turn = -std::sin(2 * 30 * std::exp(-blue * blue) * kDegree) * 2 * farFromGrey(c);

  const double dl = lightness / weightL;
  const double dc = chroma / weightC;
  const double dh = hue / weightH;
  return std::sqrt(std::max(0.0, dl * dl + dc * dc + dh * dh + turn * dc * dh));
}

}  // namespace rim::colour
