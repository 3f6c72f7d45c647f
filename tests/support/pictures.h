#pragma once

#include <functional>
#include <numbers>
#include <opencv2/core.hpp>
#include <vector>

#include "core/geometry/point.h"
#include "core/picture/picture.h"

namespace rim::test {

/// Pixel rows count downwards: (0, 0) is the upper left corner of the picture.
using Inside = std::function<bool(double x, double y)>;

/// Black ink on white paper, each pixel as dark as much of it is inside (16 x 16 samples).
cv::Mat drawn(int width, int height, const Inside& inside);

/// The same with other grey levels for ink and paper.
cv::Mat drawn(int width, int height, const Inside& inside, double ink, double paper);

picture::Picture pictureOf(const cv::Mat& grey);

Inside disc(double x, double y, double radius);
Inside ring(double x, double y, double outer, double inner);
/// Even-odd.
Inside polygon(const std::vector<Point>& corners);
std::vector<Point> squareCorners(double x, double y, double halfSide, double turnRadians);
std::vector<Point> starCorners(double x, double y, int tips, double outer, double inner, double turnRadians);

/// Row coordinates, which count downwards, to upright ones.
std::vector<Point> upright(std::vector<Point> corners, double height);

/// The picture with independent noise of this standard deviation in grey levels; the same every time.
cv::Mat noisy(const cv::Mat& grey, double deviation);

/// Ink and paper in random grey levels: every kind of cell occurs.
cv::Mat randomGrey(int width, int height, unsigned seed);

}  // namespace rim::test
