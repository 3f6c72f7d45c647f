#include "core/colour/calm.h"

#include <algorithm>
#include <limits>
#include <map>
#include <opencv2/imgproc.hpp>

#include "core/colour/connected_components.h"
#include "core/colour/ink_counts.h"
#include "core/error.h"

namespace rim::colour {
namespace {

/// Half the pictures that are traced are JPEGs, which keep colours at half the resolution of lightness.
constexpr double kColourWeight = 0.5;
/// Farther off than this (squared) a colour says no more.
constexpr double kMostSquare = 600;
/// A px of common border weighs as much as this many pixels that are off as noise has them.
constexpr double kPerBorder = 3;
/// Parts with a larger share of the picture stay.
constexpr double kLargestShare = 0.01;
constexpr double kAnyMisfit = std::numeric_limits<double>::infinity();
constexpr int kRounds = 4;
/// Inks that are usual nearby are believed more, for each pixel up to so many.
constexpr double kPerPixelNear = 1;
constexpr double kMostBelievedPixels = 50;
constexpr double kSomePixels = 8;

double squareOff(const cv::Vec3f& pixel, Lab ink) {
  return std::min(kMostSquare, squareBetween(labOf(pixel), ink, kColourWeight));
}

/// Pixels whose eight neighbours have the same label.
cv::Mat innerOf(const cv::Mat& labels) {
  cv::Mat low;
  cv::Mat high;
  cv::erode(labels, low, cv::Mat::ones(3, 3, CV_8U));
  cv::dilate(labels, high, cv::Mat::ones(3, 3, CV_8U));
  return low == high;
}

/// How far colours beside borders are off their inks, squared: what cannot be told apart.
double wavering(const cv::Mat& labels, const cv::Mat& lab, const std::vector<Lab>& palette) {
  constexpr int kNearPx = 9;
  const cv::Mat inner = innerOf(labels);
  cv::Mat beside;
  cv::dilate(~inner, beside, cv::Mat::ones(kNearPx, kNearPx, CV_8U));
  beside &= inner;
  double sum = 0;
  double count = 0;
  for (int y = 0; y < labels.rows; ++y) {
    for (int x = 0; x < labels.cols; ++x) {
      if (beside.at<std::uint8_t>(y, x) == 0) continue;
      sum += squareOff(lab.at<cv::Vec3f>(y, x), palette[labels.at<std::uint8_t>(y, x)]);
      count += 1;
    }
  }
  return count > 0 ? sum / count : 0;
}

/// A part with its place.
struct Part {
  std::uint8_t label = 0;
  std::size_t pixels = 0;
  std::vector<LabelRun> runs;
  cv::Rect box;
};

cv::Rect boxOf(const std::vector<LabelRun>& runs) {
  cv::Rect box(runs.front().begin, runs.front().y, 1, 1);
  for (const LabelRun& run : runs) box |= cv::Rect(run.begin, run.y, run.end - run.begin, 1);
  return box;
}

/// All parts with at most `most` pixels, the smallest first.
std::vector<Part> smallParts(const cv::Mat& labels, std::size_t most, const std::stop_token& stop) {
  const ConnectedComponents all = connectedComponents(labels, stop);
  std::vector<Part> parts;
  for (std::vector<LabelRun>& runs : runsOfSmallComponents(all, most)) {
    const Component& part = all.parts[runs.front().part];
    const cv::Rect box = boxOf(runs);
    parts.push_back({part.label, part.pixels, std::move(runs), box});
  }
  std::stable_sort(parts.begin(), parts.end(), [](const Part& a, const Part& b) { return a.pixels < b.pixels; });
  return parts;
}

/// How far the part's colours are off the ink, squared; or more than `enough`, when it is that.
double misfit(const Part& part, const cv::Mat& lab, Lab ink, double enough) {
  double sum = 0;
  for (const LabelRun& run : part.runs) {
    const auto* row = lab.ptr<cv::Vec3f>(run.y);
    for (int x = run.begin; x < run.end; ++x) sum += squareOff(row[x], ink);
    if (sum > enough) break;
  }
  return sum;
}

/// What has a say in which ink a part has.
cv::Rect surroundings(const Part& part, cv::Size picture) {
  constexpr int kNearPx = 24;
  const cv::Rect& box = part.box;
  return cv::Rect(box.x - kNearPx, box.y - kNearPx, box.width + 2 * kNearPx, box.height + 2 * kNearPx) &
         cv::Rect({}, picture);
}

/// The ink, beside the part or near it, that it had better have; its own when none is better.
std::uint8_t betterLabel(const Part& part, const InkCounts& labels, const cv::Mat& lab, const std::vector<Lab>& palette,
                         double perBorder) {
  const LabelCounts common = commonSides(part.runs, labels.labels());
  LabelCounts near = labels.pixelsIn(surroundings(part, lab.size()));
  near[part.label] -= static_cast<double>(part.pixels);
  const double belief =
      kPerPixelNear * perBorder / kPerBorder * std::min(kMostBelievedPixels, static_cast<double>(part.pixels));
  const double own = misfit(part, lab, palette[part.label], kAnyMisfit);
  std::uint8_t best = part.label;
  double most = 0;
  for (std::size_t ink = 0; ink < palette.size(); ++ink) {
    if (ink == part.label || (near[ink] == 0 && common[ink] == 0)) continue;
    const double usual = std::log((near[ink] + kSomePixels) / (near[part.label] + kSomePixels));
    const double speaksFor = perBorder * common[ink] + belief * usual;
    // Most inks are so far off that a few pixels show it.
    const double gain = speaksFor - (misfit(part, lab, palette[ink], own + speaksFor - most + 1) - own);
    if (gain <= most) continue;
    most = gain;
    best = static_cast<std::uint8_t>(ink);
  }
  return best;
}

}  // namespace

cv::Mat calmedParts(const cv::Mat& labels, const cv::Mat& lab, const std::vector<Lab>& palette,
                    const std::stop_token& stop) {
  const double perBorder = kPerBorder * wavering(labels, lab, palette);
  const auto most = static_cast<std::size_t>(kLargestShare * static_cast<double>(labels.total()));
  InkCounts calm(labels, palette.size());
  std::map<std::pair<int, int>, int> looked;  // after how many changes a part was looked at, by its first pixel
  for (int round = 0; round < kRounds; ++round) {
    const int before = calm.changes();
    for (const Part& part : smallParts(calm.labels(), most, stop)) {
      if (stop.stop_requested()) throw Cancelled();
      // Where nothing has changed since, it would come out the same.
      const auto [at, isNew] = looked.try_emplace({part.runs.front().y, part.runs.front().begin}, calm.changes());
      if (!isNew && !calm.mayHaveChangedSince(surroundings(part, labels.size()), at->second)) continue;
      at->second = calm.changes();
      const std::uint8_t label = betterLabel(part, calm, lab, palette, perBorder);
      if (label == part.label) continue;
      for (const LabelRun& run : part.runs) calm.change(run, label);
    }
    if (calm.changes() == before) break;
  }
  return calm.labels();
}

}  // namespace rim::colour
