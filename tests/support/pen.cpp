#include "support/pen.h"

#include <cmath>
#include <limits>
#include <opencv2/imgproc.hpp>

#include "core/geometry/segment_distance.h"

namespace rim::test {

PenStroke along(const std::function<Point(double)>& curve, bool closed) {
  constexpr int kSteps = 400;
  PenStroke stroke{{}, closed};
  for (int i = 0; i < kSteps + (closed ? 0 : 1); ++i) stroke.way.push_back(curve(static_cast<double>(i) / kSteps));
  return stroke;
}

PenStroke straight(const std::vector<Point>& corners, bool closed) { return {corners, closed}; }

cv::Mat penDrawing(int width, int height, const std::vector<PenStroke>& strokes, double penPx) {
  constexpr int kFiner = 32;  // it draws lines about one pixel too wide
  constexpr int kShift = 6;
  constexpr double kUnits = 1 << kShift;
  cv::Mat fine(height * kFiner, width * kFiner, CV_8UC1, cv::Scalar(255));
  for (const PenStroke& stroke : strokes) {
    std::vector<cv::Point> points;
    for (const Point p : stroke.way) {
      // OpenCV counts from the middle of the upper left pixel.
      points.emplace_back(static_cast<int>(std::lround((p.x * kFiner - 0.5) * kUnits)),
                          static_cast<int>(std::lround(((height - p.y) * kFiner - 0.5) * kUnits)));
    }
    const int thickness = static_cast<int>(std::lround(penPx * kFiner));
    cv::polylines(fine, points, stroke.closed, cv::Scalar(0), thickness, cv::LINE_8, kShift);
  }
  cv::Mat grey;
  cv::resize(fine, grey, {width, height}, 0, 0, cv::INTER_AREA);
  return grey;
}

double distanceToWays(Point p, const std::vector<PenStroke>& strokes) {
  double least = std::numeric_limits<double>::infinity();
  for (const PenStroke& stroke : strokes) {
    const std::size_t count = stroke.way.size();
    for (std::size_t i = stroke.closed ? 0 : 1; i < count; ++i)
      least = std::min(least, distanceToSegment(p, stroke.way[(i + count - 1) % count], stroke.way[i]));
  }
  return least;
}

}  // namespace rim::test
