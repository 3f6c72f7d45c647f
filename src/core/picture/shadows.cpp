#include "core/picture/shadows.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace rim::picture {

cv::Mat paperLevels(const cv::Mat& grey, double reachPx) {
  // Grain must not lift the paper to its brightest grains.
  constexpr double kGrainPx = 1.5;
  constexpr int kSmoothPx = 5;
  cv::Mat levels;
  cv::GaussianBlur(grey, levels, {0, 0}, kGrainPx);
  const int side = 2 * static_cast<int>(std::lround(std::max(3.0, reachPx) / 2)) + 1;
  // Beyond the rim all goes on as it is there, for both halves of the closing alike.
  cv::Mat wide;
  cv::copyMakeBorder(levels, wide, side, side, side, side, cv::BORDER_REPLICATE);
  cv::morphologyEx(wide, wide, cv::MORPH_CLOSE, cv::getStructuringElement(cv::MORPH_RECT, {side, side}));
  wide(cv::Rect(side, side, grey.cols, grey.rows)).copyTo(levels);
  cv::medianBlur(levels, levels, kSmoothPx);
  return levels;
}

Picture withoutShadows(const Picture& picture, double reachPx) {
  constexpr double kPaper = 245;
  constexpr double kDarkest = 12;  // nothing is made brighter than paper that is as dark as this
  cv::Mat levels = paperLevels(*picture.grey, reachPx);
  levels = cv::max(levels, kDarkest);
  cv::Mat lifted(picture.bgr->size(), CV_8UC3);
  cv::parallel_for_(cv::Range(0, lifted.rows), [&](const cv::Range& rows) {
    for (int y = rows.start; y < rows.end; ++y) {
      const auto* light = levels.ptr<std::uint8_t>(y);
      const auto* from = picture.bgr->ptr<cv::Vec3b>(y);
      auto* to = lifted.ptr<cv::Vec3b>(y);
      for (int x = 0; x < lifted.cols; ++x) {
        const double gain = kPaper / light[x];
        for (int k = 0; k < 3; ++k) to[x][k] = cv::saturate_cast<std::uint8_t>(from[x][k] * gain);
      }
    }
  });
  return withPixels(picture, lifted);
}

}  // namespace rim::picture
