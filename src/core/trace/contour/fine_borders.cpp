#include "core/trace/contour/fine_borders.h"

#include <opencv2/imgproc.hpp>

namespace rim::trace::contour {

int finenessFor(cv::Size picture) {
  constexpr int kSmallPixels = 160'000;
  constexpr int kMediumPixels = 640'000;
  if (picture.area() <= kSmallPixels) return 5;
  return picture.area() <= kMediumPixels ? 3 : 1;
}

std::vector<Border> followFineBorders(const cv::Mat& grey, TwoTone tone, double minAreaPx2, int fineness,
                                      std::stop_token stop) {
  if (fineness == 1) return followBorders(grey, tone, minAreaPx2, std::move(stop));
  cv::Mat fine;
  cv::resize(grey, fine, {}, fineness, fineness, cv::INTER_LANCZOS4);
  std::vector<Border> borders = followBorders(fine, tone, minAreaPx2 * fineness * fineness, std::move(stop));
  for (Border& border : borders) {
    for (Point& p : border) p = p * (1.0 / fineness);
  }
  return borders;
}

}  // namespace rim::trace::contour
