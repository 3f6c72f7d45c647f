#include "core/picture/find_sheet.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/sheet_lines.h"
#include "core/picture/straighten.h"

namespace rim::picture {
namespace {

constexpr double kLookedAtSidePx = 500;
constexpr std::size_t kMostLines = 48;
constexpr double kSmallestShare = 0.1;  // of the picture's area
constexpr double kLargestShare = 0.93;
/// So much of a side has to part paper from something else, at least, and to be taken without asking.
constexpr double kLeastSupport = 0.45;
constexpr double kSureSupport = 0.7;
/// A side on the rim of the picture, beyond which nothing is seen, counts as so much.
constexpr double kRimSupport = 0.72;

cv::Vec3f at(const cv::Mat& lab, Point p) {
  const int x = std::clamp(static_cast<int>(std::floor(p.x)), 0, lab.cols - 1);
  const int y = std::clamp(static_cast<int>(std::floor(p.y)), 0, lab.rows - 1);
  return lab.at<cv::Vec3f>(y, x);
}

/// Upper left first, then clockwise as seen (y down).
Quad inOrder(Quad corners) {
  Point middle;
  for (const Point p : corners) middle = middle + p * 0.25;
  std::sort(corners.begin(), corners.end(), [middle](Point a, Point b) {
    return std::atan2(a.y - middle.y, a.x - middle.x) < std::atan2(b.y - middle.y, b.x - middle.x);
  });
  const auto upperLeft =
      std::min_element(corners.begin(), corners.end(), [](Point a, Point b) { return a.x + a.y < b.x + b.y; });
  std::rotate(corners.begin(), upperLeft, corners.end());
  return corners;
}

/// Positive when the corners go round clockwise as seen (y down).
double areaOf(const Quad& q) {
  double twice = 0;
  for (std::size_t i = 0; i < 4; ++i) twice += cross(q[i], q[(i + 1) % 4]);
  return twice / 2;
}

/// A candidate and what speaks for it.
struct Candidate {
  Quad corners;
  double weakest = 0;  ///< side, share of its length
  double worth = 0;
};

class Search {
 public:
  explicit Search(const cv::Mat& lab) : lab_(lab), paperness_(lab.size()) {
    for (int y = 0; y < lab.rows; ++y) {
      for (int x = 0; x < lab.cols; ++x) paperness_(y, x) = static_cast<float>(paperness(lab.at<cv::Vec3f>(y, x)));
    }
  }

  std::optional<Candidate> best(const std::stop_token& stop) {
    std::vector<StraightLine> lines = longEdges(lab_, kMostLines);
    const std::size_t drawn = lines.size();
    const auto w = static_cast<double>(lab_.cols);
    const auto h = static_cast<double>(lab_.rows);
    lines.insert(lines.end(), {{{0, 0}, {1, 0}}, {{0, h}, {1, 0}}, {{0, 0}, {0, 1}}, {{w, 0}, {0, 1}}});
    std::vector<std::pair<std::size_t, std::size_t>> opposite;
    for (std::size_t i = 0; i < lines.size(); ++i) {
      for (std::size_t j = i + 1; j < lines.size(); ++j) {
        const bool onRim = i >= drawn && j >= drawn;
        if (!onRim && std::abs(dot(lines[i].along, lines[j].along)) > kLeastParallel) opposite.emplace_back(i, j);
      }
    }
    std::optional<Candidate> best;
    for (std::size_t p = 0; p < opposite.size(); ++p) {
      if (stop.stop_requested()) throw Cancelled();
      for (std::size_t q = p + 1; q < opposite.size(); ++q) {
        const auto [a, c] = opposite[p];
        const auto [b, d] = opposite[q];
        const auto onRim = [drawn](std::size_t i) { return i >= drawn ? 1 : 0; };
        if (a == b || a == d || c == b || c == d || onRim(a) + onRim(b) + onRim(c) + onRim(d) > 1) continue;
        auto found = candidate({lines[a], lines[b], lines[c], lines[d]}, best ? best->worth : 0);
        if (found && (!best || found->worth > best->worth)) best = std::move(found);
      }
    }
    return best;
  }

 private:
  static constexpr double kLeastParallel = 0.8;

  /// Nothing when it is not worth more than `least`.
  std::optional<Candidate> candidate(const std::array<StraightLine, 4>& sides, double least) const {
    constexpr double kBeyond = 0.25;
    constexpr double kMostAcross = 0.85;  // cosine of a corner's angle
    Candidate c{{}, 1, 0};
    for (std::size_t i = 0; i < 4; ++i) {
      const StraightLine& before = sides[(i + 3) % 4];
      if (std::abs(dot(before.along, sides[i].along)) > kMostAcross) return std::nullopt;
      const auto corner = crossingOf(before, sides[i]);
      if (!corner) return std::nullopt;
      const double margin = kBeyond * std::max(lab_.cols, lab_.rows);
      if (corner->x < -margin || corner->y < -margin || corner->x > lab_.cols + margin ||
          corner->y > lab_.rows + margin)
        return std::nullopt;
      c.corners[i] = *corner;
    }
    const double area = areaOf(c.corners);
    const double share = std::abs(area) / static_cast<double>(lab_.total());
    if (share < kSmallestShare || share > kLargestShare) return std::nullopt;
    if (std::pow(share, kWorthOfSize) <= least) return std::nullopt;
    if (area < 0) std::swap(c.corners[1], c.corners[3]);
    if (!isConvex(c.corners)) return std::nullopt;
    double sum = 0;
    for (std::size_t i = 0; i < 4; ++i) {
      const double support = supportOf(c.corners[i], c.corners[(i + 1) % 4]);
      if (support < kLeastSupport) return std::nullopt;
      c.weakest = std::min(c.weakest, support);
      sum += support / 4;
    }
    const double paper = paperShare(c.corners);
    constexpr double kLeastPaper = 0.8;
    if (paper < kLeastPaper) return std::nullopt;
    c.worth = sum * c.weakest * paper * paper * std::pow(share, kWorthOfSize);
    return c;
  }

  static constexpr double kWorthOfSize = 0.35;

  /// How much of a side, with the sheet at its right, has paper inside and something else, less like paper, outside.
  double supportOf(Point a, Point b) const {
    constexpr int kProbes = 48;
    constexpr double kAsidePx = 3;
    constexpr double kFarAsidePx = 14;  // beyond a line that was drawn on the paper, or a light one of the table
    constexpr double kLeastStep = 4;
    const Point inwards = leftNormal(unit(b - a));
    double seen = 0;
    double parts = 0;
    for (int k = 0; k < kProbes; ++k) {
      const Point foot = lerp(a, b, (k + 0.5) / kProbes);
      const Point inside = foot + inwards * kAsidePx;
      const Point outside = foot - inwards * kAsidePx;
      const Point far = foot - inwards * kFarAsidePx;
      const Point farInside = foot + inwards * kFarAsidePx;
      if (!within(inside)) continue;
      seen += 1;
      if (!within(outside)) {
        parts += kRimSupport;
      } else {
        const double paper = paperAt(inside);
        const double table = paperAt(outside);
        const bool beyond = !within(far) || paper - paperAt(far) > kLeastStep / 2;
        const bool before = !within(farInside) || paperAt(farInside) - table > kLeastStep / 2;
        parts += beyond && before && paper - table > kLeastStep ? 1 : 0;
      }
    }
    constexpr double kLeastSeen = 0.4;
    return seen < kLeastSeen * kProbes ? 0 : parts / seen;
  }

  bool within(Point p) const { return p.x >= 0 && p.y >= 0 && p.x < lab_.cols && p.y < lab_.rows; }

  double paperAt(Point p) const { return paperness_(static_cast<int>(p.y), static_cast<int>(p.x)); }

  /// Light and without colour.
  static double paperness(const cv::Vec3f& c) {
    constexpr float kColourCounts = 1.2F;
    return c[0] - kColourCounts * std::hypot(c[1], c[2]);
  }

  /// Of what lies inside and is not as dark as ink, how much has the paper's colour.
  double paperShare(const Quad& corners) const {
    constexpr int kSteps = 24;
    constexpr float kDark = 0.5F;
    constexpr float kOtherColour = 9;
    std::vector<cv::Vec3f> inside;
    for (int i = 1; i < kSteps; ++i) {
      for (int j = 1; j < kSteps; ++j) {
        const double u = static_cast<double>(i) / kSteps;
        const Point p =
            lerp(lerp(corners[0], corners[1], u), lerp(corners[3], corners[2], u), static_cast<double>(j) / kSteps);
        if (within(p)) inside.push_back(at(lab_, p));
      }
    }
    if (inside.empty()) return 0;
    const auto lighter = [](const cv::Vec3f& a, const cv::Vec3f& b) { return a[0] < b[0]; };
    const auto bright = inside.begin() + static_cast<std::ptrdiff_t>(inside.size() * 3 / 4);
    std::nth_element(inside.begin(), bright, inside.end(), lighter);
    const cv::Vec3f paper = *bright;
    double same = 0;
    double other = 0;
    for (const cv::Vec3f& c : inside) {
      if (c[0] < kDark * paper[0]) continue;
      (std::hypot(c[1] - paper[1], c[2] - paper[2]) < kOtherColour ? same : other) += 1;
    }
    return same / std::max(1.0, same + other);
  }

  const cv::Mat& lab_;
  cv::Mat1f paperness_;
};

/// The mean colour along a side, `aside` px to its right.
cv::Vec3d meanAlong(const cv::Mat& bgr, Point a, Point b, double aside) {
  constexpr int kProbes = 80;
  const Point inwards = leftNormal(unit(b - a));
  cv::Vec3d sum;
  int count = 0;
  for (int k = 4; k < kProbes - 4; ++k) {
    const Point p = lerp(a, b, (k + 0.5) / kProbes) + inwards * aside;
    if (p.x < 0 || p.y < 0 || p.x >= bgr.cols || p.y >= bgr.rows) continue;
    sum += cv::Vec3d(bgr.at<cv::Vec3b>(static_cast<int>(p.y), static_cast<int>(p.x)));
    ++count;
  }
  return count == 0 ? sum : sum / count;
}

/// The side from a to b moved to where the colours change most steeply inwards, in the colour in which both of its
/// sides differ. Nothing where too little of it is seen.
std::optional<StraightLine> fittedSide(const cv::Mat& bgr, Point a, Point b, double reachPx) {
  constexpr int kProbes = 80;
  constexpr int kHalfStep = 2;
  constexpr double kLeastRise = 6;
  const cv::Vec3d difference = meanAlong(bgr, a, b, 2 * reachPx) - meanAlong(bgr, a, b, -2 * reachPx);
  const double size = cv::norm(difference);
  const cv::Vec3d axis = size > kLeastRise ? difference / size : cv::Vec3d(1, 1, 1) / std::sqrt(3);
  const Point inwards = leftNormal(unit(b - a));
  const auto level = [&](Point p) {
    const int x = std::clamp(static_cast<int>(std::floor(p.x)), 0, bgr.cols - 1);
    const int y = std::clamp(static_cast<int>(std::floor(p.y)), 0, bgr.rows - 1);
    return cv::Vec3d(bgr.at<cv::Vec3b>(y, x)).dot(axis);
  };
  std::vector<cv::Point2f> edge;
  for (int k = 3; k < kProbes - 3; ++k) {
    const Point foot = lerp(a, b, (k + 0.5) / kProbes);
    if (foot.x < 0 || foot.y < 0 || foot.x > bgr.cols || foot.y > bgr.rows) continue;
    double steepest = kLeastRise;
    std::optional<double> where;
    for (double d = -reachPx; d <= reachPx; d += 0.5) {
      const double rise = level(foot + inwards * (d + kHalfStep)) - level(foot + inwards * (d - kHalfStep));
      if (rise <= steepest) continue;
      steepest = rise;
      where = d;
    }
    if (!where) continue;
    const Point p = foot + inwards * *where;
    edge.emplace_back(static_cast<float>(p.x), static_cast<float>(p.y));
  }
  if (edge.size() < kProbes / 4) return std::nullopt;
  cv::Vec4f line;
  cv::fitLine(edge, line, cv::DIST_HUBER, 0, 0.01, 0.01);
  return StraightLine{{line[2], line[3]}, {line[0], line[1]}};
}

bool isOnRim(Point a, Point b, cv::Size picture) {
  constexpr double kRimPx = 3;
  const auto along = [](double p, double q, double rim) {
    return std::abs(p - rim) < kRimPx && std::abs(q - rim) < kRimPx;
  };
  return along(a.x, b.x, 0) || along(a.x, b.x, picture.width) || along(a.y, b.y, 0) || along(a.y, b.y, picture.height);
}

/// The side at the rim as the perspective of the three others says: its direction's vanishing point lies on the side
/// opposite, at a right angle, seen from the lens, to that of the two between.
StraightLine sideBeyond(const std::array<StraightLine, 4>& sides, std::size_t rim, cv::Size picture) {
  constexpr double kFocalWidths = 1.2;
  const StraightLine& next = sides[(rim + 1) % 4];
  const StraightLine& opposite = sides[(rim + 2) % 4];
  const StraightLine& before = sides[(rim + 3) % 4];
  const Point middle{picture.width / 2.0, picture.height / 2.0};
  const double focal = kFocalWidths * std::max(picture.width, picture.height);
  StraightLine beyond{sides[rim].place, opposite.along};
  const auto v = crossingOf(next, before);
  const auto a = crossingOf(sides[rim], next);
  const auto b = crossingOf(sides[rim], before);
  if (!a || !b) return sides[rim];
  if (v) {
    const Point to = *v - middle;
    const double slope = dot(opposite.along, to);
    if (std::abs(slope) > 1e-9) {
      const double t = -(focal * focal + dot(opposite.place - middle, to)) / slope;
      const Point vanishing = opposite.place + opposite.along * t;
      beyond.along = unit(vanishing - lerp(*a, *b, 0.5));
    }
  }
  // Through the corner at the rim that lies farther from the side opposite: nothing that is seen is lost.
  const auto farFrom = [&opposite](Point p) { return std::abs(cross(opposite.along, p - opposite.place)); };
  beyond.place = farFrom(*a) > farFrom(*b) ? *a : *b;
  return beyond;
}

}  // namespace

std::optional<FoundSheet> findSheet(const Picture& picture, const std::stop_token& stop) {
  if (picture.empty()) return std::nullopt;
  const double scale = std::max(1.0, std::max(picture.width(), picture.height()) / kLookedAtSidePx);
  cv::Mat small;
  cv::resize(*picture.bgr, small, {}, 1 / scale, 1 / scale, cv::INTER_AREA);
  cv::GaussianBlur(small, small, {0, 0}, 1.0);
  cv::Mat lab;
  small.convertTo(lab, CV_32F, 1 / 255.0);
  cv::cvtColor(lab, lab, cv::COLOR_BGR2Lab);
  const auto rough = Search(lab).best(stop);
  if (!rough) return std::nullopt;
  Quad corners = inOrder(rough->corners);
  for (Point& p : corners) p = p * scale;
  cv::Mat calm;
  cv::GaussianBlur(*picture.bgr, calm, {0, 0}, 1.2);
  const cv::Size size(picture.width(), picture.height());
  std::array<StraightLine, 4> sides;
  std::optional<std::size_t> rim;
  for (std::size_t i = 0; i < 4; ++i) {
    const Point a = corners[i];
    const Point b = corners[(i + 1) % 4];
    sides[i] = {a, unit(b - a)};
    if (isOnRim(a, b, size)) {
      rim = i;
    } else if (const auto side = fittedSide(calm, a, b, 3 * scale + 5)) {
      sides[i] = *side;
    }
  }
  if (rim) sides[*rim] = sideBeyond(sides, *rim, size);
  constexpr double kFarthest = 20;
  Quad fitted = corners;
  for (std::size_t i = 0; i < 4; ++i) {
    const auto corner = crossingOf(sides[(i + 3) % 4], sides[i]);
    const bool nextToRim = rim && (i == *rim || i == (*rim + 1) % 4);
    if (corner && (nextToRim || distance(*corner, corners[i]) < kFarthest * scale)) fitted[i] = *corner;
  }
  if (!isConvex(fitted)) fitted = corners;
  return FoundSheet{fitted, rough->weakest, rough->weakest >= kSureSupport};
}

}  // namespace rim::picture
