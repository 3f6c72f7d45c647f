#pragma once

#include <condition_variable>
#include <functional>
#include <mutex>
#include <optional>
#include <stop_token>
#include <thread>

namespace rim::app {

/// A thread beside the window that works on the newest request: one that waits is forgotten when
/// another comes, and the running one is asked to stop.
class NewestWorker {
 public:
  /// `overtaken` is set when a newer request comes or cancel() is called, `closing` when the worker ends.
  using Work = std::function<void(const std::stop_token& overtaken, const std::stop_token& closing)>;

  NewestWorker();
  ~NewestWorker();
  NewestWorker(const NewestWorker&) = delete;
  NewestWorker& operator=(const NewestWorker&) = delete;

  void request(Work work);

  /// Stops what runs and forgets what is waiting.
  void cancel();

 private:
  void loop(const std::stop_token& closing);

  std::mutex mutex_;
  std::condition_variable_any wake_;
  std::optional<Work> waiting_;
  std::stop_source running_;
  std::jthread thread_;
};

}  // namespace rim::app
