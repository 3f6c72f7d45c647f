#include "app/tracer.h"

#include <chrono>
#include <condition_variable>
#include <mutex>
#include <new>

#include "core/error.h"

namespace rim::app {

namespace {

/// Returns after a while, or throws Cancelled at once when a newer request comes: as long as a slider
/// moves, previews have the machine to themselves.
void waitForCalm(const std::stop_token& overtaken) {
  constexpr std::chrono::milliseconds kCalm(150);
  std::mutex mutex;
  std::condition_variable_any never;
  std::unique_lock lock(mutex);
  never.wait_for(lock, overtaken, kCalm, [] { return false; });
  if (overtaken.stop_requested()) throw Cancelled();
}

}  // namespace

quint64 Tracer::request(Job job) {
  const quint64 number = ++last_;
  if (job.picture.empty() && !job.tracing && PreviewMaker::isWorthWhile(job.original)) {
    // A preview is quick and not stopped by a newer request: in a long drag every turn shows something.
    previewing_.request(
        [this, number, job](const std::stop_token&, const std::stop_token& closing) { preview(number, job, closing); });
  }
  tracing_.request(
      [this, number, job = std::move(job)](const std::stop_token& overtaken, const std::stop_token& closing) {
        trace(number, job, overtaken, closing);
      });
  return number;
}

void Tracer::cancel() {
  previewing_.cancel();
  tracing_.cancel();
}

void Tracer::preview(quint64 number, const Job& job, const std::stop_token& closing) {
  try {
    emit previewed(number, std::make_shared<const Preview>(previews_.preview(job.original, job.preparation, closing)));
  } catch (const std::exception&) {
    // What is wrong is told when the real picture cannot be worked out either.
    return;
  }
}

void Tracer::trace(quint64 number, Job job, const std::stop_token& overtaken, const std::stop_token& closing) {
  try {
    if (job.tracing) {
      emit traced(number, std::make_shared<const Job>(withMending(std::move(job), overtaken)));
      return;
    }
    if (job.picture.empty()) {
      if (PreviewMaker::isWorthWhile(job.original)) waitForCalm(overtaken);
      job.picture = preparations_.prepared(job.original, job.preparation, overtaken);
      emit prepared(number, std::make_shared<const Job>(job));
    }
    const WorkControl control{overtaken, [this, number](double done) { emit progressed(number, done); }};
    if (job.colours.on) {
      job = withInkShares(withInks(std::move(job), overtaken));
      emit inksFound(number, std::make_shared<const Job>(job));
      job.tracing =
          std::make_shared<const Tracing>(traceInks(job.picture, *job.inks, job.colours.layout, job.trace, control));
      emit traced(number, std::make_shared<const Job>(withMending(std::move(job), overtaken)));
      return;
    }
    job.inks.reset();
    // Following is quick and not stopped by a newer request: in a long drag every turn shows something.
    const auto borders = std::make_shared<const Borders>(traceBorders(job.picture, job.trace, closing));
    emit bordersFollowed(number, borders, thresholdFor(job.picture, job.trace));
    job.tracing = std::make_shared<const Tracing>(fitBorders(job.picture, *borders, job.trace, control));
    emit traced(number, std::make_shared<const Job>(withMending(std::move(job), overtaken)));
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
