// What the hand waits for, frame by frame, in the real window over 5000 outlines of 20 000 nodes: panning, zooming, a
// node or outlines that are dragged, a box that is drawn round outlines, and undo. One round is one painted frame, from
// the event to the end of its painting; told are the median and what 99 of 100 frames stay below.

#include <benchmark/benchmark.h>

#include <QApplication>
#include <QElapsedTimer>
#include <QMouseEvent>
#include <QTemporaryDir>
#include <QWheelEvent>
#include <algorithm>

#include "app/bench/bench.h"
#include "app/main_window.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/node_tool.h"
#include "app/steps/refine/hand/select_tool.h"
#include "app/steps/refine/refine_panel.h"
#include "core/io/deliver.h"

namespace {

/// So many outlines of four arcs each, 100 in a row, mm.
rim::Drawing outlines(int count) {
  std::vector<rim::Path> paths;
  for (int i = 0; i < count; ++i) {
    const rim::Point at{4.0 * (i % 100), 4.0 * (i / 100)};
    rim::Path path{at, {}, true};
    for (const rim::Point corner : {rim::Point{2.8, 0.2}, rim::Point{3, 2.4}, rim::Point{0.4, 2.8}, rim::Point{0, 0}})
      path.segments.push_back(rim::Segment::arc(at + corner, 0.3));
    paths.push_back(std::move(path));
  }
  return rim::makeDrawing(std::move(paths));
}

/// The window with such a drawing in the Refine step, and the times of its frames.
class Hand : public QObject {
 public:
  Hand(benchmark::State& state, int count) : state_(state) {
    window_.resize(1280, 800);
    window_.show();
    const std::string file = folder_.filePath("many.dxf").toStdString();
    rim::io::deliver(outlines(count), file, {}, 0.001);
    window_.session().open(QString::fromStdString(file));
    waitFor([this] { return window_.session().hasWork() && window_.session().upToDate(); });
    window_.showStep(rim::app::Step::Refine);
    auto* panel = window_.findChild<rim::app::RefinePanel*>();
    waitFor([panel] { return panel->offers() != nullptr; });
    waitFor([this] { return window_.session().findings() != nullptr; });
    settle();
    bench().installEventFilter(this);
  }

  rim::app::MainWindow& window() { return window_; }
  rim::app::Bench& bench() { return window_.bench(); }
  rim::app::Handwork& handwork() { return window_.findChild<rim::app::RefinePanel*>()->handwork(); }
  QPointF onScreen(rim::Point mm) {
    const double k = 1 / rim::job::mmPerPixel(window_.session().job());
    return bench().viewport().toScreen(mm * k);
  }

  /// One frame: what is done, until the bench has been painted.
  void frame(const std::function<void()>& act) {
    painted_ = false;
    QElapsedTimer clock;
    clock.start();
    act();
    while (!painted_) QApplication::processEvents();
    times_.push_back(static_cast<double>(clock.nsecsElapsed()) / 1e6);
  }
  void mouse(QEvent::Type type, QPointF at, Qt::MouseButton button, Qt::MouseButtons buttons) {
    QMouseEvent event(type, at, bench().mapToGlobal(at), button, buttons, Qt::NoModifier);
    QApplication::sendEvent(&bench(), &event);
  }
  void press(QPointF at) { mouse(QEvent::MouseButtonPress, at, Qt::LeftButton, Qt::LeftButton); }
  void drag(QPointF at) { mouse(QEvent::MouseMove, at, Qt::NoButton, Qt::LeftButton); }
  void release(QPointF at) { mouse(QEvent::MouseButtonRelease, at, Qt::LeftButton, Qt::NoButton); }
  void settle() {
    waitFor([this] { return window_.session().upToDate() && !window_.session().busy(); });
    QApplication::processEvents();
    while (bench().isPainting()) QApplication::processEvents();
    QApplication::processEvents();
  }

  ~Hand() override {
    if (times_.empty()) return;
    std::sort(times_.begin(), times_.end());
    state_.counters["median_ms"] = times_[times_.size() / 2];
    state_.counters["p99_ms"] = times_[times_.size() * 99 / 100];
    state_.counters["most_ms"] = times_.back();
  }

 protected:
  bool eventFilter(QObject*, QEvent* event) override {
    // The filter comes before the painting; the frame is over when the events are.
    if (event->type() == QEvent::Paint) painted_ = true;
    return false;
  }

 private:
  static void waitFor(const std::function<bool()>& done) {
    while (!done()) QApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
  }

  benchmark::State& state_;
  QTemporaryDir folder_;
  rim::app::MainWindow window_;
  std::vector<double> times_;
  bool painted_ = false;
};

void panFrame(benchmark::State& state) {
  Hand hand(state, static_cast<int>(state.range(0)));
  const QPointF from(400, 300);
  hand.mouse(QEvent::MouseButtonPress, from, Qt::MiddleButton, Qt::MiddleButton);
  int k = 0;
  for (auto _ : state) {
    ++k;
    const double x = 200 - std::abs(k * 9 % 800 - 400);
    hand.frame([&] { hand.mouse(QEvent::MouseMove, from + QPointF(x, x / 3), Qt::NoButton, Qt::MiddleButton); });
  }
}

/// From a turn of the wheel until all of the new sight is painted.
void wholeSight(benchmark::State& state) {
  Hand hand(state, static_cast<int>(state.range(0)));
  int k = 0;
  for (auto _ : state) {
    const int notch = ++k % 2 == 0 ? 60 : -60;
    hand.frame([&] {
      QWheelEvent event({400, 300}, hand.bench().mapToGlobal(QPointF(400, 300)), {}, {0, notch}, Qt::NoButton,
                        Qt::NoModifier, Qt::NoScrollPhase, false);
      QApplication::sendEvent(&hand.bench(), &event);
    });
    hand.settle();
  }
}

void zoomFrame(benchmark::State& state) {
  Hand hand(state, static_cast<int>(state.range(0)));
  int k = 0;
  for (auto _ : state) {
    const int notch = ++k / 40 % 2 == 0 ? 30 : -30;
    hand.frame([&] {
      QWheelEvent event({400, 300}, hand.bench().mapToGlobal(QPointF(400, 300)), {}, {0, notch}, Qt::NoButton,
                        Qt::NoModifier, Qt::NoScrollPhase, false);
      QApplication::sendEvent(&hand.bench(), &event);
    });
  }
}

/// A node of the first outline, far in; it is never let go.
void dragNodeFrame(benchmark::State& state) {
  Hand hand(state, static_cast<int>(state.range(0)));
  hand.handwork().take(rim::app::Hand::Nodes);
  const auto& all = *rim::job::outlinesOf(hand.window().session().job());
  hand.handwork().noding().takeHold(all.outlines.front().id);
  hand.bench().lookAt(all.path(0).start, 30);
  hand.settle();
  const QPointF node = hand.bench().viewport().toScreen(all.path(0).start);
  hand.press(node);
  int k = 0;
  for (auto _ : state) {
    ++k;
    hand.frame([&] { hand.drag(node + QPointF(5 + k % 60, 3 + k % 40)); });
  }
  hand.release(node);
}

void boxFrame(benchmark::State& state) {
  Hand hand(state, static_cast<int>(state.range(0)));
  hand.handwork().take(rim::app::Hand::Outlines);
  const QPointF from(30, 30);
  hand.press(from);
  int k = 0;
  for (auto _ : state) {
    ++k;
    hand.frame([&] { hand.drag(from + QPointF(20 + k * 5 % 700, 20 + k * 4 % 500)); });
  }
  hand.release(from);
}

/// A move of one outline, undone and done again by turns.
void undoFrame(benchmark::State& state) {
  Hand hand(state, static_cast<int>(state.range(0)));
  hand.handwork().take(rim::app::Hand::Outlines);
  hand.handwork().selecting().choose({rim::job::outlinesOf(hand.window().session().job())->outlines.front().id});
  hand.handwork().selecting().nudge({-3, 0});
  hand.settle();
  bool undone = false;
  for (auto _ : state) {
    undone = !undone;
    hand.frame([&] { undone ? hand.window().session().undo() : hand.window().session().redo(); });
    state.PauseTiming();
    hand.settle();
    state.ResumeTiming();
  }
}

void asked(benchmark::internal::Benchmark* one) {
  one->Arg(50)->Arg(5000)->Unit(benchmark::kMillisecond)->Iterations(400)->UseRealTime();
}

BENCHMARK(panFrame)->Apply(asked);
BENCHMARK(wholeSight)->Arg(5000)->Unit(benchmark::kMillisecond)->Iterations(20)->UseRealTime();
BENCHMARK(zoomFrame)->Apply(asked);
BENCHMARK(dragNodeFrame)->Apply(asked);
BENCHMARK(boxFrame)->Apply(asked);
BENCHMARK(undoFrame)->Arg(50)->Arg(5000)->Unit(benchmark::kMillisecond)->Iterations(60)->UseRealTime();

}  // namespace
