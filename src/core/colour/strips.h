#pragma once

#include <algorithm>
#include <opencv2/core.hpp>

namespace rim::colour {

/// Calls `work` for strips of 16 of `rows` rows, side by side on all processors: what is worked out for a strip on the
/// way stays in the processor's cache, which that of a large picture would not.
template <typename Work>
void forStrips(int rows, Work work) {
  constexpr int kStripRows = 16;
  cv::parallel_for_({0, (rows + kStripRows - 1) / kStripRows}, [&](const cv::Range& strips) {
    for (int strip = strips.start; strip < strips.end; ++strip)
      work(cv::Range(strip * kStripRows, std::min(rows, (strip + 1) * kStripRows)));
  });
}

}  // namespace rim::colour
