#pragma once

#include <cstdint>
#include <opencv2/core.hpp>
#include <vector>

#include "core/colour/connected_components.h"

namespace rim::colour {

/// A picture of labels whose pixels change their ink, and how many pixels of each ink lie in any part of it: counted by
/// squares of 8 px, so that asking again and again is quick. Two bytes a square and ink.
class InkCounts {
 public:
  /// `labels` are CV_8UC1, all below `inks`; they are copied.
  InkCounts(const cv::Mat& labels, std::size_t inks);

  const cv::Mat& labels() const { return labels_; }

  /// Of a box within the picture.
  LabelCounts pixelsIn(const cv::Rect& box) const;

  /// The pixels of the run get another label.
  void change(const LabelRun& run, std::uint8_t to);

  /// How many changes there were.
  int changes() const { return changes_; }

  /// Whether anything may have changed in the box after so many changes.
  bool mayHaveChangedSince(const cv::Rect& box, int changes) const;

 private:
  std::uint16_t& pixels(int x, int y, std::uint8_t ink) {
    return pixels_[indexOf({x / kSquarePx, y / kSquarePx}) + ink];
  }
  std::size_t indexOf(cv::Point square) const {
    return (static_cast<std::size_t>(square.y) * static_cast<std::size_t>(size_.width) +
            static_cast<std::size_t>(square.x)) *
           inks_;
  }

  /// The squares that lie in the box as a whole; none when it is narrow.
  static cv::Rect squaresWithin(const cv::Rect& box);

  static constexpr int kSquarePx = 8;

  cv::Mat labels_;
  cv::Size size_;  ///< in squares
  std::size_t inks_;
  std::vector<std::uint16_t> pixels_;  ///< of each square, by ink
  cv::Mat last_;                       ///< of each square: the change that was its last
  int changes_ = 0;
};

}  // namespace rim::colour
