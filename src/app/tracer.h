#pragma once

#include <QObject>
#include <memory>
#include <vector>

#include "app/newest_worker.h"
#include "core/job/job.h"
#include "core/picture/preparation_cache.h"
#include "core/picture/preview.h"

namespace rim::app {

using Borders = std::vector<trace::contour::Border>;

/// Traces beside the window. A request is a Job; the newest one overtakes all before it: its
/// borders are shown as soon as they are followed, and fitted outlines only come for the last one.
/// All signals are sent from the worker thread and carry the number of the request.
class Tracer : public QObject {
  Q_OBJECT

 public:
  using QObject::QObject;

  /// Asks for the outlines of `job`; returns the number of this request, growing from 1.
  quint64 request(job::Job job);

  /// Stops what is being traced and forgets what is waiting.
  void cancel();

 signals:
  /// A large picture after its preparation, with fewer pixels: comes long before prepared().
  void previewed(quint64 request, std::shared_ptr<const rim::picture::Preview> preview);
  void bordersFollowed(quint64 request, std::shared_ptr<const rim::app::Borders> borders, int threshold);
  /// The preparation of the picture is worked out; the job has no outlines yet.
  void prepared(quint64 request, std::shared_ptr<const rim::job::Job> job);
  /// The inks of the picture are found and decided about; the job has no outlines yet.
  void inksFound(quint64 request, std::shared_ptr<const rim::job::Job> job);
  void progressed(quint64 request, double done);
  void traced(quint64 request, std::shared_ptr<const rim::job::Job> job);
  /// The picture cannot be prepared or traced like this.
  void failed(quint64 request, const QString& sentence);

 private:
  void preview(quint64 number, const job::Job& job, const std::stop_token& closing);
  void trace(quint64 number, job::Job job, const std::stop_token& overtaken, const std::stop_token& closing);

  quint64 last_ = 0;
  picture::PreparationCache preparations_;  ///< used by the tracing thread only
  picture::PreviewMaker previews_;          ///< used by the previewing thread only
  NewestWorker tracing_;
  NewestWorker previewing_;
};

}  // namespace rim::app
