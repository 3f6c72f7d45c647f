#include "core/trace/for_all.h"

#include <atomic>
#include <thread>

#include "core/error.h"

namespace rim {

void forAll(std::size_t count, const WorkControl& control, const std::function<void(std::size_t)>& work) {
  std::atomic<std::size_t> next = 0;
  std::atomic<std::size_t> done = 0;
  std::atomic<bool> failed = false;
  std::exception_ptr failure;
  const auto run = [&](bool reports) {
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
    const std::size_t threads = std::min<std::size_t>(std::max(1U, std::thread::hardware_concurrency()), count);
    for (std::size_t t = 1; t < threads; ++t) helpers.emplace_back([&run] { run(false); });
    run(true);
  }
  if (failure) std::rethrow_exception(failure);
}

}  // namespace rim
