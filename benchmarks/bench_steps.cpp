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

BENCHMARK(referenceOpenCvContours)->Unit(benchmark::kMillisecond);
BENCHMARK(followBorders)->Unit(benchmark::kMillisecond);
BENCHMARK(fitBorders)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(findCrossings)->Unit(benchmark::kMillisecond);

}  // namespace
