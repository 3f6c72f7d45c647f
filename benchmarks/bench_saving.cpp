// What saving a job of 16 megapixels costs: the first time, when its picture is packed, and after a change of settings.

#include <benchmark/benchmark.h>

#include <filesystem>
#include <opencv2/core.hpp>

#include "core/io/job/job_file.h"
#include "core/picture/save.h"
#include "support/pictures.h"

namespace {

/// A scan in colours: stars on paper with a little grain.
rim::Picture scan() {
  constexpr int kCell = 256;
  constexpr int kSide = 4096;
  const cv::Mat star =
      rim::test::drawn(kCell, kCell, rim::test::polygon(rim::test::starCorners(128, 128, 7, 112, 50, 0.2)));
  cv::Mat grey = cv::repeat(star, kSide / kCell, kSide / kCell);
  cv::Mat colours;
  cv::merge(std::vector<cv::Mat>{grey, grey, grey}, colours);
  cv::Mat grain(colours.size(), CV_8UC3);
  cv::theRNG().state = 7;
  cv::randu(grain, 0, 4);
  return rim::makePicture(colours - grain, 300, "scan.png");
}

std::filesystem::path jobPlace() { return std::filesystem::temp_directory_path() / "snugrim-bench.snugrim"; }

void saveFirst(benchmark::State& state) {
  const rim::Picture picture = scan();
  for (auto _ : state) saveJob(rim::jobOn(rim::withPixels(picture, *picture.bgr)), jobPlace());
  std::filesystem::remove(jobPlace());
}

void saveAgain(benchmark::State& state) {
  rim::Job job = rim::jobOn(scan());
  saveJob(job, jobPlace());
  for (auto _ : state) {
    job.trace.tolerancePx += 0.001;
    saveJob(job, jobPlace());
  }
  std::filesystem::remove(jobPlace());
}

BENCHMARK(saveFirst)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(saveAgain)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
