#include "core/picture/tone.h"

#include <algorithm>
#include <cmath>
#include <mutex>
#include <opencv2/imgproc.hpp>

namespace rim {

cv::Mat greyOf(const cv::Mat& bgr) {
  cv::Mat grey;
  cv::cvtColor(bgr, grey, cv::COLOR_BGR2GRAY);
  return grey;
}

Histogram histogramOf(const cv::Mat& grey) {
  Histogram histogram{};
  std::mutex adding;
  cv::parallel_for_(cv::Range(0, grey.rows), [&](const cv::Range& rows) {
    // Four counters in turn: equal neighbours would wait for each other on one.
    std::array<Histogram, 4> counts{};
    for (int y = rows.start; y < rows.end; ++y) {
      const std::uint8_t* row = grey.ptr<std::uint8_t>(y);
      for (int x = 0; x < grey.cols; ++x) ++counts[static_cast<std::size_t>(x & 3)][row[x]];
    }
    const std::lock_guard lock(adding);
    for (const Histogram& part : counts) {
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

}  // namespace rim
