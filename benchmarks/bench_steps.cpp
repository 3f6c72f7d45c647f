// What the steps of tracing cost on 4 megapixels. The bare OpenCV threshold and border search over
// the same picture run beside them as the measure.

#include <benchmark/benchmark.h>

#include <opencv2/imgproc.hpp>

#include "core/geometry/crossing.h"
#include "core/trace/trace.h"
#include "work_pictures.h"

namespace {

using rim::bench::fourMegapixels;

void referenceOpenCvContours(benchmark::State& state) {
  const rim::picture::Picture picture = fourMegapixels();
  for (auto _ : state) {
    cv::Mat ink;
    cv::threshold(*picture.grey, ink, 127, 255, cv::THRESH_BINARY_INV);
    std::vector<std::vector<cv::Point>> contours;
    cv::findContours(ink, contours, cv::RETR_CCOMP, cv::CHAIN_APPROX_NONE);
    benchmark::DoNotOptimize(contours);
  }
}

void followBorders(benchmark::State& state) {
  const rim::picture::Picture picture = fourMegapixels();
  for (auto _ : state) benchmark::DoNotOptimize(rim::trace::traceBorders(picture, {}));
}

void fitBorders(benchmark::State& state) {
  const rim::picture::Picture picture = fourMegapixels();
  const auto borders = rim::trace::traceBorders(picture, {});
  for (auto _ : state) benchmark::DoNotOptimize(rim::trace::fitBorders(picture, borders, {}, {}));
}

void findCrossings(benchmark::State& state) {
  const auto borders = rim::trace::traceBorders(fourMegapixels(), {});
  for (auto _ : state) benchmark::DoNotOptimize(rim::findCrossings(borders, {}));
}

/// `state.range()` by `state.range()` px of stars, as dense whatever the size.
rim::picture::Picture stars(int side) {
  constexpr int kCell = 256;
  const cv::Mat star =
      rim::test::drawn(kCell, kCell, rim::test::polygon(rim::test::starCorners(128, 128, 7, 112, 50, 0.2)));
  return rim::test::pictureOf(cv::repeat(star, side / kCell, side / kCell));
}

/// Time by pixels (and border with them): the report names the order that fits best.
void traceGrowing(benchmark::State& state) {
  const auto side = static_cast<int>(state.range());
  const rim::picture::Picture picture = stars(side);
  for (auto _ : state) benchmark::DoNotOptimize(rim::trace::trace(picture, {}));
  state.SetComplexityN(static_cast<std::int64_t>(side) * side);
}

/// Time by the length of one border: a comb with ever more teeth, on a picture that grows as they do.
void traceLongBorder(benchmark::State& state) {
  const auto teeth = static_cast<int>(state.range());
  constexpr int kTimes = 4;  // as large as it is drawn
  constexpr int kTooth = 40;
  constexpr int kHigh = 160;
  const int width = kTooth * teeth + 20;
  std::vector<cv::Point> corners{{10, kHigh - 10}};
  for (int i = 0; i < teeth; ++i) {
    corners.push_back({10 + kTooth * i + 4, 10});
    corners.push_back({10 + kTooth * i + 30, kHigh - 40});
  }
  corners.push_back({width - 10, kHigh - 10});
  for (cv::Point& corner : corners) corner *= kTimes;
  cv::Mat large(kHigh * kTimes, width * kTimes, CV_8U, cv::Scalar(255));
  cv::fillPoly(large, std::vector{corners}, cv::Scalar(0));
  cv::resize(large, large, {width, kHigh}, 0, 0, cv::INTER_AREA);
  const rim::picture::Picture picture = rim::test::pictureOf(large);
  for (auto _ : state) benchmark::DoNotOptimize(rim::trace::trace(picture, {}));
  state.SetComplexityN(teeth);
}

BENCHMARK(traceGrowing)
    ->RangeMultiplier(2)
    ->Range(512, 4096)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->Complexity();
BENCHMARK(traceLongBorder)
    ->RangeMultiplier(2)
    ->Range(32, 512)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->Complexity();
BENCHMARK(referenceOpenCvContours)->Unit(benchmark::kMillisecond);
BENCHMARK(followBorders)->Unit(benchmark::kMillisecond);
BENCHMARK(fitBorders)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(findCrossings)->Unit(benchmark::kMillisecond);

}  // namespace
