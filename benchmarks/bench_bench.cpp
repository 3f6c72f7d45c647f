// What the bench costs with 5000 outlines of 20 000 nodes on it: a frame in which only the pointer moved, and one in
// which all is painted anew.

#include "app/bench/bench.h"

#include <benchmark/benchmark.h>

#include <QApplication>
#include <QMouseEvent>
#include <QPixmap>

#include "core/refine/edit/snap.h"

namespace {

std::shared_ptr<const rim::Drawing> manyOutlines() {
  std::vector<rim::Path> paths;
  for (int i = 0; i < 5000; ++i) {
    const rim::Point at{20.0 * (i % 100), 20.0 * (i / 100)};
    rim::Path path{at, {}, true};
    for (const rim::Point corner : {rim::Point{14, 1}, rim::Point{15, 12}, rim::Point{2, 14}, rim::Point{0, 0}})
      path.segments.push_back(rim::Segment::arc(at + corner, 0.3));
    paths.push_back(std::move(path));
  }
  rim::Drawing drawing = rim::makeDrawing(std::move(paths));
  drawing.frame = rim::Frame::Pixels;
  return std::make_shared<const rim::Drawing>(std::move(drawing));
}

void setUp(rim::app::Bench& bench) {
  bench.resize(810, 690);
  rim::Box page;
  page.include(rim::Point{0, 0});
  page.include(rim::Point{2000, 1000});
  bench.setPage(page);
  bench.setOutlines(manyOutlines());
}

/// As the window does it, whether it is on a screen or not.
void paint(rim::app::Bench& bench) {
  static QPixmap screen(bench.size());
  bench.render(&screen);
}

void pointerFrame(benchmark::State& state) {
  rim::app::Bench bench;
  setUp(bench);
  paint(bench);
  int x = 100;
  for (auto _ : state) {
    x = x < 700 ? x + 1 : 100;
    QMouseEvent move(QEvent::MouseMove, QPointF(x, 300), bench.mapToGlobal(QPointF(x, 300)), Qt::NoButton, Qt::NoButton,
                     Qt::NoModifier);
    QApplication::sendEvent(&bench, &move);
    paint(bench);
  }
}

/// What a pointer that moves costs where places come to what lies nearby, and what making that ready costs once.
void snapAtPointer(benchmark::State& state) {
  const auto drawing = manyOutlines();
  const rim::refine::SnapIndex index(*drawing);
  const std::set<rim::refine::SnapTo> all{rim::refine::SnapTo::Node,   rim::refine::SnapTo::Crossing,
                                          rim::refine::SnapTo::Middle, rim::refine::SnapTo::Centre,
                                          rim::refine::SnapTo::Line,   rim::refine::SnapTo::Quadrant};
  double x = 0;
  for (auto _ : state) {
    x = x < 1900 ? x + 3.7 : 0;
    benchmark::DoNotOptimize(index.at({x, 505}, 6, all));
  }
}

void makeSnapIndex(benchmark::State& state) {
  const auto drawing = manyOutlines();
  for (auto _ : state) benchmark::DoNotOptimize(rim::refine::SnapIndex(*drawing));
}

void wholeFrame(benchmark::State& state) {
  rim::app::Bench bench;
  setUp(bench);
  bool thin = false;
  for (auto _ : state) {
    bench.setStrength((thin = !thin) ? 0.4 : 0.6);
    paint(bench);
  }
}

BENCHMARK(pointerFrame)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(snapAtPointer)->Unit(benchmark::kMicrosecond);
BENCHMARK(makeSnapIndex)->Unit(benchmark::kMillisecond);
BENCHMARK(wholeFrame)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
