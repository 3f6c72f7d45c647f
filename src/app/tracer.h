#pragma once

#include <QObject>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <optional>
#include <stop_token>
#include <thread>
#include <vector>

#include "core/job.h"
#include "core/picture/preparation_cache.h"

namespace rim::app {

using Borders = std::vector<Border>;

/// Traces beside the window. A request is a Job; the newest one overtakes all before it: its
/// borders are shown as soon as they are followed, and fitted outlines only come for the last one.
/// All signals are sent from the worker thread and carry the number of the request.
class Tracer : public QObject {
  Q_OBJECT

 public:
  explicit Tracer(QObject* parent = nullptr);
  ~Tracer() override;
  Tracer(const Tracer&) = delete;
  Tracer& operator=(const Tracer&) = delete;

  /// Asks for the outlines of `job`; returns the number of this request, growing from 1.
  quint64 request(Job job);

  /// Stops what is being traced and forgets what is waiting.
  void cancel();

 signals:
  void bordersFollowed(quint64 request, std::shared_ptr<const rim::app::Borders> borders, int threshold);
  /// The preparation of the picture is worked out; the job has no outlines yet.
  void prepared(quint64 request, std::shared_ptr<const rim::Job> job);
  void progressed(quint64 request, double done);
  void traced(quint64 request, std::shared_ptr<const rim::Job> job);
  /// The picture cannot be prepared or traced like this.
  void failed(quint64 request, const QString& sentence);

 private:
  struct Request {
    quint64 number;
    Job job;
  };
  void work(const std::stop_token& closing);
  void trace(Request request, const std::stop_token& overtaken, const std::stop_token& closing);

  std::mutex mutex_;
  std::condition_variable_any wake_;
  std::optional<Request> waiting_;
  std::stop_source running_;
  quint64 last_ = 0;
  PreparationCache preparations_;  ///< used by the worker only
  std::jthread thread_;
};

}  // namespace rim::app
