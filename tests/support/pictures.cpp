#include "support/pictures.h"

#include <opencv2/imgproc.hpp>
#include <random>

namespace rim::test {

cv::Mat drawn(int width, int height, const Inside& inside, double ink, double paper) {
  constexpr int kSamples = 16;
  cv::Mat grey(height, width, CV_8UC1);
  for (int y = 0; y < height; ++y) {
    for (int x = 0; x < width; ++x) {
      int covered = 0;
      for (int k = 0; k < kSamples * kSamples; ++k) {
        covered += inside(x + (k % kSamples + 0.5) / kSamples, y + (k / kSamples + 0.5) / kSamples) ? 1 : 0;
      }
      const double share = covered / double{kSamples * kSamples};
      grey.at<std::uint8_t>(y, x) = static_cast<std::uint8_t>(std::lround(paper + (ink - paper) * share));
    }
  }
  return grey;
}

cv::Mat drawn(int width, int height, const Inside& inside) { return drawn(width, height, inside, 0, 255); }

picture::Picture pictureOf(const cv::Mat& grey) {
  cv::Mat bgr;
  cv::cvtColor(grey, bgr, cv::COLOR_GRAY2BGR);
  return picture::makePicture(bgr, 0, "test");
}

Inside disc(double cx, double cy, double radius) {
  return [=](double x, double y) { return std::hypot(x - cx, y - cy) < radius; };
}

Inside ring(double cx, double cy, double outer, double inner) {
  return [=](double x, double y) {
    const double d = std::hypot(x - cx, y - cy);
    return d < outer && d >= inner;
  };
}

Inside polygon(const std::vector<Point>& corners) {
  return [corners](double x, double y) {
    bool in = false;
    for (std::size_t i = 0, j = corners.size() - 1; i < corners.size(); j = i++) {
      const Point a = corners[i];
      const Point b = corners[j];
      if ((a.y > y) != (b.y > y) && x < (b.x - a.x) * (y - a.y) / (b.y - a.y) + a.x) in = !in;
    }
    return in;
  };
}

std::vector<Point> squareCorners(double x, double y, double halfSide, double turnRadians) {
  return starCorners(x, y, 2, halfSide * std::numbers::sqrt2, halfSide * std::numbers::sqrt2, turnRadians);
}

std::vector<Point> starCorners(double x, double y, int tips, double outer, double inner, double turnRadians) {
  std::vector<Point> corners;
  for (int i = 0; i < 2 * tips; ++i) {
    const double angle = turnRadians + std::numbers::pi * i / tips;
    const double radius = i % 2 == 0 ? outer : inner;
    corners.push_back({x + radius * std::cos(angle), y + radius * std::sin(angle)});
  }
  return corners;
}

std::vector<Point> upright(std::vector<Point> corners, double height) {
  for (Point& p : corners) p.y = height - p.y;
  return corners;
}

cv::Mat noisy(const cv::Mat& grey, double deviation) {
  cv::Mat noise(grey.size(), CV_16SC1);
  cv::RNG(7).fill(noise, cv::RNG::NORMAL, 0, deviation);
  cv::Mat sum;
  cv::add(grey, noise, sum, cv::noArray(), CV_8U);
  return sum;
}

cv::Mat randomGrey(int width, int height, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_int_distribution<int> level(0, 255);
  cv::Mat grey(height, width, CV_8UC1);
  for (auto pixel = grey.begin<std::uint8_t>(); pixel != grey.end<std::uint8_t>(); ++pixel) {
    *pixel = static_cast<std::uint8_t>(level(random));
  }
  return grey;
}

}  // namespace rim::test
