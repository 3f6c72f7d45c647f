#include "core/for_all.h"

#include <atomic>
#include <thread>

#include "core/error.h"

namespace rim {
namespace {

/// Whether this thread is one of several that share work: what it does within that it does by itself, or threads would
/// start threads.
thread_local bool sharesWork = false;

/// Marks the thread for as long as this lives.
class Sharing {
 public:
  explicit Sharing(bool on) : before_(sharesWork) { sharesWork = sharesWork || on; }
  ~Sharing() { sharesWork = before_; }
  Sharing(const Sharing&) = delete;
  Sharing& operator=(const Sharing&) = delete;

 private:
  bool before_;
};

std::size_t threadsFor(std::size_t count) {
  return sharesWork ? 1 : std::min<std::size_t>(std::max(1U, std::thread::hardware_concurrency()), count);
}

}  // namespace

void forAll(std::size_t count, const WorkControl& control, const std::function<void(std::size_t)>& work) {
  std::atomic<std::size_t> next = 0;
  std::atomic<std::size_t> done = 0;
  std::atomic<bool> failed = false;
  std::exception_ptr failure;
  const std::size_t threads = threadsFor(count);
  const auto run = [&](bool reports) {
    const Sharing sharing(threads > 1);
    try {
      for (std::size_t i = next++; i < count && !failed; i = next++) {
        if (control.stop.stop_requested()) throw Cancelled();
        work(i);
        ++done;
        if (reports && control.progress) control.progress(static_cast<double>(done) / static_cast<double>(count));
      }
    } catch (...) {
      if (!failed.exchange(true)) failure = std::current_exception();
    }
  };
  {
    std::vector<std::jthread> helpers;
    for (std::size_t t = 1; t < threads; ++t) helpers.emplace_back([&run] { run(false); });
    run(true);
  }
  if (failure) std::rethrow_exception(failure);
}

}  // namespace rim
