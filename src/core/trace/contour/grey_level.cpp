#include "core/trace/contour/grey_level.h"

#include <algorithm>
#include <cstdint>

namespace rim::trace::contour {

std::optional<double> levelAt(const cv::Mat& grey, Point p) {
  const double x = p.x - 0.5;
  const double y = grey.rows - p.y - 0.5;
  if (x < 0 || y < 0 || x > grey.cols - 1 || y > grey.rows - 1) return std::nullopt;
  const int column = std::min(static_cast<int>(x), grey.cols - 2);
  const int row = std::min(static_cast<int>(y), grey.rows - 2);
  if (column < 0 || row < 0) return std::nullopt;
  const double s = x - column;
  const double t = y - row;
  const auto level = [&](int r, int c) { return static_cast<double>(grey.at<std::uint8_t>(r, c)); };
  return (level(row, column) * (1 - s) + level(row, column + 1) * s) * (1 - t) +
         (level(row + 1, column) * (1 - s) + level(row + 1, column + 1) * s) * t;
}

}  // namespace rim::trace::contour
