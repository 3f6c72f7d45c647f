#include "core/colour/calm.h"

#include <algorithm>
#include <array>
#include <map>
#include <opencv2/imgproc.hpp>

#include "core/error.h"

namespace rim {
namespace {

/// Half the pictures that are traced are JPEGs, which keep colours at half the resolution of lightness.
constexpr double kColourWeight = 0.5;
/// Farther off than this (squared) a colour says no more.
constexpr double kMostSquare = 600;
/// A px of common border weighs as much as this many pixels that are off as noise has them.
constexpr double kPerBorder = 3;
/// Parts with a larger share of the picture stay.
constexpr double kLargestShare = 0.01;
constexpr int kRounds = 4;
/// Inks that are usual nearby are believed more, for each pixel up to so many.
constexpr double kPerPixelNear = 1;
constexpr double kMostBelievedPixels = 50;
constexpr double kSomePixels = 8;

const std::array<cv::Point, 4> kNeighbours{cv::Point{1, 0}, cv::Point{-1, 0}, cv::Point{0, 1}, cv::Point{0, -1}};

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

/// An area of one label that hangs together.
struct Part {
  std::uint8_t label = 0;
  std::vector<cv::Point> pixels;
};

/// All parts with at most `most` pixels.
std::vector<Part> smallParts(const cv::Mat& labels, std::size_t most) {
  std::vector<Part> parts;
  cv::Mat seen(labels.size(), CV_8U, cv::Scalar(0));
  std::vector<cv::Point> reached;
  for (int y = 0; y < labels.rows; ++y) {
    for (int x = 0; x < labels.cols; ++x) {
      if (seen.at<std::uint8_t>(y, x) != 0) continue;
      const std::uint8_t label = labels.at<std::uint8_t>(y, x);
      reached.assign(1, {x, y});
      seen.at<std::uint8_t>(y, x) = 1;
      for (std::size_t i = 0; i < reached.size(); ++i) {
        for (const cv::Point step : kNeighbours) {
          const cv::Point p = reached[i] + step;
          if (!cv::Rect(0, 0, labels.cols, labels.rows).contains(p)) continue;
          if (seen.at<std::uint8_t>(p) != 0 || labels.at<std::uint8_t>(p) != label) continue;
          seen.at<std::uint8_t>(p) = 1;
          reached.push_back(p);
        }
      }
      if (reached.size() <= most) parts.push_back({label, reached});
    }
  }
  std::stable_sort(parts.begin(), parts.end(),
                   [](const Part& a, const Part& b) { return a.pixels.size() < b.pixels.size(); });
  return parts;
}

/// How many pixels of each ink lie around the part, its own not counted.
std::array<double, 256> pixelsNear(const Part& part, const cv::Mat& labels) {
  constexpr int kNearPx = 24;
  const cv::Rect box = cv::boundingRect(part.pixels);
  const cv::Rect around =
      cv::Rect(box.x - kNearPx, box.y - kNearPx, box.width + 2 * kNearPx, box.height + 2 * kNearPx) &
      cv::Rect(0, 0, labels.cols, labels.rows);
  std::array<double, 256> pixels{};
  for (int y = around.y; y < around.y + around.height; ++y) {
    for (int x = around.x; x < around.x + around.width; ++x) pixels[labels.at<std::uint8_t>(y, x)] += 1;
  }
  pixels[part.label] -= static_cast<double>(part.pixels.size());
  return pixels;
}

/// The ink, beside the part or near it, that it had better have; its own when none is better.
std::uint8_t betterLabel(const Part& part, const cv::Mat& labels, const cv::Mat& lab, const std::vector<Lab>& palette,
                         double perBorder) {
  std::map<std::uint8_t, double> common;
  for (const cv::Point pixel : part.pixels) {
    for (const cv::Point step : kNeighbours) {
      const cv::Point p = pixel + step;
      if (!cv::Rect(0, 0, labels.cols, labels.rows).contains(p)) continue;
      if (labels.at<std::uint8_t>(p) != part.label) common[labels.at<std::uint8_t>(p)] += 1;
    }
  }
  const auto misfit = [&](std::uint8_t label) {
    double sum = 0;
    for (const cv::Point p : part.pixels) sum += squareOff(lab.at<cv::Vec3f>(p), palette[label]);
    return sum;
  };
  const std::array<double, 256> near = pixelsNear(part, labels);
  const double belief =
      kPerPixelNear * perBorder / kPerBorder * std::min(kMostBelievedPixels, static_cast<double>(part.pixels.size()));
  const double own = misfit(part.label);
  std::uint8_t best = part.label;
  double most = 0;
  for (std::size_t label = 0; label < palette.size(); ++label) {
    const auto ink = static_cast<std::uint8_t>(label);
    if (ink == part.label || (near[label] == 0 && !common.contains(ink))) continue;
    const double border = common.contains(ink) ? common[ink] : 0;
    const double usual = std::log((near[label] + kSomePixels) / (near[part.label] + kSomePixels));
    const double gain = perBorder * border + belief * usual - (misfit(ink) - own);
    if (gain <= most) continue;
    most = gain;
    best = ink;
  }
  return best;
}

}  // namespace

cv::Mat calmedParts(const cv::Mat& labels, const cv::Mat& lab, const std::vector<Lab>& palette,
                    const std::stop_token& stop) {
  cv::Mat calm = labels.clone();
  const double perBorder = kPerBorder * wavering(labels, lab, palette);
  const auto most = static_cast<std::size_t>(kLargestShare * static_cast<double>(labels.total()));
  for (int round = 0; round < kRounds; ++round) {
    bool changed = false;
    for (const Part& part : smallParts(calm, most)) {
      if (stop.stop_requested()) throw Cancelled();
      const std::uint8_t label = betterLabel(part, calm, lab, palette, perBorder);
      if (label == part.label) continue;
      for (const cv::Point p : part.pixels) calm.at<std::uint8_t>(p) = label;
      changed = true;
    }
    if (!changed) break;
  }
  return calm;
}

}  // namespace rim
