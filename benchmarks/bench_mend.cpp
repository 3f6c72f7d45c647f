// What finding and mending faults costs. Soups are circles of loose lines in any order and direction; the order of
// growth is fitted (BigO). benchmarks/mend_reference.py does the same work with GEOS.

#include <benchmark/benchmark.h>

#include <algorithm>
#include <numbers>
#include <random>

#include "core/mend/find/inspect.h"
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
  for (auto _ : state) benchmark::DoNotOptimize(rim::mended(drawing, {}));
  state.SetComplexityN(state.range(0));
}

void inspectAfterAnEdit(benchmark::State& state) {
  const Drawing drawing = rim::mended(soup(10'000), {}).drawing;
  for (auto _ : state) benchmark::DoNotOptimize(rim::inspect(drawing, {}));
}

}  // namespace

BENCHMARK(mendSoup)->Arg(22'500)->Arg(45'000)->Arg(90'000)->Arg(180'000)->Unit(benchmark::kMillisecond)->Complexity();
BENCHMARK(inspectAfterAnEdit)->Unit(benchmark::kMillisecond);
