#include "app/tracer.h"

#include <new>

#include "core/error.h"

namespace rim::app {

Tracer::Tracer(QObject* parent) : QObject(parent), thread_([this](const std::stop_token& closing) { work(closing); }) {}

Tracer::~Tracer() {
  cancel();
  thread_.request_stop();
  thread_.join();
}

quint64 Tracer::request(Job job) {
  const std::lock_guard lock(mutex_);
  waiting_ = Request{++last_, std::move(job)};
  running_.request_stop();
  wake_.notify_one();
  return last_;
}

void Tracer::cancel() {
  const std::lock_guard lock(mutex_);
  waiting_.reset();
  running_.request_stop();
}

void Tracer::work(const std::stop_token& closing) {
  while (true) {
    std::unique_lock lock(mutex_);
    if (!wake_.wait(lock, closing, [this] { return waiting_.has_value(); })) return;
    Request request = std::move(*waiting_);
    waiting_.reset();
    running_ = std::stop_source();
    const std::stop_token overtaken = running_.get_token();
    lock.unlock();
    trace(std::move(request), overtaken, closing);
  }
}

void Tracer::trace(Request request, const std::stop_token& overtaken, const std::stop_token& closing) {
  const quint64 number = request.number;
  Job& job = request.job;
  try {
    if (job.picture.empty()) {
      job.picture = preparations_.prepared(job.original, job.preparation, overtaken);
      emit prepared(number, std::make_shared<const Job>(job));
    }
    // Following is quick and not stopped by a newer request: in a long drag every turn shows something.
    const auto borders = std::make_shared<const Borders>(traceBorders(job.picture, job.trace, closing));
    emit bordersFollowed(number, borders, thresholdFor(job.picture, job.trace));
    WorkControl control{overtaken, [this, number](double done) { emit progressed(number, done); }};
    job.tracing = std::make_shared<const Tracing>(fitBorders(job.picture, *borders, job.trace, control));
    emit traced(number, std::make_shared<const Job>(std::move(job)));
  } catch (const Cancelled&) {
    return;
  } catch (const InputError& error) {
    emit failed(number, tr("This cannot be done: %1").arg(QString::fromUtf8(error.what())));
  } catch (const std::bad_alloc&) {
    emit failed(number, tr("There is not enough memory to trace this picture. Make it smaller first."));
  } catch (const std::exception& error) {
    emit failed(number, tr("Tracing failed: %1").arg(QString::fromUtf8(error.what())));
  }
}

}  // namespace rim::app
