#include "core/trace/contour/grain.h"

#include <array>
#include <limits>
#include <numbers>
#include <opencv2/imgproc.hpp>

namespace rim::trace::contour {
namespace {

/// An edge's place is the sum of some samples' coverages, whose errors are not independent in a JPEG.
constexpr double kPlacePerGrain = 4;
/// What sharpened borders of thin and bent parts are off by in a picture without any grain.
constexpr double kLeastPx = 0.03;
/// Tiles of a large picture are looked at, wider ones where the first ones show too little.
constexpr std::array kTiles{256, 512};
constexpr double kPlenty = 20'000;  // even pixels near borders
constexpr int kTilesAcross = 4;
constexpr int kMostWhole = kTilesAcross * kTiles.back();  // px, what they would cover

/// Sums over the even ink and paper near borders.
struct Wavering {
  double sum = 0;
  double pixels = 0;
  double ink = 0, inkPixels = 0;
  double paper = 0, paperPixels = 0;
};

cv::Mat boxOf(int side) { return cv::Mat::ones(side, side, CV_8U); }

void addTile(const cv::Mat& grey, TwoTone tone, Wavering& wavering) {
  constexpr int kEdgePx = 5;   // as wide as an edge and its blur
  constexpr int kNearPx = 19;  // blocks of a JPEG are 8 px wide
  const cv::Mat dark = grey < tone.threshold;
  cv::Mat even;
  cv::Mat evenDark;
  cv::Mat nearDark;
  cv::Mat nearLight;
  cv::erode(dark, evenDark, boxOf(kEdgePx));
  cv::erode(~dark, even, boxOf(kEdgePx));
  cv::dilate(dark, nearDark, boxOf(kNearPx));
  cv::dilate(~dark, nearLight, boxOf(kNearPx));
  const cv::Mat beside = nearDark & nearLight;
  even &= beside;
  evenDark &= beside;
  cv::Mat bend;
  const cv::Mat secondDifference = (cv::Mat_<float>(1, 3) << 1, -2, 1);
  cv::filter2D(grey, bend, CV_16S, secondDifference);
  const cv::Mat both = even | evenDark;
  const auto count = static_cast<double>(cv::countNonZero(both));
  if (count == 0) return;
  // Sums of what is left after masking; OpenCV's own masked sums are several times slower.
  bend = cv::abs(bend);
  bend.setTo(0, ~both);
  wavering.sum += cv::sum(bend)[0];
  wavering.pixels += count;
  const auto light = static_cast<double>(cv::countNonZero(even));
  wavering.paper += cv::sum(grey & even)[0];
  wavering.paperPixels += light;
  wavering.ink += cv::sum(grey & evenDark)[0];
  wavering.inkPixels += count - light;
}

/// What wavers in tiles of this width spread evenly over the picture, or in all of it where that is no more.
Wavering waveringIn(const cv::Mat& grey, TwoTone tone, int tile) {
  Wavering wavering;
  const int across = grey.cols > kMostWhole ? kTilesAcross : 1;
  const int down = grey.rows > kMostWhole ? kTilesAcross : 1;
  for (int i = 0; i < across * down; ++i) {
    const int width = across > 1 ? tile : grey.cols;
    const int height = down > 1 ? tile : grey.rows;
    const int x = across > 1 ? (grey.cols - width) * (i % across) / (across - 1) : 0;
    const int y = down > 1 ? (grey.rows - height) * (i / across) / (down - 1) : 0;
    addTile(grey(cv::Rect(x, y, width, height)), tone, wavering);
  }
  return wavering;
}

}  // namespace

double mostNoiseByGrain(const cv::Mat& grey, TwoTone tone) {
  Wavering wavering;
  for (const int tile : kTiles) {
    wavering = waveringIn(grey, tone, tile);
    if (wavering.pixels >= kPlenty) break;
  }
  constexpr double kEnough = 100;
  if (wavering.inkPixels < kEnough || wavering.paperPixels < kEnough) return std::numeric_limits<double>::infinity();
  const double contrast = wavering.paper / wavering.paperPixels - wavering.ink / wavering.inkPixels;
  // The mean absolute value of 1 -2 1 over independent noise is sqrt(6) times sqrt(2 / pi) of its deviation.
  const double grain = wavering.sum / wavering.pixels * std::sqrt(std::numbers::pi / 2 / 6);
  return kLeastPx + kPlacePerGrain * grain / std::max(1.0, contrast);
}

}  // namespace rim::trace::contour
