#include "core/picture/practice_camera.h"

#include <numbers>
#include <opencv2/imgproc.hpp>

namespace rim::picture {
namespace {

constexpr double kFocal = 1.2;    // picture widths
constexpr double kMargin = 0.04;  // of the picture, round the sheet
const cv::Scalar kTable(58, 66, 78);

cv::Matx33d turnOf(const PracticeShot& shot) {
  constexpr double kRadian = std::numbers::pi / 180;
  const double t = shot.tiltDegrees * kRadian;
  const double p = shot.panDegrees * kRadian;
  const double r = shot.rollDegrees * kRadian;
  const cv::Matx33d tilt(1, 0, 0, 0, std::cos(t), -std::sin(t), 0, std::sin(t), std::cos(t));
  const cv::Matx33d pan(std::cos(p), 0, std::sin(p), 0, 1, 0, -std::sin(p), 0, std::cos(p));
  const cv::Matx33d roll(std::cos(r), -std::sin(r), 0, std::sin(r), std::cos(r), 0, 0, 0, 1);
  return roll * pan * tilt;
}

/// The corners of a sheet `ratio` wide and 1 high at this distance, in px of the photo.
Quad cornersAt(double distance, double ratio, const cv::Matx33d& turn, cv::Size photo) {
  constexpr double kX[] = {-0.5, 0.5, 0.5, -0.5};
  constexpr double kY[] = {-0.5, -0.5, 0.5, 0.5};
  Quad corners;
  for (std::size_t i = 0; i < 4; ++i) {
    const cv::Vec3d p = turn * cv::Vec3d(kX[i] * ratio, kY[i], 0) + cv::Vec3d(0, 0, distance);
    corners[i] = {photo.width * (0.5 + kFocal * p[0] / p[2]), photo.height / 2.0 + kFocal * photo.width * p[1] / p[2]};
  }
  return corners;
}

/// Nearer than half the sheet's diagonal some of it may lie behind the camera.
bool inFront(double distance, double ratio) { return distance > std::hypot(ratio, 1.0) / 2; }

bool allInside(const Quad& corners, cv::Size photo) {
  const double margin = kMargin * photo.width;
  return std::all_of(corners.begin(), corners.end(), [&](Point p) {
    return p.x > margin && p.y > margin && p.x < photo.width - margin && p.y < photo.height - margin;
  });
}

cv::Point2f middleOfPixel(Point p) { return {static_cast<float>(p.x - 0.5), static_cast<float>(p.y - 0.5)}; }

void dim(cv::Mat& photo, double fall) {
  for (int y = 0; y < photo.rows; ++y) {
    for (int x = 0; x < photo.cols; ++x) {
      const double light = 1 - fall * (0.7 * x / photo.cols + 0.3 * y / photo.rows);
      photo.at<cv::Vec3f>(y, x) *= light;
    }
  }
}

/// How bright each of the threads that lie side by side is, near 1: no two are spun alike.
std::vector<double> threads(int count, double depth, cv::RNG& random) {
  std::vector<double> brightness;
  for (int i = 0; i < count; ++i) brightness.push_back(1 + random.gaussian(depth / 4));
  return brightness;
}

/// A plain weave: threads across and along pass over each other by turns, round and darker towards their edges.
void weave(cv::Mat& photo, double depth, unsigned seed) {
  constexpr double kThreadPx = 4;
  constexpr double kMeanOfArch = 2 / std::numbers::pi;
  cv::RNG random(seed + 1);
  const auto along = threads(static_cast<int>(photo.cols / kThreadPx) + 1, depth, random);
  const auto across = threads(static_cast<int>(photo.rows / kThreadPx) + 1, depth, random);
  const auto arch = [](double at) { return std::sin(std::numbers::pi * (at - std::floor(at))); };
  for (int y = 0; y < photo.rows; ++y) {
    for (int x = 0; x < photo.cols; ++x) {
      const double u = (x + 0.5) / kThreadPx;
      const double v = (y + 0.5) / kThreadPx;
      const auto i = static_cast<std::size_t>(u);
      const auto j = static_cast<std::size_t>(v);
      const bool alongIsUp = (i + j) % 2 == 0;
      const double thread = alongIsUp ? along[i] : across[j];
      photo.at<cv::Vec3f>(y, x) *= thread + depth * (arch(alongIsUp ? u : v) - kMeanOfArch);
    }
  }
}

}  // namespace

PracticePhoto takePracticePhoto(const Picture& drawing, const PracticeShot& shot) {
  const cv::Size size(shot.widthPx, shot.widthPx * 3 / 4);
  const double ratio = drawing.width() / static_cast<double>(drawing.height());
  const cv::Matx33d turn = turnOf(shot);
  double distance = 1;
  constexpr double kStepBack = 1.02;
  Quad corners = cornersAt(distance, ratio, turn, size);
  for (int i = 0; i < 400 && !(inFront(distance, ratio) && allInside(corners, size)); ++i) {
    distance *= kStepBack;
    corners = cornersAt(distance, ratio, turn, size);
  }
  const auto w = static_cast<float>(drawing.width());
  const auto h = static_cast<float>(drawing.height());
  const cv::Point2f from[4] = {{-0.5F, -0.5F}, {w - 0.5F, -0.5F}, {w - 0.5F, h - 0.5F}, {-0.5F, h - 0.5F}};
  cv::Point2f to[4];
  std::transform(corners.begin(), corners.end(), to, middleOfPixel);
  cv::Mat photo(size, CV_8UC3, kTable);
  cv::warpPerspective(*drawing.bgr, photo, cv::getPerspectiveTransform(from, to), size, cv::INTER_AREA,
                      cv::BORDER_TRANSPARENT);
  cv::Mat levels;
  photo.convertTo(levels, CV_32FC3);
  if (shot.blurPx > 0) cv::GaussianBlur(levels, levels, {0, 0}, shot.blurPx);
  if (shot.fabricDepth > 0) weave(levels, shot.fabricDepth, shot.seed);
  dim(levels, shot.lightFall);
  if (shot.noiseLevels > 0) {
    cv::Mat noise(size, CV_32FC3);
    cv::RNG random(shot.seed);
    random.fill(noise, cv::RNG::NORMAL, 0, shot.noiseLevels);
    levels += noise;
  }
  levels.convertTo(photo, CV_8UC3);
  return {makePicture(photo, 0, drawing.name), corners};
}

}  // namespace rim::picture
