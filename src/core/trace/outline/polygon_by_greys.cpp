#include "core/trace/outline/polygon_by_greys.h"

#include <Eigen/Dense>
#include <array>
#include <numbers>

namespace rim::trace::outline {
namespace {

constexpr int kMostSteps = 6;
constexpr double kSettledPx = 0.003;
constexpr double kMostMovePx = 0.7;

/// A side of the polygon by the line that it lies on.
struct Side {
  Point at;
  double angle = 0;
  bool level = false;  ///< its direction stays

  Point along() const { return {std::cos(angle), std::sin(angle)}; }
};

std::vector<Side> sidesOf(const Path& path, double levelDegrees) {
  std::vector<Side> sides;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Point from = segmentStart(path, i);
    const Point to = path.segments[i].end;
    Side side{lerp(from, to, 0.5), std::atan2(to.y - from.y, to.x - from.x)};
    constexpr double kQuarter = std::numbers::pi / 2;
    const double off = std::remainder(side.angle, kQuarter);
    if (std::abs(off) * 180 / std::numbers::pi < levelDegrees) {
      side.angle -= off;
      side.level = true;
    }
    sides.push_back(side);
  }
  return sides;
}

/// Where each side meets the one before it.
std::optional<std::vector<Point>> cornersOf(const std::vector<Side>& sides) {
  constexpr double kParallel = 0.05;
  std::vector<Point> corners;
  for (std::size_t i = 0; i < sides.size(); ++i) {
    const Side& before = sides[(i + sides.size() - 1) % sides.size()];
    const double bend = cross(before.along(), sides[i].along());
    if (std::abs(bend) < kParallel) return std::nullopt;
    corners.push_back(before.at + before.along() * (cross(sides[i].at - before.at, sides[i].along()) / bend));
  }
  return corners;
}

Path polygonOf(const std::vector<Side>& sides, const std::vector<Point>& corners) {
  Path path{corners.front(), {}, true};
  for (std::size_t i = 1; i <= sides.size(); ++i) path.segments.push_back(Segment::line(corners[i % corners.size()]));
  return path;
}

/// What can be changed of the sides: each along its normal and, unless it is level, its angle.
struct Change {
  std::size_t side;
  bool turns;
};

std::vector<Change> changesOf(const std::vector<Side>& sides) {
  std::vector<Change> changes;
  for (std::size_t i = 0; i < sides.size(); ++i) {
    changes.push_back({i, false});
    if (!sides[i].level) changes.push_back({i, true});
  }
  return changes;
}

void apply(std::vector<Side>& sides, const Change& change, double by) {
  Side& side = sides[change.side];
  if (change.turns) {
    side.angle += by;
  } else {
    side.at = side.at + leftNormal(side.along()) * by;
  }
}

/// How the shares of the pixels that the sides pass change: one row a pixel, one column a change.
struct Derivatives {
  std::vector<int> pixels;  ///< counted through the part row by row
  Eigen::MatrixXd columns;
};

/// The same by the corners' x and y; all other pixels are left out.
Derivatives byCorners(const std::vector<Point>& corners, const cv::Rect& where, cv::Size picture) {
  const std::size_t n = corners.size();
  std::vector<std::array<cv::Mat1d, 2>> images(n);
  for (auto& both : images) both = {cv::Mat1d(where.size(), 0.0), cv::Mat1d(where.size(), 0.0)};
  for (std::size_t i = 0; i < n; ++i) {
    cv::Mat1d start[2] = {images[i][0], images[i][1]};
    cv::Mat1d end[2] = {images[(i + 1) % n][0], images[(i + 1) % n][1]};
    addCoverageDerivatives(corners[i], corners[(i + 1) % n], where, picture, start, end);
  }
  Derivatives result;
  for (int pixel = 0; pixel < where.area(); ++pixel) {
    const auto passes = [pixel](const std::array<cv::Mat1d, 2>& both) {
      return both[0].ptr<double>()[pixel] != 0 || both[1].ptr<double>()[pixel] != 0;
    };
    if (std::any_of(images.begin(), images.end(), passes)) result.pixels.push_back(pixel);
  }
  const auto rows = static_cast<Eigen::Index>(result.pixels.size());
  result.columns.resize(rows, static_cast<Eigen::Index>(2 * n));
  for (Eigen::Index row = 0; row < rows; ++row) {
    for (std::size_t column = 0; column < 2 * n; ++column) {
      result.columns(row, static_cast<Eigen::Index>(column)) =
          images[column / 2][column % 2].ptr<double>()[result.pixels[static_cast<std::size_t>(row)]];
    }
  }
  return result;
}

Derivatives byChanges(const std::vector<Side>& sides, const std::vector<Point>& corners,
                      const std::vector<Change>& changes, const cv::Rect& where, cv::Size picture) {
  const std::size_t n = corners.size();
  constexpr double kStep = 1e-5;
  Eigen::MatrixXd moves =
      Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(2 * n), static_cast<Eigen::Index>(changes.size()));
  for (std::size_t k = 0; k < changes.size(); ++k) {
    std::vector<Side> moved = sides;
    apply(moved, changes[k], kStep);
    const auto there = cornersOf(moved);
    if (!there) continue;
    // A side has two corners.
    for (const std::size_t i : {changes[k].side, (changes[k].side + 1) % n}) {
      const Point by = ((*there)[i] - corners[i]) * (1 / kStep);
      moves(static_cast<Eigen::Index>(2 * i), static_cast<Eigen::Index>(k)) = by.x;
      moves(static_cast<Eigen::Index>(2 * i + 1), static_cast<Eigen::Index>(k)) = by.y;
    }
  }
  Derivatives result = byCorners(corners, where, picture);
  result.columns = result.columns * moves;
  return result;
}

/// What is missing in these pixels.
Eigen::VectorXd missing(const Path& path, const contour::Coverage& wanted, cv::Size picture,
                        const std::vector<int>& pixels) {
  const contour::Coverage own = contour::coverageOf(path, picture);
  cv::Mat1d covered(wanted.where.size(), 0.0);
  const cv::Rect both = own.where & wanted.where;
  if (!both.empty()) {
    cv::Mat1d shares;
    own.shares(both - own.where.tl()).convertTo(shares, CV_64F);
    shares.copyTo(covered(both - wanted.where.tl()));
  }
  cv::Mat1d off;
  wanted.shares.convertTo(off, CV_64F);
  off -= covered;
  Eigen::VectorXd result(static_cast<Eigen::Index>(pixels.size()));
  for (std::size_t k = 0; k < pixels.size(); ++k) result[static_cast<Eigen::Index>(k)] = off.ptr<double>()[pixels[k]];
  return result;
}

}  // namespace

void addCoverageDerivatives(Point start, Point end, const cv::Rect& where, cv::Size picture, cv::Mat1d (&byStart)[2],
                            cv::Mat1d (&byEnd)[2]) {
  const double way = distance(start, end);
  if (way <= 0) return;
  const Point out = leftNormal(unit(end - start)) * -1;
  // Cut where the edge passes from one pixel to the next.
  std::vector<double> cuts{0, 1};
  const auto cutAt = [&cuts](double from, double to) {
    if (from == to) return;
    const double low = std::min(from, to);
    const double high = std::max(from, to);
    for (double line = std::ceil(low); line <= high; ++line) cuts.push_back((line - from) / (to - from));
  };
  cutAt(start.x, end.x);
  cutAt(start.y, end.y);
  std::sort(cuts.begin(), cuts.end());
  for (std::size_t i = 1; i < cuts.size(); ++i) {
    const double from = std::clamp(cuts[i - 1], 0.0, 1.0);
    const double to = std::clamp(cuts[i], 0.0, 1.0);
    if (to <= from) continue;
    const Point middle = lerp(start, end, (from + to) / 2);
    const int column = static_cast<int>(std::floor(middle.x)) - where.x;
    const int row = static_cast<int>(std::floor(picture.height - middle.y)) - where.y;
    if (column < 0 || row < 0 || column >= where.width || row >= where.height) continue;
    const double ofEnd = way * (to * to - from * from) / 2;
    const double ofStart = way * (to - from) - ofEnd;
    byStart[0](row, column) += ofStart * out.x;
    byStart[1](row, column) += ofStart * out.y;
    byEnd[0](row, column) += ofEnd * out.x;
    byEnd[1](row, column) += ofEnd * out.y;
  }
}

std::optional<Path> polygonByGreys(const Path& start, const contour::Coverage& wanted, cv::Size picture,
                                   double levelDegrees) {
  std::vector<Side> sides = sidesOf(start, levelDegrees);
  const std::vector<Change> changes = changesOf(sides);
  const Box part{{static_cast<double>(wanted.where.x), static_cast<double>(picture.height - wanted.where.br().y)},
                 {static_cast<double>(wanted.where.br().x), static_cast<double>(picture.height - wanted.where.y)}};
  auto corners = cornersOf(sides);
  for (int step = 0; step < kMostSteps && corners; ++step) {
    const Path path = polygonOf(sides, *corners);
    const Derivatives change = byChanges(sides, *corners, changes, wanted.where, picture);
    const Eigen::MatrixXd& j = change.columns;
    Eigen::MatrixXd normal = j.transpose() * j;
    constexpr double kDamping = 1e-3;
    normal.diagonal().array() += kDamping;
    const Eigen::VectorXd by = normal.ldlt().solve(j.transpose() * missing(path, wanted, picture, change.pixels));
    if (!by.allFinite()) return std::nullopt;
    for (std::size_t k = 0; k < changes.size(); ++k)
      apply(sides, changes[k], std::clamp(by[static_cast<Eigen::Index>(k)], -kMostMovePx, kMostMovePx));
    corners = cornersOf(sides);
    if (by.cwiseAbs().maxCoeff() < kSettledPx) break;
  }
  if (!corners) return std::nullopt;
  for (const Point corner : *corners) {
    if (!part.contains(corner)) return std::nullopt;
  }
  return polygonOf(sides, *corners);
}

}  // namespace rim::trace::outline
