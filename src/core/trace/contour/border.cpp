#include "core/trace/contour/border.h"

#include <atomic>
#include <cstring>
#include <iterator>
#include <opencv2/imgproc.hpp>
#include <string>

#include "core/error.h"
#include "core/for_all.h"

namespace rim::trace::contour {
namespace {

// The samples are surrounded by a copy of the outermost pixels and then by a rim of paper, and
// both lie exactly on the edge of the picture. Ink that reaches the edge closes along it by that.
constexpr int kRim = 2;
constexpr std::uint8_t kPaper = 0;
constexpr std::uint8_t kInk = 1;
/// So many rows are searched at a time, strips beside each other at once.
constexpr int kStripRows = 1024;

enum Side { kTop, kRight, kBottom, kLeft };

class Lattice {
 public:
  Lattice(const cv::Mat& grey, TwoTone tone) : grey_(grey), level_(tone.threshold - 0.5) {
    mask_.create(grey.rows + 2 * kRim, grey.cols + 2 * kRim, CV_8UC1);
    // OpenCV's threshold is "greater than".
    cv::threshold(grey, mask_(cv::Rect(kRim, kRim, grey.cols, grey.rows)), tone.threshold - 1, kInk,
                  tone.lightIsInk ? cv::THRESH_BINARY : cv::THRESH_BINARY_INV);
    mask_.row(0) = kPaper;
    mask_.row(mask_.rows - 1) = kPaper;
    mask_.col(0) = kPaper;
    mask_.col(mask_.cols - 1) = kPaper;
    const int right = kRim + grey.cols;
    const int bottom = kRim + grey.rows;
    mask_.row(kRim).copyTo(mask_.row(kRim - 1));
    mask_.row(bottom - 1).copyTo(mask_.row(bottom));
    mask_.col(kRim).copyTo(mask_.col(kRim - 1));
    mask_.col(right - 1).copyTo(mask_.col(right));
  }

  int columns() const { return mask_.cols; }
  int rows() const { return mask_.rows; }
  const std::uint8_t* row(int y) const { return mask_.ptr<std::uint8_t>(y); }
  bool ink(int x, int y) const { return row(y)[x] != kPaper; }

  double value(int x, int y) const {
    return grey_.ptr<std::uint8_t>(std::clamp(y - kRim, 0, grey_.rows - 1))[std::clamp(x - kRim, 0, grey_.cols - 1)];
  }

  /// Whether the bilinear surface over the cell is ink at its saddle.
  bool saddleIsInk(int x, int y) const {
    const double a = value(x, y);
    const double b = value(x + 1, y);
    const double c = value(x + 1, y + 1);
    const double d = value(x, y + 1);
    const double bend = a + c - b - d;
    const double saddle = bend == 0 ? (a + b + c + d) / 4 : (a * c - b * d) / bend;
    // Ink at the saddle means: on the same side of the level as the ink sample of the cell.
    const bool aLow = a < level_;
    return (saddle < level_) == (ink(x, y) ? aLow : !aLow);
  }

  Point crossing(int x0, int y0, int x1, int y1) const {
    const double v0 = value(x0, y0);
    const double v1 = value(x1, y1);
    const double t = v0 == v1 ? 0.5 : (level_ - v0) / (v1 - v0);
    const Point p0 = place(x0, y0);
    const Point p1 = place(x1, y1);
    return lerp(p0, p1, t);
  }

 private:
  Point place(int x, int y) const {
    return {std::clamp(x - kRim + 0.5, 0.0, static_cast<double>(grey_.cols)),
            grey_.rows - std::clamp(y - kRim + 0.5, 0.0, static_cast<double>(grey_.rows))};
  }

  const cv::Mat& grey_;
  double level_;
  cv::Mat mask_;
};

/// A cell of four samples, its upper left one at (x, y), and the side the border comes in by.
struct Step {
  int x, y;
  Side from;
};

/// The side by which a border with ink on its left leaves the cell.
Side exitSide(const Lattice& lattice, const Step& s) {
  const bool a = lattice.ink(s.x, s.y);
  const bool b = lattice.ink(s.x + 1, s.y);
  const bool c = lattice.ink(s.x + 1, s.y + 1);
  const bool d = lattice.ink(s.x, s.y + 1);
  if (a == c && b == d && a != b) {
    // Two borders share this cell. They cut off the two paper corners when the ink is connected
    // through the middle, and the two ink corners when it is not.
    const bool cutPaper = lattice.saddleIsInk(s.x, s.y);
    if (a) return (s.from == kRight) == cutPaper ? kTop : kBottom;
    return (s.from == kTop) == cutPaper ? kLeft : kRight;
  }
  if (a && !b) return kTop;
  if (b && !c) return kRight;
  if (c && !d) return kBottom;
  return kLeft;
}

Point exitPoint(const Lattice& lattice, const Step& s, Side side) {
  switch (side) {
    case kTop:
      return lattice.crossing(s.x, s.y, s.x + 1, s.y);
    case kRight:
      return lattice.crossing(s.x + 1, s.y, s.x + 1, s.y + 1);
    case kBottom:
      return lattice.crossing(s.x, s.y + 1, s.x + 1, s.y + 1);
    case kLeft:
      break;
  }
  return lattice.crossing(s.x, s.y, s.x, s.y + 1);
}

Step stepOver(const Step& s, Side side) {
  switch (side) {
    case kTop:
      return {s.x, s.y - 1, kBottom};
    case kRight:
      return {s.x + 1, s.y, kLeft};
    case kBottom:
      return {s.x, s.y + 1, kTop};
    case kLeft:
      break;
  }
  return {s.x - 1, s.y, kRight};
}

/// The rows that one search goes through, and where in them it has seen borders go up.
class Strip {
 public:
  Strip(int first, int end, int columns) : first_(first), end_(end), columns_(columns), seen_(index(0, end), false) {}

  int first() const { return first_; }
  int end() const { return end_; }
  bool isSeen(int x, int y) const { return seen_[index(x, y)]; }
  void markSeen(int x, int y) {
    if (y >= first_ && y < end_) seen_[index(x, y)] = true;
  }

 private:
  std::size_t index(int x, int y) const {
    return static_cast<std::size_t>(y - first_) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(x);
  }

  int first_;
  int end_;
  int columns_;
  std::vector<bool> seen_;
};

[[noreturn]] void failForNoise() {
  throw InputError("the edges in this picture have more than " + std::to_string(kMostBorderPoints / 1'000'000) +
                   " million points, the most that is traced: it seems to be noise. Calm it, choose another threshold, "
                   "raise the smallest part, or make the picture smaller first.");
}

/// Follows the border that goes up between the ink sample (x, y) and the paper at its right. False when it goes up
/// farther above, or in the same row farther left, too: who searches there finds it. `border` is room for it, which is
/// not filled beyond what is traced of a picture.
bool follow(const Lattice& lattice, Strip& strip, int x, int y, Border& border) {
  border.clear();
  const auto add = [&border](Point p) {
    if (border.empty() || border.back() != p) border.push_back(p);
  };
  strip.markSeen(x, y);
  add(lattice.crossing(x, y, x + 1, y));
  Step step{x, y - 1, kBottom};
  while (true) {
    const Side side = exitSide(lattice, step);
    if (side == kTop) {
      if (step.x == x && step.y == y) break;
      if (step.y < y || (step.y == y && step.x < x)) return false;
      strip.markSeen(step.x, step.y);
    }
    add(exitPoint(lattice, step, side));
    if (border.size() > kMostBorderPoints) failForNoise();
    step = stepOver(step, side);
  }
  while (border.size() > 1 && border.front() == border.back()) border.pop_back();
  return true;
}

/// The next x in [x, end) where ink has paper at its right, or end. Eight samples at a time.
int nextEdge(const std::uint8_t* row, int x, int end) {
  for (; x + 8 < end; x += 8) {
    std::uint64_t here = 0;
    std::uint64_t right = 0;
    std::memcpy(&here, row + x, sizeof here);
    std::memcpy(&right, row + x + 1, sizeof right);
    if ((here & ~right) != 0) break;
  }
  while (x < end && (row[x] == kPaper || row[x + 1] != kPaper)) ++x;
  return x;
}

/// The borders that are met in a strip first. `points` counts those of all strips.
std::vector<Border> bordersIn(Strip& strip, const Lattice& lattice, double minAreaPx2, std::atomic<std::size_t>& points,
                              const std::stop_token& stop) {
  std::vector<Border> borders;
  Border room;
  const int end = lattice.columns() - 1;
  for (int y = strip.first(); y < strip.end(); ++y) {
    if (y % 64 == 0 && stop.stop_requested()) throw Cancelled();
    const std::uint8_t* row = lattice.row(y);
    for (int x = nextEdge(row, 0, end); x < end; x = nextEdge(row, x + 1, end)) {
      if (strip.isSeen(x, y)) continue;
      if (!follow(lattice, strip, x, y, room) || room.size() < 3 || std::abs(borderArea(room)) < minAreaPx2) continue;
      points += room.size();
      if (points > kMostBorderPoints) failForNoise();
      borders.push_back(room);
    }
  }
  return borders;
}

}  // namespace

double borderArea(const Border& border) {
  double twice = 0;
  // The first point is the origin: what lies between it and its neighbours is nothing.
  for (std::size_t i = 1; i + 1 < border.size(); ++i) {
    twice += cross(border[i] - border.front(), border[i + 1] - border.front());
  }
  return twice / 2;
}

std::vector<Border> followBorders(const cv::Mat& grey, TwoTone tone, double minAreaPx2, std::stop_token stop) {
  if (grey.empty()) return {};
  const Lattice lattice(grey, tone);
  const int rows = lattice.rows() - 1;
  std::vector<std::vector<Border>> ofStrips(static_cast<std::size_t>((rows + kStripRows - 1) / kStripRows));
  std::atomic<std::size_t> points = 0;
  forAll(ofStrips.size(), {stop, {}}, [&](std::size_t i) {
    const int first = 1 + static_cast<int>(i) * kStripRows;
    Strip strip(first, std::min(first + kStripRows, rows + 1), lattice.columns());
    ofStrips[i] = bordersIn(strip, lattice, minAreaPx2, points, stop);
  });
  std::vector<Border> borders;
  for (std::vector<Border>& some : ofStrips)
    borders.insert(borders.end(), std::make_move_iterator(some.begin()), std::make_move_iterator(some.end()));
  return borders;
}

}  // namespace rim::trace::contour
