// What saving a job of 16 megapixels costs: the first time, when its picture is packed, and after a change of settings;
// and what a job of 20 megapixels with 100 000 nodes costs to save again, to open and to take a receipt of.

#include <benchmark/benchmark.h>
#include <zlib.h>

#include <filesystem>
#include <opencv2/core.hpp>

#include "core/geometry/paths.h"
#include "core/io/export.h"
#include "core/io/job/job_file.h"
#include "core/io/receipt.h"
#include "core/job/stages.h"
#include "core/picture/save.h"
#include "support/pictures.h"

namespace {

/// A scan in colours: stars of 14 nodes on paper with a little grain.
rim::picture::Picture scan(int cell, int columns, int rows) {
  const double middle = cell / 2.0;
  const cv::Mat star = rim::test::drawn(
      cell, cell, rim::test::polygon(rim::test::starCorners(middle, middle, 7, 0.44 * cell, 0.2 * cell, 0.2)));
  cv::Mat grey = cv::repeat(star, rows, columns);
  cv::Mat colours;
  cv::merge(std::vector<cv::Mat>{grey, grey, grey}, colours);
  cv::Mat grain(colours.size(), CV_8UC3);
  cv::theRNG().state = 7;
  cv::randu(grain, 0, 4);
  return rim::picture::makePicture(colours - grain, 300, "scan.png");
}

rim::picture::Picture sixteenMegapixels() { return scan(256, 16, 16); }

/// 20.2 megapixels with 7392 stars, 103 000 nodes, traced.
const rim::job::Job& largeJob() {
  static const rim::job::Job job = rim::job::workedOut(rim::job::jobOn(scan(52, 96, 77)));
  return job;
}

std::filesystem::path jobPlace() { return std::filesystem::temp_directory_path() / "snugrim-bench.snugrim"; }

void saveFirst(benchmark::State& state) {
  const rim::picture::Picture picture = sixteenMegapixels();
  for (auto _ : state) rim::io::saveJob(rim::job::jobOn(rim::picture::withPixels(picture, *picture.bgr)), jobPlace());
  std::filesystem::remove(jobPlace());
}

void saveAgain(benchmark::State& state) {
  rim::job::Job job = rim::job::jobOn(sixteenMegapixels());
  rim::io::saveJob(job, jobPlace());
  for (auto _ : state) {
    job.trace.tolerancePx += 0.001;
    rim::io::saveJob(job, jobPlace());
  }
  std::filesystem::remove(jobPlace());
}

/// Settings that change no outline, as a place for the stock.
void saveLargeAgain(benchmark::State& state) {
  rim::job::Job job = largeJob();
  rim::io::saveJob(job, jobPlace());
  for (auto _ : state) {
    job.stock = rim::job::Stock{400, 300 + (job.stock ? job.stock->heightMm : 0), {}};
    rim::io::saveJob(job, jobPlace());
  }
  state.counters["nodes"] = static_cast<double>(rim::countsOf(pathsOf(*rim::job::outlinesOf(job))).nodes);
  std::filesystem::remove(jobPlace());
}

/// From the file to the picture on the bench.
void openLarge(benchmark::State& state) {
  rim::io::saveJob(largeJob(), jobPlace());
  for (auto _ : state) benchmark::DoNotOptimize(rim::io::loadJob(jobPlace()));
  std::filesystem::remove(jobPlace());
}

/// From the file to its outlines, which are traced anew beside the window.
void openLargeTraced(benchmark::State& state) {
  rim::io::saveJob(largeJob(), jobPlace());
  for (auto _ : state) benchmark::DoNotOptimize(rim::job::workedOut(rim::io::loadJob(jobPlace())));
  std::filesystem::remove(jobPlace());
}

/// What zlib alone needs for the picture of that job, and for its writing as quickly as it can.
void inflateLarge(benchmark::State& state) {
  const cv::Mat& pixels = *largeJob().original.bgr;
  std::vector<Bytef> packed(compressBound(pixels.total() * pixels.elemSize()));
  uLongf size = packed.size();
  compress2(packed.data(), &size, pixels.data, pixels.total() * pixels.elemSize(), Z_BEST_SPEED);
  std::vector<Bytef> plain(pixels.total() * pixels.elemSize());
  for (auto _ : state) {
    uLongf length = plain.size();
    uncompress(plain.data(), &length, packed.data(), size);
  }
}

void receiptOfLarge(benchmark::State& state) {
  const std::filesystem::path file = std::filesystem::temp_directory_path() / "snugrim-bench.dxf";
  const rim::Drawing drawing = rim::io::exportJob(largeJob(), file, {});
  for (auto _ : state) benchmark::DoNotOptimize(rim::io::receiptOf(file, &drawing));
  std::filesystem::remove(file);
}

BENCHMARK(saveFirst)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(saveAgain)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(saveLargeAgain)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(openLarge)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(openLargeTraced)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(inflateLarge)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(receiptOfLarge)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
