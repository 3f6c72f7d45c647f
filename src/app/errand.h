#pragma once

#include <QCoreApplication>
#include <QObject>
#include <QString>
#include <QThreadPool>
#include <exception>
#include <new>
#include <stop_token>
#include <utility>

namespace rim::app {

/// What a piece of work beside the window came to: a result, or the sentence that says why not.
template <typename T>
struct Outcome {
  T result{};
  QString trouble;
};

/// Does the work; what it throws becomes the sentence.
template <typename Work>
auto outcomeOf(Work&& work) -> Outcome<decltype(work())> {
  try {
    return {work(), {}};
  } catch (const std::bad_alloc&) {
    return {{}, QCoreApplication::translate("rim::app::Errand", "there is not enough memory for it.")};
  } catch (const std::exception& error) {
    return {{}, QString::fromUtf8(error.what())};
  }
}

/// One kind of work beside the window, with threads of its own: whatever else waits, it begins at once. A newer errand,
/// leave() and the end of this ask the one before to stop, and what comes of that is dropped.
class Errand {
 public:
  Errand() { pool_.setMaxThreadCount(kMostAtOnce); }
  ~Errand() { leaveAndWait(); }
  Errand(const Errand&) = delete;
  Errand& operator=(const Errand&) = delete;

  /// Does `work(stop)` beside the window, which may throw; `take(outcome)` follows in `window`'s thread unless the
  /// errand was left. `window` must own this, so that it outlives the work.
  template <typename Work, typename Take>
  void begin(QObject* window, Work work, Take take) {
    leave();
    pool_.start([this, window, left = left_.get_token(), work = std::move(work), take = std::move(take)]() mutable {
      auto outcome = outcomeOf([&] { return work(left); });
      if (left.stop_requested()) return;
      QMetaObject::invokeMethod(window, [this, left, take = std::move(take), outcome = std::move(outcome)]() mutable {
        if (left.stop_requested()) return;
        running_ = false;
        take(std::move(outcome));
      });
    });
    running_ = true;
  }

  /// Whether an errand has begun whose result is waited for.
  bool running() const { return running_; }

  /// The same, and waits until it has ended: whatever it would write is written then.
  void leaveAndWait() {
    leave();
    pool_.waitForDone();
  }

  /// Asks what runs to stop; nothing comes of it.
  void leave() {
    left_.request_stop();
    left_ = std::stop_source();
    running_ = false;
  }

 private:
  /// What was asked to stop may need a moment; the next one does not wait for it.
  static constexpr int kMostAtOnce = 4;
  QThreadPool pool_;
  std::stop_source left_;
  bool running_ = false;
};

}  // namespace rim::app
