// How soon the real window shows what was asked for. liveFrame: the slider of the threshold is moved, the borders are
// followed beside the window, the bench paints them. mergeFrame: two inks are merged and parted again by turns, the
// inks are found beside the window, the bench paints them. One round is one frame.

#include <benchmark/benchmark.h>

#include <QApplication>
#include <QSettings>
#include <QTemporaryDir>
#include <QThreadPool>

#include "app/bench/bench.h"
#include "app/look.h"
#include "app/main_window.h"
#include "core/picture/load.h"
#include "work_pictures.h"

namespace {

/// Notices when the bench has been painted after new borders or inks came.
class FrameWatch : public QObject {
 public:
  explicit FrameWatch(rim::app::MainWindow& window) {
    window.bench().installEventFilter(this);
    connect(&window.session(), &rim::app::Session::bordersFollowed, this, [this] { followed_ = true; });
    connect(&window.session(), &rim::app::Session::inksFound, this, [this] { followed_ = true; });
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
  session.edit("open", {}, [](rim::job::Job& job) { job = rim::job::jobOn(rim::bench::fourMegapixels()); });
  window.bench().setPicture(session.job().picture);
  // What the picture is worth is measured once, after opening.
  QThreadPool::globalInstance()->waitForDone();
  FrameWatch watch(window);
  int level = 60;
  for (auto _ : state) {
    level = level < 190 ? level + 1 : 60;
    session.edit("threshold", "threshold", [level](rim::job::Job& job) { job.trace.threshold = level; });
    watch.waitForFrame();
  }
  state.counters["frames_per_second"] =
      benchmark::Counter(static_cast<double>(state.iterations()), benchmark::Counter::kIsRate);
}

/// The demo badge in six inks, side by side until the picture has `side` px.
rim::picture::Picture manyBadges(int side) {
  const rim::picture::Picture badge = rim::picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/badge.png"));
  const int times = side / badge.width() + 1;
  return rim::picture::withPixels(badge, cv::repeat(*badge.bgr, times, times)(cv::Rect(0, 0, side, side)).clone());
}

void mergeFrame(benchmark::State& state) {
  rim::app::MainWindow window;
  window.resize(1280, 800);
  window.show();
  rim::app::Session& session = window.session();
  FrameWatch watch(window);
  const rim::picture::Picture picture = manyBadges(static_cast<int>(state.range(0)));
  session.edit("open", {}, [&picture](rim::job::Job& job) {
    job = rim::job::jobOn(picture);
    job.colours.on = true;
  });
  window.bench().setPicture(session.job().picture);
  window.showStep(rim::app::Step::Colours);
  watch.waitForFrame();
  bool merged = false;
  for (auto _ : state) {
    merged = !merged;
    session.edit("merge", {}, [merged](rim::job::Job& job) {
      job.colours.steps.clear();
      if (merged) job.colours.steps.push_back(rim::colour::stepFor(rim::colour::MergeInks{3, 1}));
    });
    watch.waitForFrame();
  }
}

BENCHMARK(mergeFrame)->Arg(2048)->Arg(4096)->Unit(benchmark::kMillisecond)->MinTime(4)->UseRealTime();
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
