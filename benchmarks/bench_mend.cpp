// What finding and mending faults costs. Soups are circles of loose lines in any order and direction; the order of
// growth is fitted (BigO). benchmarks/mend_reference.py does the same work with GEOS.

#include <benchmark/benchmark.h>

#include <algorithm>
#include <numbers>
#include <random>

#include "core/job/faults.h"
#include "core/mend/find/inspect.h"
#include "core/mend/find/inspected.h"
#include "core/mend/repair/mend.h"

namespace {

using rim::Drawing;
using rim::Point;
using rim::Segment;

constexpr int kLinesInACircle = 60;

Drawing soup(std::int64_t lines) {
  std::mt19937 random(1);
  std::uniform_real_distribution<double> radius(3, 5);
  Drawing drawing;
  const auto circles = lines / kLinesInACircle;
  const auto side = static_cast<std::int64_t>(std::ceil(std::sqrt(static_cast<double>(circles))));
  for (std::int64_t i = 0; i < circles; ++i) {
    constexpr double kApart = 12;
    const Point centre{static_cast<double>(i % side) * kApart, static_cast<double>(i / side) * kApart};
    const double r = radius(random);
    const auto corner = [&](int k) {
      const double angle = 2 * std::numbers::pi * (k % kLinesInACircle) / kLinesInACircle;
      return centre + Point{std::cos(angle), std::sin(angle)} * r;
    };
    for (int k = 0; k < kLinesInACircle; ++k) {
      const rim::Path line{corner(k), {Segment::line(corner(k + 1))}, false};
      add(drawing, random() % 2 == 0 ? line : reversed(line));
    }
  }
  std::shuffle(drawing.outlines.begin(), drawing.outlines.end(), random);
  return drawing;
}

void mendSoup(benchmark::State& state) {
  const Drawing drawing = soup(state.range(0));
  for (auto _ : state) benchmark::DoNotOptimize(rim::mend::mended(drawing, {}));
  state.SetComplexityN(state.range(0));
}

void inspectAfterAnEdit(benchmark::State& state) {
  const Drawing drawing = rim::mend::mended(soup(10'000), {}).drawing;
  for (auto _ : state) benchmark::DoNotOptimize(rim::mend::inspect(drawing, {}));
}

/// Outlines in rows, of lines, arcs and curves: closed ones, and lines whose ends nothing is near, so many in a
/// hundred.
Drawing rows(std::int64_t outlines, int openOf100) {
  std::mt19937 random(2);
  std::uniform_real_distribution<double> size(1, 3);
  std::vector<rim::Path> paths;
  constexpr std::int64_t kInARow = 100;
  for (std::int64_t i = 0; i < outlines; ++i) {
    constexpr double kApart = 8;
    const Point at{kApart * static_cast<double>(i % kInARow), kApart * static_cast<double>(i / kInARow)};
    const double s = size(random);
    rim::Path path{
        at,
        {Segment::line(at + Point{s, 0}), Segment::arc(at + Point{s, s}, 0.4), Segment::line(at + Point{0, s}),
         Segment::cubic(at + Point{-s, s * 0.7}, at + Point{s * 0.3, s * 0.3}, at)},
        static_cast<int>(random() % 100) >= openOf100};
    if (!path.closed) path.segments.pop_back();
    paths.push_back(std::move(path));
  }
  return rim::makeDrawing(std::move(paths));
}

/// One outline is moved to and fro over its neighbour, whose faults come and go.
void inspectOnlyWhatChanged(benchmark::State& state) {
  Drawing drawing = rows(state.range(0), static_cast<int>(state.range(1)));
  const std::size_t one = drawing.outlines.size() / 2;
  const rim::Path still = drawing.path(one);
  rim::mend::Inspected known = rim::mend::inspected(drawing, {});
  bool there = false;
  for (auto _ : state) {
    there = !there;
    drawing.setPath(one, there ? scaled(still, 1, {6, 0.3}) : still);
    known = rim::mend::inspected(drawing, {}, known);
    benchmark::DoNotOptimize(known);
  }
  state.counters["looked at"] = static_cast<double>(known.lookedAt());
  state.counters["findings"] = static_cast<double>(known.findings().size());
}

/// One more finding is decided about after nine others, and all is inspected for the list, as after a click in the
/// window.
void decideOnce(benchmark::State& state) {
  rim::job::Job job = rim::job::jobOn(rows(state.range(0), 40), "rows");
  constexpr int kBefore = 9;
  const auto decideAbout = [&job](std::size_t i) {
    const rim::job::JobFaults faults = rim::job::faultsOf(job);
    job.memo = faults.memo;
    job.mend.steps.push_back(
        rim::mend::stepFor(rim::job::mendedDrawingOf(job), faults.ofMended[i], rim::mend::MendStep::What::One, "drop"));
  };
  for (int i = 0; i < kBefore; ++i) {
    decideAbout(0);
    job = rim::job::withMending(std::move(job));
  }
  decideAbout(0);
  for (auto _ : state) {
    rim::job::Job next = rim::job::withMending(job);
    benchmark::DoNotOptimize(rim::job::faultsOf(next));
  }
}

void inspectAll(benchmark::State& state) {
  const Drawing drawing = rows(state.range(0), static_cast<int>(state.range(1)));
  for (auto _ : state) benchmark::DoNotOptimize(rim::mend::inspect(drawing, {}));
}

}  // namespace

BENCHMARK(mendSoup)->Arg(22'500)->Arg(45'000)->Arg(90'000)->Arg(180'000)->Unit(benchmark::kMillisecond)->Complexity();
BENCHMARK(inspectAfterAnEdit)->Unit(benchmark::kMillisecond);
BENCHMARK(inspectAll)->Args({5000, 2})->Args({5000, 100})->Unit(benchmark::kMillisecond);
BENCHMARK(inspectOnlyWhatChanged)->Args({50, 2})->Args({5000, 2})->Args({5000, 100})->Unit(benchmark::kMillisecond);
BENCHMARK(decideOnce)->Arg(50)->Arg(5000)->Unit(benchmark::kMillisecond);
