#include "core/trace/inks/crack_edges.h"

#include <algorithm>

#include "core/trace/contour/edge_localisation.h"

namespace rim::trace::inks {
namespace {

constexpr int kReach = 5;
constexpr double kFarthestMove = 1.2;
/// Directions are taken over so many sides before and after.
constexpr std::ptrdiff_t kAlong = 3;

/// Levels across a border, 0 the one ink and 255 the other.
class Across {
 public:
  int count() const { return static_cast<int>(levels_.size()); }
  double operator[](int i) const { return levels_[static_cast<std::size_t>(i)]; }

  /// The pixels on both sides of the border as far as they have its inks. `first` is the last pixel before the border,
  /// `step` leads across it.
  static Across at(cv::Point first, cv::Point step, const cv::Mat& bgr, const colour::InkMap& map, int& edge) {
    const cv::Mat& labels = *map.labels;
    const std::uint8_t one = labels.at<std::uint8_t>(first);
    const std::uint8_t other = labels.at<std::uint8_t>(first + step);
    const cv::Vec3d from = colourOf(map.inks[one]);
    const cv::Vec3d way = colourOf(map.inks[other]) - from;
    const double square = std::max(1.0, way.dot(way));
    // Inks that differ little have small levels too: what is told apart is bounded by their difference.
    const double scale = std::min(255.0, differenceInRgb(map.inks[one].colour, map.inks[other].colour));
    const cv::Rect all(0, 0, labels.cols, labels.rows);
    Across across;
    const auto add = [&](cv::Point pixel) {
      const cv::Vec3b c = bgr.at<cv::Vec3b>(pixel);
      across.levels_.push_back((colour::mostlyLuma(cv::Vec3d(c[0], c[1], c[2])) - from).dot(way) / square * scale);
    };
    int before = 0;
    while (before + 1 < kReach && all.contains(first - step * (before + 1)) &&
           labels.at<std::uint8_t>(first - step * (before + 1)) == one)
      ++before;
    for (int k = before; k >= 0; --k) add(first - step * k);
    for (int k = 1; k <= kReach && all.contains(first + step * k) && labels.at<std::uint8_t>(first + step * k) == other;
         ++k)
      add(first + step * k);
    edge = before;
    across.half_ = scale / 2;
    return across;
  }

  /// The border's place as a coordinate, sample i being the interval from i to i + 1.
  double place(int edge) const {
    const Across& self = *this;
    const int crossing = crossingNear(edge);
    if (const auto rise = contour::riseAt(self, crossing)) {
      const double covered = contour::coveredPlace(self, *rise);
      if (std::abs(covered - crossing - 1) <= kFarthestMove) return covered;
    }
    // Too thin for levels of its own.
    return betweenSamples(edge);
  }

  /// The same by the two samples beside it alone.
  double betweenSamples(int edge) const {
    const int crossing = crossingNear(edge);
    const double low = (*this)[crossing];
    const double high = (*this)[crossing + 1];
    if (high <= low) return edge + 1;
    return crossing + 0.5 + std::clamp((half_ - low) / (high - low), 0.0, 1.0);
  }

 private:
  /// The sample before the place nearest to the labels' border where the levels cross the middle; the labels'
  /// own border when they do nowhere.
  int crossingNear(int edge) const {
    for (int off = 0; off <= kReach; ++off) {
      for (const int i : {edge - off, edge + off}) {
        if (i >= 0 && i + 1 < count() && (*this)[i] < half_ && (*this)[i + 1] >= half_) return i;
      }
    }
    return edge;
  }

  static cv::Vec3d vectorOf(colour::Rgb c) {
    return {static_cast<double>(c.b), static_cast<double>(c.g), static_cast<double>(c.r)};
  }
  static cv::Vec3d colourOf(const colour::Ink& ink) { return colour::mostlyLuma(vectorOf(ink.colour)); }
  static double differenceInRgb(colour::Rgb a, colour::Rgb b) { return cv::norm(vectorOf(a) - vectorOf(b)); }

  std::vector<double> levels_;
  double half_ = 0;
};

/// A border between two inks along the sides of pixels.
class Sides {
 public:
  explicit Sides(const std::vector<cv::Point>& corners)
      : corners_(corners),
        count_(static_cast<std::ptrdiff_t>(corners.size()) - 1),
        closed_(corners.front() == corners.back()) {
    const std::ptrdiff_t reach = std::clamp<std::ptrdiff_t>(count_ / 4, 1, kAlong);
    for (std::ptrdiff_t i = 0; i < count_; ++i) {
      const cv::Point along = corner(i + 1 + reach) - corner(i - reach);
      crossed_.push_back(isLevel(i) == (std::abs(along.x) > std::abs(along.y)));
    }
  }

  std::ptrdiff_t count() const { return count_; }
  bool closed() const { return closed_; }
  cv::Point corner(std::ptrdiff_t i) const {
    return corners_[static_cast<std::size_t>(closed_ ? (i % count_ + count_) % count_
                                                     : std::clamp<std::ptrdiff_t>(i, 0, count_))];
  }
  bool isLevel(std::ptrdiff_t i) const { return corner(i).y == corner(i + 1).y; }

  /// Whether the row or column through the side crosses the border steeply enough to measure it there. At 45 degrees,
  /// where level and upright sides take turns and no side seems to go along, rows do.
  bool isMeasured(std::ptrdiff_t i) const {
    return isCrossed(i) || (!isLevel(i) && !isCrossed(i - 1) && !isCrossed(i + 1));
  }

 private:
  bool isCrossed(std::ptrdiff_t i) const {
    if (!closed_ && (i < 0 || i >= count_)) return false;
    return crossed_[static_cast<std::size_t>((i % count_ + count_) % count_)];
  }

  const std::vector<cv::Point>& corners_;
  std::ptrdiff_t count_;
  bool closed_;
  std::vector<bool> crossed_;
};

/// The middle of a side.
Point middleOf(const Sides& sides, std::ptrdiff_t i, double height) {
  const cv::Point a = sides.corner(i);
  const cv::Point b = sides.corner(i + 1);
  return {(a.x + b.x) / 2.0, height - (a.y + b.y) / 2.0};
}

/// Where the border crosses the row or column through a side: `fully` measured, or roughly.
Point edgeAt(const Sides& sides, std::ptrdiff_t i, const cv::Mat& bgr, const colour::InkMap& map, bool fully) {
  const double height = bgr.rows;
  const cv::Point a = sides.corner(i);
  const cv::Point b = sides.corner(i + 1);
  const bool level = sides.isLevel(i);
  const cv::Point first = level ? cv::Point{std::min(a.x, b.x), a.y - 1} : cv::Point{a.x - 1, std::min(a.y, b.y)};
  const cv::Point step = level ? cv::Point{0, 1} : cv::Point{1, 0};
  int edge = 0;
  const Across across = Across::at(first, step, bgr, map, edge);
  const double off = (fully ? across.place(edge) : across.betweenSamples(edge)) - (edge + 1);
  return level ? Point{first.x + 0.5, height - (a.y + off)} : Point{a.x + off, height - (first.y + 0.5)};
}

}  // namespace

std::vector<Point> edgesAlong(const CrackChain& chain, const cv::Mat& bgr, const colour::InkMap& map) {
  const Sides sides(chain.corners);
  std::vector<Point> points;
  if (chain.left == kOutside || chain.right == kOutside) {
    for (std::ptrdiff_t i = 0; i < sides.count(); ++i) points.push_back(middleOf(sides, i, bgr.rows));
    return points;
  }
  std::ptrdiff_t first = -1;
  std::ptrdiff_t last = -1;
  // At corners and the ends of thin strokes no side seems to lie across; a rough place is better than a hole.
  const auto fillHole = [&](Point to, std::ptrdiff_t end) {
    if (last < 0 || distance(points.back(), to) <= contour::kHolePx) return;
    for (std::ptrdiff_t k = last + 1; k < end; ++k) points.push_back(edgeAt(sides, k, bgr, map, false));
  };
  for (std::ptrdiff_t i = 0; i < sides.count(); ++i) {
    if (!sides.isMeasured(i)) continue;
    const Point measured = edgeAt(sides, i, bgr, map, true);
    fillHole(measured, i);
    points.push_back(measured);
    last = i;
    if (first < 0) first = i;
  }
  if (sides.closed() && first >= 0) fillHole(points.front(), sides.count() + first);
  return points;
}

}  // namespace rim::trace::inks
