#include "core/trace/inks/cracks.h"

#include <algorithm>
#include <array>

#include "core/error.h"

namespace rim::trace::inks {
namespace {

enum Direction { kRight, kDown, kLeft, kUp };
constexpr int kDirections = 4;
const std::array<cv::Point, kDirections> kSteps{cv::Point{1, 0}, cv::Point{0, 1}, cv::Point{-1, 0}, cv::Point{0, -1}};
/// The pixel at the left of a step, from the corner that the step leaves; the one at its right.
const std::array<cv::Point, kDirections> kLeftPixel{cv::Point{0, -1}, cv::Point{0, 0}, cv::Point{-1, 0},
                                                    cv::Point{-1, -1}};
const std::array<cv::Point, kDirections> kRightPixel{cv::Point{0, 0}, cv::Point{-1, 0}, cv::Point{-1, -1},
                                                     cv::Point{0, -1}};

int turned(int direction, int quarters) { return (direction + quarters + kDirections) % kDirections; }

/// So far from a corner its label is asked for.
constexpr int kMargin = 3;
constexpr std::uint8_t kNode = 4;

class Walker {
 public:
  explicit Walker(const cv::Mat& labels) : seen_(labels.rows + 1, labels.cols + 1, CV_8U, cv::Scalar(0)) {
    cv::copyMakeBorder(labels, labels_, kMargin, kMargin, kMargin, kMargin, cv::BORDER_CONSTANT, cv::Scalar(kOutside));
  }

  CrackGraph graph(const std::stop_token& stop) {
    CrackGraph graph;
    eachBorderCorner(stop, [&](cv::Point at) {
      if (!isNode(at)) return;
      seen_.at<std::uint8_t>(at) |= kNode;
      graph.nodes.push_back(at);
    });
    for (const cv::Point node : graph.nodes) {
      for (int d = 0; d < kDirections; ++d) {
        if (isCrack(node, d) && !isSeen(node, d)) graph.chains.push_back(walk(node, d, graph.nodes));
      }
    }
    eachBorderCorner(stop, [&](cv::Point at) {
      if (isCrack(at, kRight) && !isSeen(at, kRight)) graph.chains.push_back(walk(at, kRight, graph.nodes));
    });
    return graph;
  }

 private:
  /// All corners that have no four pixels of one label round them.
  template <typename Work>
  void eachBorderCorner(const std::stop_token& stop, Work work) {
    for (int y = 0; y < seen_.rows; ++y) {
      if (y % 256 == 0 && stop.stop_requested()) throw Cancelled();
      const auto* above = labels_.ptr<std::uint8_t>(y + kMargin - 1) + kMargin - 1;
      const auto* below = labels_.ptr<std::uint8_t>(y + kMargin) + kMargin - 1;
      for (int x = 0; x < seen_.cols; ++x) {
        const bool even = above[x] == above[x + 1] && below[x] == below[x + 1] && above[x] == below[x];
        if (!even) work({x, y});
      }
    }
  }

  std::uint8_t label(cv::Point pixel) const { return labels_.at<std::uint8_t>(pixel + cv::Point(kMargin, kMargin)); }
  std::uint8_t leftOf(cv::Point at, int d) const { return label(at + kLeftPixel[static_cast<std::size_t>(d)]); }
  std::uint8_t rightOf(cv::Point at, int d) const { return label(at + kRightPixel[static_cast<std::size_t>(d)]); }
  bool isCrack(cv::Point at, int d) const { return leftOf(at, d) != rightOf(at, d); }

  bool isNode(cv::Point at) const {
    const bool atSide = at.x == 0 || at.x == seen_.cols - 1;
    const bool atEnd = at.y == 0 || at.y == seen_.rows - 1;
    if (atSide && atEnd) return true;
    int cracks = 0;
    for (int d = 0; d < kDirections; ++d) cracks += isCrack(at, d) ? 1 : 0;
    return cracks == 3 || (cracks == kDirections && (!isChessboard(at) || areFields(at)));
  }

  /// Whether the four pixels round a chessboard's corner belong to fields, not to a slanted line of single pixels.
  bool areFields(cv::Point at) const {
    constexpr int kReachAcross = 3;
    constexpr int kMost = 6;
    for (const cv::Point quarter : {cv::Point{0, 0}, cv::Point{-1, 0}, cv::Point{0, -1}, cv::Point{-1, -1}}) {
      const std::uint8_t own = label(at + quarter);
      int same = 0;
      for (int i = 0; i < kReachAcross * kReachAcross; ++i) {
        const cv::Point inwards{i % kReachAcross, i / kReachAcross};
        const cv::Point pixel{at.x + quarter.x + (quarter.x < 0 ? -inwards.x : inwards.x),
                              at.y + quarter.y + (quarter.y < 0 ? -inwards.y : inwards.y)};
        same += label(pixel) == own ? 1 : 0;
      }
      if (same < kMost) return false;
    }
    return true;
  }

  bool isChessboard(cv::Point at) const {
    return leftOf(at, kRight) == leftOf(at, kLeft) && rightOf(at, kRight) == rightOf(at, kLeft);
  }

  /// A side of a pixel is marked at its upper or left corner.
  std::pair<cv::Point, int> sideOf(cv::Point at, int d) const {
    if (d == kRight || d == kDown) return {at, d == kRight ? 1 : 2};
    return {at + kSteps[static_cast<std::size_t>(d)], d == kLeft ? 1 : 2};
  }
  bool isSeen(cv::Point at, int d) const {
    const auto [corner, bit] = sideOf(at, d);
    return (seen_.at<std::uint8_t>(corner) & bit) != 0;
  }
  void markSeen(cv::Point at, int d) {
    const auto [corner, bit] = sideOf(at, d);
    seen_.at<std::uint8_t>(corner) |= static_cast<std::uint8_t>(bit);
  }

  /// Where the border goes on from a corner that was reached along d.
  int next(cv::Point at, int d, std::uint8_t left, std::uint8_t right) const {
    if (isCrack(at, turned(d, 1)) && isCrack(at, turned(d, -1))) {
      // Right keeps what is at the left together, left what is at the right.
      return turned(d, left > right ? 1 : -1);
    }
    for (const int quarters : {0, 1, -1}) {
      if (isCrack(at, turned(d, quarters))) return turned(d, quarters);
    }
    return d;
  }

  /// The index of a node; -1 for any other corner. Nodes are sorted by rows.
  int numberOf(cv::Point at, const std::vector<cv::Point>& nodes) const {
    if ((seen_.at<std::uint8_t>(at) & kNode) == 0) return -1;
    const auto before = [](cv::Point a, cv::Point b) { return a.y != b.y ? a.y < b.y : a.x < b.x; };
    return static_cast<int>(std::lower_bound(nodes.begin(), nodes.end(), at, before) - nodes.begin());
  }

  CrackChain walk(cv::Point from, int d, const std::vector<cv::Point>& nodes) {
    CrackChain chain;
    chain.left = leftOf(from, d);
    chain.right = rightOf(from, d);
    chain.start = numberOf(from, nodes);
    chain.corners.push_back(from);
    cv::Point at = from;
    while (!isSeen(at, d)) {
      markSeen(at, d);
      at += kSteps[static_cast<std::size_t>(d)];
      chain.corners.push_back(at);
      chain.end = numberOf(at, nodes);
      if (chain.end >= 0) break;
      d = next(at, d, chain.left, chain.right);
    }
    return chain;
  }

  cv::Mat labels_;  ///< with a margin of what lies beyond the picture's edge
  cv::Mat seen_;    ///< of each corner: the sides that were walked along, and whether it is a node
};

}  // namespace

CrackGraph cracksOf(const cv::Mat& labels, const std::stop_token& stop) { return Walker(labels).graph(stop); }

}  // namespace rim::trace::inks
