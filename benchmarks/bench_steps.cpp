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
  const rim::Picture picture = fourMegapixels();
  for (auto _ : state) {
    cv::Mat ink;
    cv::threshold(*picture.grey, ink, 127, 255, cv::THRESH_BINARY_INV);
    std::vector<std::vector<cv::Point>> contours;
    cv::findContours(ink, contours, cv::RETR_CCOMP, cv::CHAIN_APPROX_NONE);
    benchmark::DoNotOptimize(contours);
  }
}

void followBorders(benchmark::State& state) {
  const rim::Picture picture = fourMegapixels();
  for (auto _ : state) benchmark::DoNotOptimize(rim::traceBorders(picture, {}));
}

void fitBorders(benchmark::State& state) {
  const rim::Picture picture = fourMegapixels();
  const auto borders = rim::traceBorders(picture, {});
  for (auto _ : state) benchmark::DoNotOptimize(rim::fitBorders(picture, borders, {}, {}));
}

void findCrossings(benchmark::State& state) {
  const auto borders = rim::traceBorders(fourMegapixels(), {});
  for (auto _ : state) benchmark::DoNotOptimize(rim::findCrossings(borders, {}));
}

/// `state.range()` by `state.range()` px of stars, as dense whatever the size.
rim::Picture stars(int side) {
  constexpr int kCell = 256;
  const cv::Mat star =
      rim::test::drawn(kCell, kCell, rim::test::polygon(rim::test::starCorners(128, 128, 7, 112, 50, 0.2)));
  return rim::test::pictureOf(cv::repeat(star, side / kCell, side / kCell));
}

/// Time by pixels (and border with them): the report names the order that fits best.
void traceGrowing(benchmark::State& state) {
  const auto side = static_cast<int>(state.range());
  const rim::Picture picture = stars(side);
  for (auto _ : state) benchmark::DoNotOptimize(rim::trace(picture, {}));
  state.SetComplexityN(static_cast<std::int64_t>(side) * side);
}

/// Time by the length of one border: a star with ever more tips.
void traceLongBorder(benchmark::State& state) {
  const auto tips = static_cast<int>(state.range());
  const int side = 40 * tips;
  std::vector<cv::Point> corners;
  constexpr int kTimes = 4;
  for (const rim::Point p : rim::test::starCorners(side / 2.0, side / 2.0, tips, side / 2.0 - 6, side / 2.0 - 60, 0.2))
    corners.push_back({static_cast<int>(p.x * kTimes), static_cast<int>(p.y * kTimes)});
  cv::Mat large(side * kTimes, side * kTimes, CV_8U, cv::Scalar(255));
  cv::fillPoly(large, std::vector{corners}, cv::Scalar(0));
  cv::resize(large, large, {side, side}, 0, 0, cv::INTER_AREA);
  const rim::Picture picture = rim::test::pictureOf(large);
  for (auto _ : state) benchmark::DoNotOptimize(rim::trace(picture, {}));
  state.SetComplexityN(tips);
}

BENCHMARK(traceGrowing)
    ->RangeMultiplier(2)
    ->Range(512, 4096)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->Complexity();
BENCHMARK(traceLongBorder)
    ->RangeMultiplier(2)
    ->Range(8, 64)
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime()
    ->Complexity();
BENCHMARK(referenceOpenCvContours)->Unit(benchmark::kMillisecond);
BENCHMARK(followBorders)->Unit(benchmark::kMillisecond);
BENCHMARK(fitBorders)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(findCrossings)->Unit(benchmark::kMillisecond);

}  // namespace
