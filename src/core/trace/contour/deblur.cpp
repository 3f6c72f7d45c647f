#include "core/trace/contour/deblur.h"

#include <cmath>
#include <opencv2/imgproc.hpp>
#include <vector>

#include "core/error.h"
#include "core/median.h"
#include "core/picture/assess.h"

namespace rim::trace::contour {
namespace {

/// The blur that is left, as blurOf() measures it: somewhat more than the half pixel by which pixels smear an edge
/// themselves, as an edge sharper than that has no greys left that tell where it runs.
constexpr double kLeftBlurPx = 0.55;
/// Grey levels are whole numbers.
constexpr double kRoundingLevels = 0.15;
constexpr double kMostNoiseShare = 0.002;
constexpr int kMostRounds = 200;

float medianWhere(const cv::Mat& grey, const cv::Mat& mask) {
  std::vector<float> levels;
  for (int y = 0; y < grey.rows; ++y) {
    for (int x = 0; x < grey.cols; ++x) {
      if (mask.at<std::uint8_t>(y, x) != 0) levels.push_back(grey.at<std::uint8_t>(y, x));
    }
  }
  return levels.empty() ? 0 : static_cast<float>(medianOf(std::move(levels)));
}

cv::Mat blurredBy(const cv::Mat& picture, double px) {
  cv::Mat blurred;
  constexpr double kDeviations = 3;
  const int side = 2 * static_cast<int>(std::ceil(kDeviations * px)) + 1;
  cv::GaussianBlur(picture, blurred, {side, side}, px, px, cv::BORDER_REPLICATE);
  return blurred;
}

}  // namespace

std::optional<cv::Mat> deblurred(const cv::Mat& grey, TwoTone tone, double blurPx, const std::stop_token& stop) {
  const double blur = std::sqrt(blurPx * blurPx - kLeftBlurPx * kLeftBlurPx);
  const cv::Mat darkSide = grey < tone.threshold;
  const float dark = medianWhere(grey, darkSide);
  const float light = medianWhere(grey, ~darkSide);
  const double noise = std::max(picture::noiseLevel(grey), kRoundingLevels);
  if (noise > kMostNoiseShare * (light - dark)) return std::nullopt;
  cv::Mat seen;
  grey.convertTo(seen, CV_32F);
  // What is darker than the ink or paler than the paper stays so.
  const cv::Mat least = cv::min(seen, dark);
  const cv::Mat most = cv::max(seen, light);
  // Where all is even nothing is off, whatever the edges are.
  constexpr float kBeside = 2;
  const cv::Mat edges = (seen > dark + kBeside) & (seen < light - kBeside);
  cv::Mat sharp = seen.clone();
  cv::Mat ahead = seen.clone();
  double momentum = 1;
  for (int round = 0; round < kMostRounds; ++round) {
    if (stop.stop_requested()) throw Cancelled();
    const cv::Mat off = seen - blurredBy(ahead, blur);
    if (cv::norm(off, cv::NORM_L2, edges) <= noise * std::sqrt(cv::countNonZero(edges))) break;
    const cv::Mat next = cv::max(cv::min(ahead + blurredBy(off, blur), most), least);
    const double further = (1 + std::sqrt(1 + 4 * momentum * momentum)) / 2;
    ahead = next + (momentum - 1) / further * (next - sharp);
    sharp = next;
    momentum = further;
  }
  cv::Mat result;
  sharp.convertTo(result, CV_8U);
  return result;
}

}  // namespace rim::trace::contour
