#include "core/picture/sheet_lines.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <opencv2/imgproc.hpp>
#include <optional>

namespace rim::picture {
namespace {

struct Run {
  StraightLine line;
  double worth = 0;  ///< length by how much the colours on both sides differ
};

/// How much the colours on both sides of a segment differ, within reason.
double differenceAcross(const cv::Mat& lab, Point a, Point b) {
  constexpr int kProbes = 12;
  constexpr double kAsidePx = 3;
  constexpr double kMost = 30;
  const Point aside = leftNormal(unit(b - a)) * kAsidePx;
  const auto at = [&lab](Point p) {
    return lab.at<cv::Vec3f>(std::clamp(static_cast<int>(p.y), 0, lab.rows - 1),
                             std::clamp(static_cast<int>(p.x), 0, lab.cols - 1));
  };
  double sum = 0;
  for (int k = 0; k < kProbes; ++k) {
    const Point foot = lerp(a, b, (k + 0.5) / kProbes);
    sum += std::min(kMost, cv::norm(at(foot + aside) - at(foot - aside)));
  }
  return sum / kProbes;
}

/// The segments of one channel, whose levels from `least` to `most` are looked at.
void addSegments(const cv::Mat& lab, const cv::Mat& channel, double least, double most, std::vector<Run>& runs) {
  constexpr double kShortestShare = 0.03;
  cv::Mat levels;
  channel.convertTo(levels, CV_8U, 255 / (most - least), -least * 255 / (most - least));
  std::vector<cv::Vec4f> segments;
  cv::createLineSegmentDetector(cv::LSD_REFINE_STD)->detect(levels, segments);
  const double shortest = kShortestShare * std::max(channel.cols, channel.rows);
  for (const cv::Vec4f& s : segments) {
    const Point a{s[0], s[1]};
    const Point b{s[2], s[3]};
    const double size = distance(a, b);
    if (size >= shortest) runs.push_back({{lerp(a, b, 0.5), unit(b - a)}, size * differenceAcross(lab, a, b)});
  }
}

bool inLine(const Run& a, const Run& b) {
  constexpr double kMostDegrees = 3;
  constexpr double kMostOffPx = 3;
  const double sine = std::abs(cross(a.line.along, b.line.along));
  if (sine > std::sin(kMostDegrees * std::numbers::pi / 180)) return false;
  return std::abs(cross(a.line.along, b.line.place - a.line.place)) < kMostOffPx;
}

}  // namespace

std::optional<Point> crossingOf(const StraightLine& a, const StraightLine& b) {
  constexpr double kAlmostParallel = 1e-6;
  const double bend = cross(a.along, b.along);
  if (std::abs(bend) < kAlmostParallel) return std::nullopt;
  return a.place + a.along * (cross(b.place - a.place, b.along) / bend);
}

std::vector<StraightLine> longEdges(const cv::Mat& lab, std::size_t most) {
  constexpr double kColourReach = 40;
  cv::Mat channels[3];
  cv::split(lab, channels);
  std::vector<Run> runs;
  addSegments(lab, channels[0], 0, 100, runs);
  addSegments(lab, channels[1], -kColourReach, kColourReach, runs);
  addSegments(lab, channels[2], -kColourReach, kColourReach, runs);
  const auto better = [](const Run& a, const Run& b) { return a.worth > b.worth; };
  std::stable_sort(runs.begin(), runs.end(), better);
  std::vector<Run> together;
  for (const Run& run : runs) {
    const auto known = std::find_if(together.begin(), together.end(), [&](const Run& r) { return inLine(r, run); });
    if (known == together.end()) {
      together.push_back(run);
    } else {
      known->worth += run.worth;
    }
  }
  std::stable_sort(together.begin(), together.end(), better);
  if (together.size() > most) together.resize(most);
  std::vector<StraightLine> lines;
  for (const Run& run : together) lines.push_back(run.line);
  return lines;
}

}  // namespace rim::picture
