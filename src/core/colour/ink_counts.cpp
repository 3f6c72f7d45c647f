#include "core/colour/ink_counts.h"

#include <algorithm>

namespace rim::colour {

InkCounts::InkCounts(const cv::Mat& labels, std::size_t inks)
    : labels_(labels.clone()),
      size_((labels.cols + kSquarePx - 1) / kSquarePx, (labels.rows + kSquarePx - 1) / kSquarePx),
      inks_(inks),
      pixels_(static_cast<std::size_t>(size_.area()) * inks, 0),
      last_(size_, CV_32S, cv::Scalar(0)) {
  for (int y = 0; y < labels.rows; ++y) {
    const auto* row = labels.ptr<std::uint8_t>(y);
    for (int x = 0; x < labels.cols; ++x) ++pixels(x, y, row[x]);
  }
}

cv::Rect InkCounts::squaresWithin(const cv::Rect& box) {
  const auto above = [](int px) { return (px + kSquarePx - 1) / kSquarePx; };
  const cv::Point first(above(box.x), above(box.y));
  const cv::Point end(box.br().x / kSquarePx, box.br().y / kSquarePx);
  return end.x > first.x && end.y > first.y ? cv::Rect(first, end) : cv::Rect();
}

LabelCounts InkCounts::pixelsIn(const cv::Rect& box) const {
  LabelCounts sums{};
  const cv::Rect squares = squaresWithin(box);
  for (int y = squares.y; y < squares.br().y; ++y) {
    const std::uint16_t* own = &pixels_[indexOf({squares.x, y})];
    for (int x = 0; x < squares.width; ++x) {
      for (std::size_t ink = 0; ink < inks_; ++ink) sums[ink] += *own++;
    }
  }
  // What is left lies round them.
  const cv::Rect inner(squares.x * kSquarePx, squares.y * kSquarePx, squares.width * kSquarePx,
                       squares.height * kSquarePx);
  for (int y = box.y; y < box.br().y; ++y) {
    const bool besideThem = y >= inner.y && y < inner.br().y;
    const auto* row = labels_.ptr<std::uint8_t>(y);
    addLabels(row, box.x, besideThem ? inner.x : box.br().x, sums);
    if (besideThem) addLabels(row, inner.br().x, box.br().x, sums);
  }
  return sums;
}

void InkCounts::change(const LabelRun& run, std::uint8_t to) {
  ++changes_;
  auto* row = labels_.ptr<std::uint8_t>(run.y);
  for (int x = run.begin; x < run.end; ++x) {
    --pixels(x, run.y, row[x]);
    ++pixels(x, run.y, to);
    last_.at<int>(run.y / kSquarePx, x / kSquarePx) = changes_;
    row[x] = to;
  }
}

bool InkCounts::mayHaveChangedSince(const cv::Rect& box, int changes) const {
  const cv::Point first(box.x / kSquarePx, box.y / kSquarePx);
  const cv::Point last((box.br().x - 1) / kSquarePx, (box.br().y - 1) / kSquarePx);
  double latest = 0;
  cv::minMaxLoc(last_(cv::Rect(first, last + cv::Point(1, 1))), nullptr, &latest);
  return latest > changes;
}

}  // namespace rim::colour
