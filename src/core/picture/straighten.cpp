#include "core/picture/straighten.h"

#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/load.h"

namespace rim {
namespace {

constexpr double kSmallestShare = 0.1;  // of the picture's area, for a sheet
constexpr double kLargestShare = 0.93;

cv::Point2f toCv(Point p) { return {static_cast<float>(p.x), static_cast<float>(p.y)}; }

/// A line as a place and a unit direction.
struct Line {
  Point place;
  Point along;
};

std::optional<Point> meet(const Line& a, const Line& b) {
  const double bend = cross(a.along, b.along);
  if (std::abs(bend) < 1e-6) return std::nullopt;
  return a.place + a.along * (cross(b.place - a.place, b.along) / bend);
}

/// Upper left first, then clockwise as seen (y down).
Quad inOrder(const std::vector<cv::Point>& points, double scale) {
  Point middle;
  std::vector<Point> corners;
  for (const cv::Point& p : points) corners.push_back({(p.x + 0.5) * scale, (p.y + 0.5) * scale});
  for (const Point p : corners) middle = middle + p * 0.25;
  std::sort(corners.begin(), corners.end(), [middle](Point a, Point b) {
    return std::atan2(a.y - middle.y, a.x - middle.x) < std::atan2(b.y - middle.y, b.x - middle.x);
  });
  const auto upperLeft =
      std::min_element(corners.begin(), corners.end(), [](Point a, Point b) { return a.x + a.y < b.x + b.y; });
  std::rotate(corners.begin(), upperLeft, corners.end());
  return {corners[0], corners[1], corners[2], corners[3]};
}

/// The largest light convex quadrilateral in a small grey picture, at any of several thresholds.
std::optional<std::vector<cv::Point>> largestQuad(const cv::Mat& grey) {
  std::optional<std::vector<cv::Point>> best;
  double bestArea = kSmallestShare * static_cast<double>(grey.total());
  cv::Mat ignored;
  const double otsu = cv::threshold(grey, ignored, 0, 255, cv::THRESH_BINARY | cv::THRESH_OTSU);
  for (const double share : {1.0, 0.85, 0.7, 1.15, 0.55, 1.3}) {
    cv::Mat light;
    cv::threshold(grey, light, otsu * share, 255, cv::THRESH_BINARY);
    cv::morphologyEx(light, light, cv::MORPH_CLOSE, cv::getStructuringElement(cv::MORPH_ELLIPSE, {9, 9}));
    std::vector<std::vector<cv::Point>> contours;
    cv::findContours(light, contours, cv::RETR_EXTERNAL, cv::CHAIN_APPROX_NONE);
    for (const auto& contour : contours) {
      std::vector<cv::Point> hull;
      std::vector<cv::Point> quad;
      cv::convexHull(contour, hull);
      cv::approxPolyDP(hull, quad, 0.03 * cv::arcLength(hull, true), true);
      const double area = cv::contourArea(quad);
      // A sheet fills its quadrilateral, and it does not fill the picture.
      const bool filled = cv::contourArea(contour) > 0.9 * area;
      if (quad.size() == 4 && filled && area > bestArea && area < kLargestShare * static_cast<double>(grey.total())) {
        bestArea = area;
        best = quad;
      }
    }
  }
  return best;
}

double greyAt(const cv::Mat& grey, Point p) {
  const int x = std::clamp(static_cast<int>(std::floor(p.x)), 0, grey.cols - 1);
  const int y = std::clamp(static_cast<int>(std::floor(p.y)), 0, grey.rows - 1);
  return grey.at<std::uint8_t>(y, x);
}

/// The side from a to b moved to where the grey levels rise most steeply inwards.
std::optional<Line> fittedSide(const cv::Mat& grey, Point a, Point b, double reachPx) {
  constexpr int kProbes = 60;
  constexpr int kHalfStep = 2;
  const Point along = unit(b - a);
  const Point inwards{-along.y, along.x};  // clockwise with y down: the sheet lies at the right
  std::vector<cv::Point2f> edge;
  for (int k = 3; k < kProbes - 3; ++k) {
    const Point foot = lerp(a, b, (k + 0.5) / kProbes);
    double steepest = 8;
    double at = 0;
    bool found = false;
    for (double d = -reachPx; d <= reachPx; d += 0.5) {
      const double rise =
          greyAt(grey, foot + inwards * (d + kHalfStep)) - greyAt(grey, foot + inwards * (d - kHalfStep));
      if (rise > steepest) {
        steepest = rise;
        at = d;
        found = true;
      }
    }
    if (found) edge.push_back(toCv(foot + inwards * at));
  }
  if (edge.size() < kProbes / 3) return std::nullopt;
  cv::Vec4f line;
  cv::fitLine(edge, line, cv::DIST_HUBER, 0, 0.01, 0.01);
  return Line{{line[2], line[3]}, {line[0], line[1]}};
}

double quadArea(const Quad& q) {
  double twice = 0;
  for (std::size_t i = 0; i < 4; ++i) twice += cross(q[i], q[(i + 1) % 4]);
  return twice / 2;
}

/// What the sheet lies on shows through along its edges by a pixel or two, and would be traced as a
/// frame. The outermost pixels are replaced by what is just inside them.
cv::Mat withCleanRim(const cv::Mat& flat) {
  constexpr double kShareOfSide = 0.003;
  const int rim = 2 + static_cast<int>(kShareOfSide * std::max(flat.cols, flat.rows));
  if (flat.cols < 4 * rim || flat.rows < 4 * rim) return flat;
  const cv::Mat inside = flat(cv::Rect(rim, rim, flat.cols - 2 * rim, flat.rows - 2 * rim));
  cv::Mat clean;
  cv::copyMakeBorder(inside, clean, rim, rim, rim, rim, cv::BORDER_REPLICATE | cv::BORDER_ISOLATED);
  return clean;
}

}  // namespace

std::optional<Quad> findSheet(const Picture& picture) {
  if (picture.empty()) return std::nullopt;
  constexpr double kSmallSide = 500;
  const double scale = std::max(1.0, std::max(picture.width(), picture.height()) / kSmallSide);
  cv::Mat small;
  cv::resize(*picture.grey, small, {}, 1 / scale, 1 / scale, cv::INTER_AREA);
  cv::GaussianBlur(small, small, {0, 0}, 1.5);
  const auto rough = largestQuad(small);
  if (!rough) return std::nullopt;
  Quad corners = inOrder(*rough, scale);
  cv::Mat calm;
  cv::GaussianBlur(*picture.grey, calm, {0, 0}, 1.2);
  std::array<Line, 4> sides;
  for (std::size_t i = 0; i < 4; ++i) {
    const auto side = fittedSide(calm, corners[i], corners[(i + 1) % 4], 4 * scale + 6);
    sides[i] = side ? *side : Line{corners[i], unit(corners[(i + 1) % 4] - corners[i])};
  }
  for (std::size_t i = 0; i < 4; ++i) {
    const auto corner = meet(sides[(i + 3) % 4], sides[i]);
    if (corner && distance(*corner, corners[i]) < 20 * scale) corners[i] = *corner;
  }
  return corners;
}

double estimateSideRatio(const Quad& c, int widthPx, int heightPx) {
  // Coordinates from the middle of the picture, in picture widths: numbers near 1.
  const double unitPx = std::max(widthPx, heightPx);
  const auto homogeneous = [&](Point p) {
    return cv::Vec3d((p.x - widthPx / 2.0) / unitPx, (p.y - heightPx / 2.0) / unitPx, 1);
  };
  // The paper's order: (0, 0), (w, 0), (0, h), (w, h).
  const cv::Vec3d m1 = homogeneous(c[0]);
  const cv::Vec3d m2 = homogeneous(c[1]);
  const cv::Vec3d m3 = homogeneous(c[3]);
  const cv::Vec3d m4 = homogeneous(c[2]);
  const double k2 = m1.cross(m4).dot(m3) / m2.cross(m4).dot(m3);
  const double k3 = m1.cross(m4).dot(m2) / m3.cross(m4).dot(m2);
  const cv::Vec3d n2 = k2 * m2 - m1;
  const cv::Vec3d n3 = k3 * m3 - m1;
  constexpr double kUsualFocalLength = 1.2;
  constexpr double kWeakest = 0.02;
  double focalSquare = kUsualFocalLength * kUsualFocalLength;
  if (std::abs(n2[2]) > kWeakest && std::abs(n3[2]) > kWeakest) {
    const double estimated = -(n2[0] * n3[0] + n2[1] * n3[1]) / (n2[2] * n3[2]);
    if (estimated > 0.1 && estimated < 100) focalSquare = estimated;
  }
  const auto lengthOf = [focalSquare](const cv::Vec3d& n) {
    return std::sqrt((n[0] * n[0] + n[1] * n[1]) / focalSquare + n[2] * n[2]);
  };
  return lengthOf(n2) / lengthOf(n3);
}

bool isConvex(const Quad& c) {
  for (std::size_t i = 0; i < 4; ++i) {
    if (cross(c[(i + 1) % 4] - c[i], c[(i + 2) % 4] - c[(i + 1) % 4]) <= 0) return false;
  }
  return true;
}

Picture straightened(const Picture& picture, const Straighten& what) {
  const auto corners = what.corners ? what.corners : findSheet(picture);
  if (!corners)
    throw InputError("no light sheet with four corners is to be found in the picture. Set the corners by hand.");
  if (!isConvex(*corners))
    throw InputError("the four corners must go round a sheet without crossing: move them apart.");
  const double ratio =
      what.sideRatio > 0 ? what.sideRatio : estimateSideRatio(*corners, picture.width(), picture.height());
  // As many pixels as the sheet has in the picture, so nothing is lost and little invented.
  const double area = quadArea(*corners);
  const double height = std::sqrt(area / ratio);
  const double width = height * ratio;
  if (!(width >= 2 && height >= 2)) throw InputError("the four corners lie too close together.");
  if (width * height > static_cast<double>(kMostPixels))
    throw InputError("the straightened picture would have too many pixels.");
  const cv::Size size(static_cast<int>(std::lround(width)), static_cast<int>(std::lround(height)));
  const cv::Point2f from[4] = {toCv((*corners)[0]), toCv((*corners)[1]), toCv((*corners)[2]), toCv((*corners)[3])};
  const auto w = static_cast<float>(size.width);
  const auto h = static_cast<float>(size.height);
  const cv::Point2f to[4] = {{0, 0}, {w, 0}, {w, h}, {0, h}};
  // Corners are places between pixels; OpenCV counts from the middle of the first pixel.
  const cv::Mat half = (cv::Mat_<double>(3, 3) << 1, 0, 0.5, 0, 1, 0.5, 0, 0, 1);
  const cv::Mat map = half.inv() * cv::getPerspectiveTransform(from, to) * half;
  cv::Mat flat;
  cv::warpPerspective(*picture.bgr, flat, map, size, cv::INTER_CUBIC, cv::BORDER_REPLICATE);
  return withPixels(picture, withCleanRim(flat));
}

}  // namespace rim
