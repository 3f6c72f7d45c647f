#include "core/colour/lab.h"

#include <cmath>
#include <numbers>
#include <opencv2/imgproc.hpp>

#include "core/colour/strips.h"

namespace rim {
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

}  // namespace

Lab labFrom(Rgb colour) {
  cv::Mat one(1, 1, CV_32FC3, cv::Scalar(colour.b / 255.0, colour.g / 255.0, colour.r / 255.0));
  cv::cvtColor(one, one, cv::COLOR_BGR2Lab);
  const auto lab = one.at<cv::Vec3f>(0, 0);
  return {lab[0], lab[1], lab[2]};
}

Rgb rgbFrom(Lab colour) {
  cv::Mat one(1, 1, CV_32FC3, cv::Scalar(colour.l, colour.a, colour.b));
  cv::cvtColor(one, one, cv::COLOR_Lab2BGR);
  const auto bgr = one.at<cv::Vec3f>(0, 0);
  const auto channel = [](float value) { return cv::saturate_cast<std::uint8_t>(value * 255); };
  return {channel(bgr[2]), channel(bgr[1]), channel(bgr[0])};
}

cv::Mat labPicture(const cv::Mat& bgr) {
  cv::Mat lab(bgr.size(), CV_32FC3);
  forStrips(bgr.rows, [&](const cv::Range& rows) {
    cv::Mat unit;
    bgr.rowRange(rows).convertTo(unit, CV_32FC3, 1 / 255.0);
    cv::Mat own = lab.rowRange(rows);
    cv::cvtColor(unit, own, cv::COLOR_BGR2Lab);
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

}  // namespace rim
