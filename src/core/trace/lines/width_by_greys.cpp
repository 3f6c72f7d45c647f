#include "core/trace/lines/width_by_greys.h"

#include <algorithm>
#include <cmath>

#include "core/median.h"
#include "core/trace/contour/grey_level.h"

namespace rim::trace::lines {
namespace {

constexpr double kStepPx = 0.25;
constexpr double kBesidePx = 2.5;  // beyond the stroke, to where paper is even

/// Levels along a line square to the stroke: in its middle, at both sides of it, and their sum.
struct Profile {
  double middle = 0;
  double paper = 0;
  double sum = 0;
  int count = 0;
};

std::optional<Profile> profileAt(const cv::Mat& grey, Point place, Point normal, double widthPx) {
  const double reach = widthPx / 2 + kBesidePx;
  const int steps = static_cast<int>(std::ceil(reach / kStepPx));
  Profile profile;
  double first = 0;
  double last = 0;
  for (int k = -steps; k <= steps; ++k) {
    const auto level = contour::levelAt(grey, place + normal * (k * kStepPx));
    if (!level) return std::nullopt;
    if (k == -steps) first = *level;
    if (k == steps) last = *level;
    if (k == 0) profile.middle = *level;
    profile.sum += *level;
    ++profile.count;
  }
  // Something else lies at one side: what is paper cannot be told.
  constexpr double kEven = 0.1;
  if (std::abs(first - last) > kEven * std::abs((first + last) / 2 - profile.middle)) return std::nullopt;
  profile.paper = (first + last) / 2;
  return profile;
}

}  // namespace

std::optional<double> widthByGreys(const cv::Mat& grey, const StrokeLine& line, double widthPx) {
  constexpr std::size_t kEvery = 3;
  constexpr std::size_t kLeast = 8;
  constexpr double kLeastContrast = 24;
  if (widthPx <= 0 || widthPx > kWidestByGreysPx) return std::nullopt;
  const auto skip = line.closed ? 0 : static_cast<std::size_t>(widthPx / kTrackStepPx);
  std::vector<Profile> profiles;
  std::vector<double> middles;
  std::vector<double> papers;
  for (std::size_t i = skip + 2; i + skip + 2 < line.points.size(); i += kEvery) {
    const Point normal = leftNormal(unit(line.points[i + 2] - line.points[i - 2]));
    const auto profile = profileAt(grey, line.points[i], normal, widthPx);
    if (!profile || std::abs(profile->paper - profile->middle) < kLeastContrast) continue;
    profiles.push_back(*profile);
    middles.push_back(profile->middle);
    papers.push_back(profile->paper);
  }
  if (profiles.size() < kLeast) return std::nullopt;
  const double paper = medianOf(std::move(papers));
  // A narrow stroke shows its full darkness only where its middle happens to be a pixel's: the quartile towards ink.
  const double ink = quantileOf(middles, medianOf(middles) < paper ? 0.25 : 0.75);
  std::vector<double> widths;
  for (const Profile& p : profiles) widths.push_back((paper * p.count - p.sum) / (paper - ink) * kStepPx);
  return medianOf(std::move(widths));
}

}  // namespace rim::trace::lines
