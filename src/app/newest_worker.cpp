#include "app/newest_worker.h"

#include <sys/resource.h>
#include <unistd.h>

namespace rim::app {

NewestWorker::NewestWorker() : thread_([this](const std::stop_token& closing) { loop(closing); }) {}

NewestWorker::~NewestWorker() {
  cancel();
  thread_.request_stop();
  thread_.join();
}

void NewestWorker::request(Work work) {
  const std::lock_guard lock(mutex_);
  waiting_ = std::move(work);
  running_.request_stop();
  wake_.notify_one();
}

void NewestWorker::cancel() {
  const std::lock_guard lock(mutex_);
  waiting_.reset();
  running_.request_stop();
}

void NewestWorker::loop(const std::stop_token& closing) {
  // The window comes first. On Linux this is the thread's own, and threads that it starts have it too.
  constexpr int kBehindTheWindow = 10;
  ::setpriority(PRIO_PROCESS, static_cast<id_t>(::gettid()), kBehindTheWindow);
  while (true) {
    std::unique_lock lock(mutex_);
    if (!wake_.wait(lock, closing, [this] { return waiting_.has_value(); })) return;
    const Work work = std::move(*waiting_);
    waiting_.reset();
    running_ = std::stop_source();
    const std::stop_token overtaken = running_.get_token();
    lock.unlock();
    work(overtaken, closing);
  }
}

}  // namespace rim::app
