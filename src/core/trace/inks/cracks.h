#pragma once

#include <cstdint>
#include <opencv2/core.hpp>
#include <stop_token>
#include <vector>

namespace rim::trace::inks {

/// What lies beyond the picture's edge.
inline constexpr std::uint8_t kOutside = 255;

/// A border between two labels along the edges of pixels. Corners of pixels: (0, 0) is the picture's upper left
/// corner, rows count downwards. Consecutive ones are a pixel's side apart.
struct CrackChain {
  std::vector<cv::Point> corners;  ///< a closed chain repeats its first one at its end
  std::uint8_t left = 0;           ///< label at the left of the way, as it is seen
  std::uint8_t right = 0;
  int start = -1;  ///< index of a node; -1: the chain is closed and passes none
  int end = -1;
};

/// All borders of a picture of labels. Nodes are where three or four borders meet, and the picture's four corners.
struct CrackGraph {
  std::vector<cv::Point> nodes;
  std::vector<CrackChain> chains;
};

/// The borders between the labels (CV_8UC1, none of them kOutside), the picture's edge included.
/// Where two labels meet like the fields of a chessboard is a node when they are fields; of single pixels the label
/// with the higher number hangs together. Every side of a pixel between two labels is in one chain. Order: nodes by
/// rows, then closed chains by rows. Throws Cancelled.
CrackGraph cracksOf(const cv::Mat& labels, const std::stop_token& stop = {});

}  // namespace rim::trace::inks
