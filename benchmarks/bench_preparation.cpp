// What preparing a picture costs on 16 megapixels. Beside each step stands the bare OpenCV call
// that does most of the same, as the measure.

#include <benchmark/benchmark.h>

#include <opencv2/imgproc.hpp>

#include "core/picture/assess.h"
#include "core/picture/light.h"
#include "core/picture/preparation.h"
#include "core/picture/preview.h"
#include "support/pictures.h"

namespace {

const rim::picture::Picture& sixteenMegapixels() {
  static const rim::picture::Picture picture = [] {
    cv::Mat grey(3464, 4619, CV_8UC1, cv::Scalar(230));
    for (int k = 0; k < 60; ++k) {
      cv::circle(grey, {300 + 430 * (k % 10), 300 + 560 * (k / 10)}, 150, cv::Scalar(40), 30, cv::LINE_AA);
    }
    return rim::test::pictureOf(grey);
  }();
  return picture;
}

void step(benchmark::State& state, const rim::picture::Preparation& what) {
  for (auto _ : state) benchmark::DoNotOptimize(rim::picture::prepared(sixteenMegapixels(), what));
}

void referenceWarp(benchmark::State& state) {
  cv::Mat out;
  const cv::Mat map = (cv::Mat_<double>(3, 3) << 1, 0.05, 3, 0.02, 1, 5, 1e-5, 1e-5, 1);
  for (auto _ : state)
    cv::warpPerspective(*sixteenMegapixels().bgr, out, map, sixteenMegapixels().bgr->size(), cv::INTER_CUBIC);
}

void referenceDivide(benchmark::State& state) {
  cv::Mat out;
  const cv::Mat other(sixteenMegapixels().bgr->size(), CV_8UC3, cv::Scalar(200, 200, 200));
  for (auto _ : state) cv::divide(*sixteenMegapixels().bgr, other, out, 245);
}

void referenceBilateral(benchmark::State& state) {
  cv::Mat out;
  for (auto _ : state) cv::bilateralFilter(*sixteenMegapixels().bgr, out, 5, 20, 2);
}

void referenceDilate(benchmark::State& state) {
  cv::Mat out;
  const cv::Mat disc = cv::getStructuringElement(cv::MORPH_ELLIPSE, {3, 3});
  for (auto _ : state) cv::erode(*sixteenMegapixels().grey, out, disc);
}

const double kW = 4619;
const double kH = 3464;
const rim::picture::Quad kCorners{rim::Point{60, 40}, rim::Point{kW - 90, 70}, rim::Point{kW - 30, kH - 50},
                                  rim::Point{20, kH - 80}};

std::vector<rim::picture::PreparationStep> allSteps(double thickenPx) {
  return {{rim::picture::Straighten{kCorners, 4 / 3.0}, true},
          {rim::picture::EvenLight{}, true},
          {rim::picture::Denoise{}, true},
          {rim::picture::Thicken{thickenPx}, true}};
}

void together(benchmark::State& state) {
  for (auto _ : state) benchmark::DoNotOptimize(rim::picture::prepared(sixteenMegapixels(), allSteps(2)));
}

/// What a slider's every turn costs until the bench can show it: the step it changes, at screen resolution.
void sliderPreview(benchmark::State& state) {
  rim::picture::PreviewMaker maker;
  double px = 1;
  maker.preview(sixteenMegapixels(), allSteps(px));
  for (auto _ : state) {
    px = px < 20 ? px + 1 : 1;
    benchmark::DoNotOptimize(maker.preview(sixteenMegapixels(), allSteps(px)));
  }
}

/// The first preview of a picture: made smaller, and all steps.
void firstPreview(benchmark::State& state) {
  for (auto _ : state) benchmark::DoNotOptimize(rim::picture::PreviewMaker().preview(sixteenMegapixels(), allSteps(2)));
}

BENCHMARK(referenceWarp)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(step, straighten, rim::picture::Straighten{kCorners, 4 / 3.0})
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK(referenceDivide)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(step, evenLight, rim::picture::EvenLight{})->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(referenceBilateral)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(step, denoise, rim::picture::Denoise{})->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(referenceDilate)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(step, thicken, rim::picture::Thicken{2})->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(together)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(firstPreview)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(sliderPreview)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
