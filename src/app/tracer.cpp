#include "app/tracer.h"

#include <chrono>
#include <condition_variable>
#include <mutex>
#include <new>

#include "core/error.h"
#include "core/job/stages.h"

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

quint64 Tracer::request(job::Job job) {
  const quint64 number = ++last_;
  if (job.picture.empty() && !job.drawing && picture::PreviewMaker::isWorthWhile(job.original)) {
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

void Tracer::preview(quint64 number, const job::Job& job, const std::stop_token& closing) {
  try {
    emit previewed(number,
                   std::make_shared<const picture::Preview>(previews_.preview(job.original, job.preparation, closing)));
  } catch (const std::exception&) {
    // What is wrong is told when the real picture cannot be worked out either.
    return;
  }
}

void Tracer::trace(quint64 number, job::Job job, const std::stop_token& overtaken, const std::stop_token& closing) {
  job::StageWatch watch;
  watch.control = {overtaken, [this, number](double done) { emit progressed(number, done); }};
  watch.closing = closing;
  watch.prepare = [this](const job::Recipe& recipe, const std::stop_token& stop) {
    if (picture::PreviewMaker::isWorthWhile(recipe.original)) waitForCalm(stop);
    return preparations_.prepared(recipe.original, recipe.preparation, stop);
  };
  // In a long drag every turn shows something.
  watch.borders = [this, number](std::vector<trace::contour::Border> borders, int threshold) {
    emit bordersFollowed(number, std::make_shared<const Borders>(std::move(borders)), threshold);
  };
  watch.done = [this, number](job::StageKind stage, const job::Job& so) {
    if (stage == job::StageKind::Prepare) emit prepared(number, std::make_shared<const job::Job>(so));
    if (stage == job::StageKind::Inks && so.inks) emit inksFound(number, std::make_shared<const job::Job>(so));
  };
  try {
    emit traced(number, std::make_shared<const job::Job>(job::workedOut(std::move(job), watch)));
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
