#include "core/picture/straighten.h"

#include <opencv2/imgproc.hpp>

#include "core/error.h"
#include "core/picture/find_sheet.h"
#include "core/picture/load.h"

namespace rim::picture {
namespace {

cv::Point2f toCv(Point p) { return {static_cast<float>(p.x), static_cast<float>(p.y)}; }

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

/// Of a sheet that leaves the picture, what is not seen becomes paper.
void fillBeyond(cv::Mat& flat, const cv::Mat& map, cv::Size picture) {
  cv::Mat seen;
  cv::warpPerspective(cv::Mat(picture, CV_8UC1, cv::Scalar(255)), seen, map, flat.size(), cv::INTER_NEAREST,
                      cv::BORDER_CONSTANT, cv::Scalar(0));
  if (cv::countNonZero(seen) == static_cast<int>(seen.total())) return;
  // The steps of the rim, and what the cubic kernel draws out of it.
  cv::erode(seen, seen, cv::getStructuringElement(cv::MORPH_RECT, {5, 5}), {-1, -1}, 1, cv::BORDER_CONSTANT,
            cv::Scalar(255));
  cv::Mat grey;
  cv::cvtColor(flat, grey, cv::COLOR_BGR2GRAY);
  const cv::Mat light = (grey > cv::mean(grey, seen)[0]) & seen;
  flat.setTo(cv::mean(flat, light), ~seen);
}

Quad surelyFound(const Picture& picture) {
  const auto sheet = findSheet(picture);
  if (!sheet)
    throw InputError("no sheet of paper with four sides is to be found in the picture. Set its corners by hand.");
  if (!sheet->sure)
    throw InputError(
        "there may be a sheet of paper in the picture, but its sides are too faint to be sure of. Set its "
        "corners by hand.");
  return sheet->corners;
}

}  // namespace

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
  const Quad corners = what.corners ? *what.corners : surelyFound(picture);
  if (!isConvex(corners)) throw InputError("the four corners must go round a sheet without crossing: move them apart.");
  const double ratio =
      what.sideRatio > 0 ? what.sideRatio : estimateSideRatio(corners, picture.width(), picture.height());
  // As many pixels as the sheet has in the picture, so nothing is lost and little invented.
  const double area = quadArea(corners);
  const double height = std::sqrt(area / ratio);
  const double width = height * ratio;
  if (!(width >= 2 && height >= 2)) throw InputError("the four corners lie too close together.");
  if (width * height > static_cast<double>(kMostPixels))
    throw InputError("the straightened picture would have too many pixels.");
  const cv::Size size(static_cast<int>(std::lround(width)), static_cast<int>(std::lround(height)));
  const cv::Point2f from[4] = {toCv(corners[0]), toCv(corners[1]), toCv(corners[2]), toCv(corners[3])};
  const auto w = static_cast<float>(size.width);
  const auto h = static_cast<float>(size.height);
  const cv::Point2f to[4] = {{0, 0}, {w, 0}, {w, h}, {0, h}};
  // Corners are places between pixels; OpenCV counts from the middle of the first pixel.
  const cv::Mat half = (cv::Mat_<double>(3, 3) << 1, 0, 0.5, 0, 1, 0.5, 0, 0, 1);
  const cv::Mat map = half.inv() * cv::getPerspectiveTransform(from, to) * half;
  cv::Mat flat;
  cv::warpPerspective(*picture.bgr, flat, map, size, cv::INTER_CUBIC, cv::BORDER_REPLICATE);
  fillBeyond(flat, map, {picture.width(), picture.height()});
  return withPixels(picture, withCleanRim(flat));
}

}  // namespace rim::picture
