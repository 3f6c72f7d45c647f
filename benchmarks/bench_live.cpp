// How many times a second the outlines follow the threshold in the real window: the slider is
// moved, the borders are followed beside the window, the bench paints them. One round is one frame.

#include <benchmark/benchmark.h>

#include <QApplication>
#include <QSettings>
#include <QTemporaryDir>
#include <QThreadPool>

#include "app/bench/bench.h"
#include "app/look.h"
#include "app/main_window.h"
#include "work_pictures.h"

namespace {

/// Notices when the bench has been painted after new borders came.
class FrameWatch : public QObject {
 public:
  explicit FrameWatch(rim::app::MainWindow& window) {
    window.bench().installEventFilter(this);
    connect(&window.session(), &rim::app::Session::bordersFollowed, this, [this] { followed_ = true; });
  }
  void waitForFrame() {
    shown_ = followed_ = false;
    while (!shown_) QApplication::processEvents(QEventLoop::WaitForMoreEvents);
  }

 protected:
  bool eventFilter(QObject*, QEvent* event) override {
    if (event->type() == QEvent::Paint) shown_ = followed_;
    return false;
  }

 private:
  bool followed_ = false;
  bool shown_ = false;
};

void liveFrame(benchmark::State& state) {
  rim::app::MainWindow window;
  window.show();
  rim::app::Session& session = window.session();
  session.edit("open", {}, [](rim::Job& job) { job = rim::jobOn(rim::bench::fourMegapixels()); });
  window.bench().setPicture(session.job().picture);
  // What the picture is worth is measured once, after opening.
  QThreadPool::globalInstance()->waitForDone();
  FrameWatch watch(window);
  int level = 60;
  for (auto _ : state) {
    level = level < 190 ? level + 1 : 60;
    session.edit("threshold", "threshold", [level](rim::Job& job) { job.trace.threshold = level; });
    watch.waitForFrame();
  }
  state.counters["frames_per_second"] =
      benchmark::Counter(static_cast<double>(state.iterations()), benchmark::Counter::kIsRate);
}

BENCHMARK(liveFrame)->Unit(benchmark::kMillisecond)->MinTime(4)->UseRealTime();

}  // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  const QTemporaryDir settings;
  QSettings::setDefaultFormat(QSettings::IniFormat);
  QSettings::setPath(QSettings::IniFormat, QSettings::UserScope, settings.path());
  rim::app::applyLook(application, rim::app::Appearance::Light);
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
  return 0;
}
