#include "core/picture/tone.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <mutex>
#include <opencv2/imgproc.hpp>

namespace rim::picture {

cv::Mat greyOf(const cv::Mat& bgr) {
  cv::Mat grey;
  cv::cvtColor(bgr, grey, cv::COLOR_BGR2GRAY);
  return grey;
}

namespace {

/// Counters taken in turn: equal neighbours would wait for each other on one.
using Counters = std::array<Histogram, 4>;

void count(const std::uint8_t* row, std::size_t length, Counters& counters) {
  constexpr std::size_t kBlock = sizeof(std::uint64_t);
  constexpr std::uint64_t kOneOfEach = 0x0101010101010101ULL;
  std::size_t x = 0;
  for (; x + kBlock <= length; x += kBlock) {
    std::uint64_t pixels = 0;
    std::memcpy(&pixels, row + x, kBlock);
    if (pixels == kOneOfEach * row[x]) {  // most of a drawing is paper and ink
      counters[0][row[x]] += kBlock;
      continue;
    }
    for (std::size_t i = 0; i < kBlock; ++i) ++counters[i % counters.size()][row[x + i]];
  }
  for (; x < length; ++x) ++counters[0][row[x]];
}

}  // namespace

Histogram histogramOf(const cv::Mat& grey) {
  Histogram histogram{};
  std::mutex adding;
  cv::parallel_for_(cv::Range(0, grey.rows), [&](const cv::Range& rows) {
    Counters counters{};
    for (int y = rows.start; y < rows.end; ++y)
      count(grey.ptr<std::uint8_t>(y), static_cast<std::size_t>(grey.cols), counters);
    const std::lock_guard lock(adding);
    for (const Histogram& part : counters) {
      for (std::size_t level = 0; level < histogram.size(); ++level) histogram[level] += part[level];
    }
  });
  return histogram;
}

std::optional<int> otsuThreshold(const Histogram& histogram) {
  double total = 0;
  double moment = 0;
  for (std::size_t level = 0; level < histogram.size(); ++level) {
    total += static_cast<double>(histogram[level]);
    moment += static_cast<double>(level) * static_cast<double>(histogram[level]);
  }
  double dark = 0;
  double darkMoment = 0;
  double best = 0;
  std::optional<double> halfway;
  for (std::size_t level = 0; level + 1 < histogram.size(); ++level) {
    dark += static_cast<double>(histogram[level]);
    darkMoment += static_cast<double>(level) * static_cast<double>(histogram[level]);
    if (dark == 0 || dark == total) continue;
    const double darkMean = darkMoment / dark;
    const double lightMean = (moment - darkMoment) / (total - dark);
    const double between = dark * (total - dark) * (lightMean - darkMean) * (lightMean - darkMean);
    // Strictly more, beyond rounding: the levels of an empty gap all part alike.
    if (between > best * (1 + 1e-12)) {
      best = between;
      halfway = (darkMean + lightMean) / 2;
    }
  }
  if (!halfway) return std::nullopt;
  return std::clamp(static_cast<int>(std::ceil(*halfway)), 1, 255);
}

}  // namespace rim::picture
