// What undo costs with a large picture: 16 megapixels are opened in the real window, the threshold is moved 50 times,
// each a step of its own with its outlines waited for, and all of it is taken back. One round is all of that.

#include <benchmark/benchmark.h>
#include <sys/resource.h>

#include <QApplication>
#include <QThreadPool>

#include "app/bench/bench.h"
#include "app/main_window.h"
#include "work_pictures.h"

namespace {

constexpr int kSteps = 50;

rim::picture::Picture sixteenMegapixels() {
  const rim::picture::Picture four = rim::bench::fourMegapixels();
  return rim::test::pictureOf(cv::repeat(*four.grey, 2, 2).clone());
}

/// The most memory that the process has taken so far.
double peakMegabytes() {
  rusage used{};
  getrusage(RUSAGE_SELF, &used);
  return static_cast<double>(used.ru_maxrss) / 1000;
}

void waitForOutlines(const rim::app::Session& session) {
  while (!session.upToDate() || session.busy()) QApplication::processEvents(QEventLoop::WaitForMoreEvents);
}

void slideAndUndo(benchmark::State& state) {
  const rim::picture::Picture picture = sixteenMegapixels();
  rim::app::MainWindow window;
  window.resize(1280, 800);
  window.show();
  rim::app::Session& session = window.session();
  for (auto _ : state) {
    session.edit("open", {}, [&picture](rim::job::Job& job) { job = rim::job::jobOn(picture); });
    window.bench().setPicture(picture);
    waitForOutlines(session);
    for (int k = 0; k < kSteps; ++k) {
      session.edit("threshold", {}, [k](rim::job::Job& job) { job.trace.threshold = 80 + k; });
      waitForOutlines(session);
    }
    for (int k = 0; k < kSteps; ++k) {
      session.undo();
      waitForOutlines(session);
    }
  }
  QThreadPool::globalInstance()->waitForDone();
  state.counters["picture_MB"] = static_cast<double>(picture.grey->total() + picture.bgr->total() * 3) / 1e6;
  state.counters["peak_MB"] = peakMegabytes();
}

BENCHMARK(slideAndUndo)->Unit(benchmark::kSecond)->Iterations(1)->UseRealTime();

}  // namespace
