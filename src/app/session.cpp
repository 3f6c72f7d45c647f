#include "app/session.h"

#include <QFileInfo>
#include <QThreadPool>
#include <QtConcurrent>
#include <span>

#include "core/colour/reduce.h"
#include "core/error.h"
#include "core/io/job_file.h"
#include "core/io/read_dxf.h"
#include "core/io/read_svg.h"
#include "core/picture/load.h"

namespace rim::app {
namespace {

/// What a piece of work beside the window came to: a result, or the sentence that says why not.
template <typename T>
struct Outcome {
  T result{};
  QString trouble;
};

template <typename Work>
auto outcomeOf(Work work) -> Outcome<decltype(work())> {
  try {
    return {work(), {}};
  } catch (const std::bad_alloc&) {
    return {{}, Session::tr("there is not enough memory for it.")};
  } catch (const std::exception& error) {
    return {{}, QString::fromUtf8(error.what())};
  }
}

/// A job on a picture that was just opened, with ink and paper as the picture's edge suggests.
Job freshJob(Picture picture, bool inInks) {
  Job job = jobOn(std::move(picture));
  job.colours.on = inInks && wantsSeveralInks(job.picture);
  job.trace.lightIsInk = looksLightOnDark(job.picture);
  return job;
}

}  // namespace

Session::Session(QObject* parent) : QObject(parent) {
  connect(&tracer_, &Tracer::bordersFollowed, this,
          [this](quint64, const std::shared_ptr<const Borders>& borders, int threshold) {
            if (tracing_) emit bordersFollowed(borders, threshold);
          });
  connect(&tracer_, &Tracer::previewed, this, [this](quint64, const std::shared_ptr<const Preview>& preview) {
    if (tracing_ && job().picture.empty()) emit previewed(preview);
  });
  connect(&tracer_, &Tracer::prepared, this, [this](quint64 request, const std::shared_ptr<const Job>& job) {
    if (request != request_ || !tracing_) return;
    history_.complete(*job);
    emit pictureChanged();
    emit changed();
  });
  connect(&tracer_, &Tracer::inksFound, this, [this](quint64 request, const std::shared_ptr<const Job>& job) {
    if (request != request_ || !tracing_) return;
    history_.complete(*job);
    emit inksFound();
  });
  connect(&tracer_, &Tracer::progressed, this, [this](quint64 request, double done) {
    if (request != request_ || !tracing_) return;
    done_ = done;
    reportBusy();
  });
  connect(&tracer_, &Tracer::traced, this, [this](quint64 request, const std::shared_ptr<const Job>& job) {
    if (request != request_ || !tracing_) return;
    tracing_ = false;
    history_.complete(*job);
    shown_ = *job;
    inspectShown();
    reportBusy();
    emit changed();
  });
  connect(&tracer_, &Tracer::failed, this, [this](quint64 request, const QString& sentence) {
    if (request != request_ || !tracing_) return;
    tracing_ = false;
    if (!keepPicture()) fallBack();
    emit failed(sentence);
  });
}

Session::~Session() { QThreadPool::globalInstance()->waitForDone(); }

void Session::edit(const QString& name, const QString& mergeKey, const std::function<void(Job&)>& change) {
  Job next = job();
  change(next);
  const bool samePicture = next.original.grey == job().original.grey && next.preparation == job().preparation;
  const bool sameOutlines = samePicture && next.colours == job().colours && next.trace == job().trace;
  const bool sameMending = sameOutlines && next.size == job().size && next.mend == job().mend;
  if (sameMending && next.origin == job().origin) return;
  if (!samePicture) next.picture = {};
  if (!sameOutlines && !next.drawing) next.tracing.reset();
  if (!sameMending) next.mended.reset();
  history_.edit(std::move(next), name, mergeKey);
  follow();
}

void Session::undo() {
  const auto before = job().picture.grey;
  history_.undo();
  if (job().picture.grey != before && !job().picture.empty()) emit pictureChanged();
  follow();
}

void Session::redo() {
  const auto before = job().picture.grey;
  history_.redo();
  if (job().picture.grey != before && !job().picture.empty()) emit pictureChanged();
  follow();
}

void Session::open(const QString& file) {
  if (isDrawingFile(file)) {
    openDrawing(file, {});
    return;
  }
  load(
      QFileInfo(file).fileName(),
      [path = std::filesystem::path(file.toStdString()), inInks = opensInInks_] {
        return isJobFile(path) ? loadJob(path) : freshJob(loadPicture(path), inInks);
      },
      [this, file](Job job) { take(std::move(job), file); });
}

bool Session::isDrawingFile(const QString& file) {
  const QString ending = QFileInfo(file).suffix().toLower();
  return ending == "svg" || ending == "dxf";
}

void Session::openDrawing(const QString& file, std::optional<double> mmPerUnit) {
  loadDrawing(QFileInfo(file).fileName(), file,
              [path = std::filesystem::path(file.toStdString()), mmPerUnit] { return readDrawing(path, {mmPerUnit}); });
}

void Session::openDrawingBytes(const QByteArray& bytes, const QString& name) {
  const bool svg = name.endsWith(".svg", Qt::CaseInsensitive);
  loadDrawing(name, {}, [text = bytes.toStdString(), svg] { return svg ? readSvg(text) : readDxf(text); });
}

void Session::loadDrawing(const QString& name, const QString& file, const std::function<ReadResult()>& read) {
  const auto got = std::make_shared<ReadResult>();
  load(
      name,
      [got, name, read] {
        *got = read();
        if (got->drawing.paths.empty()) throw InputError("there are no outlines in this drawing.");
        return jobOn(got->drawing, name.toStdString());
      },
      [this, got, file](Job job) {
        take(std::move(job), file);
        QStringList notes;
        for (const std::string& note : got->notes) notes << QString::fromStdString(note);
        emit drawingRead(notes, got->unitKnown);
      });
}

void Session::openPage(int page) {
  const Picture original = job().original;
  if (page == original.page) return;
  load(
      QString::fromStdString(original.name), [original, page] { return jobOn(loadPage(original, page)); },
      [this](const Job& fresh) { takePage(fresh.original); });
}

void Session::openBytes(const QByteArray& bytes, const QString& name) {
  load(
      name,
      [bytes, called = name.toStdString(), inInks = opensInInks_] {
        return freshJob(
            loadPicture(std::as_bytes(std::span(bytes.constData(), static_cast<std::size_t>(bytes.size()))), called),
            inInks);
      },
      [this](Job job) { take(std::move(job), {}); });
}

void Session::load(const QString& name, const std::function<Job()>& load, const std::function<void(Job)>& take) {
  const quint64 number = ++lastOpening_;
  opening_ = number;
  done_ = -1;
  reportBusy();
  QtConcurrent::run([load] { return outcomeOf(load); }).then(this, [this, number, name, take](Outcome<Job> got) {
    if (number != opening_) return;
    opening_ = 0;
    reportBusy();
    if (got.trouble.isEmpty()) {
      take(std::move(got.result));
    } else {
      emit failed(tr("%1: %2").arg(name, got.trouble));
    }
  });
}

void Session::take(Job fresh, const QString& file) {
  const bool isDrawing = fresh.drawing && !isJobFile(file.toStdString());
  const bool isJob = !isDrawing && fresh.picture.empty();
  saved_ = fresh;
  jobFile_ = isJob ? file : QString();
  reference_.reset();
  history_.edit(std::move(fresh), isDrawing ? tr("Open drawing") : isJob ? tr("Open job") : tr("Open picture"));
  if (!isJob || job().drawing) emit pictureChanged();
  if (!file.isEmpty()) emit opened(file);
  follow();
}

void Session::takePage(const Picture& picture) {
  // What was set for one page is a good beginning for the next; only hand work belongs to one page alone.
  edit(tr("Page %1").arg(picture.page), {}, [&picture](Job& job) {
    job.original = picture;
    std::erase_if(job.preparation, [](const PreparationStep& step) { return isHandWork(step.what); });
  });
}

void Session::saveTo(const QString& file) {
  if (saving_ || !hasWork()) return;
  saving_ = true;
  done_ = -1;
  reportBusy();
  const Job job = this->job();
  const auto write = [job, path = std::filesystem::path(file.toStdString())] {
    saveJob(job, path);
    return true;
  };
  QtConcurrent::run([write] { return outcomeOf(write); }).then(this, [this, job, file](const Outcome<bool>& got) {
    saving_ = false;
    reportBusy();
    if (!got.trouble.isEmpty()) {
      emit failed(tr("%1: %2").arg(QFileInfo(file).fileName(), got.trouble));
      return;
    }
    saved_ = job;
    jobFile_ = file;
    emit saved(file);
    emit changed();
  });
}

void Session::keepReference() {
  reference_ = outlinesOf(shown_);
  emit changed();
}

void Session::dropReference() {
  reference_.reset();
  emit changed();
}

void Session::measureDeviation() {
  if (!upToDate()) return;
  const auto measure = [job = job()] {
    return std::make_shared<const Deviation>(deviationOf(job.picture, job.trace, *job.tracing));
  };
  QtConcurrent::run([measure] {
    return outcomeOf(measure);
  }).then(this, [this, tracing = job().tracing](const Outcome<std::shared_ptr<const Deviation>>& got) {
    if (!got.trouble.isEmpty()) {
      emit failed(got.trouble);
    } else if (job().tracing == tracing) {
      emit deviationMeasured(got.result);
    }
  });
}

void Session::exportTo(const QString& file, const ExportSettings& settings) {
  if (exporting_ || !upToDate()) return;
  exporting_ = true;
  done_ = -1;
  reportBusy();
  struct Written {
    Counts counts;
    Box box;
  };
  const auto write = [job = job(), path = std::filesystem::path(file.toStdString()), settings] {
    exportJob(job, path, settings);
    const Drawing drawing = drawingFor(job, fileKindOf(path), settings);
    return Written{countsOf(drawing.paths), boxOf(drawing.paths)};
  };
  QtConcurrent::run([write] { return outcomeOf(write); }).then(this, [this, file](const Outcome<Written>& got) {
    exporting_ = false;
    reportBusy();
    if (got.trouble.isEmpty()) {
      emit exported(file, got.result.counts, got.result.box);
    } else {
      emit failed(tr("%1: %2").arg(QFileInfo(file).fileName(), got.trouble));
    }
  });
}

void Session::cancel() {
  opening_ = 0;
  if (tracing_) {
    tracer_.cancel();
    tracing_ = false;
    fallBack();
  }
  reportBusy();
}

void Session::fallBack() {
  while (!upToDate() && history_.canUndo()) history_.undo();
  emit pictureChanged();
  follow();
}

bool Session::keepPicture() {
  const Job* before = history_.before();
  if (job().picture.empty() || job().colours.on || before == nullptr) return false;
  if (hasOutlines(*before) && before->picture.grey == job().picture.grey) return false;
  Job kept = job();
  Tracing none;
  none.threshold = thresholdFor(kept.picture, kept.trace);
  kept.tracing = std::make_shared<const Tracing>(std::move(none));
  history_.complete(std::move(kept));
  emit pictureChanged();
  follow();
  return true;
}

void Session::follow() {
  if (hasWork() && !upToDate()) {
    request_ = tracer_.request(job());
    tracing_ = true;
    done_ = -1;
  } else {
    if (tracing_) tracer_.cancel();
    tracing_ = false;
    shown_ = job();
    inspectShown();
  }
  reportBusy();
  emit changed();
}

void Session::inspectShown() {
  const auto outlines = outlinesOf(shown_);
  const double scale = mmPerPixel(shown_);
  if (outlines == inspectedOf_ && scale == inspectedAt_ && shown_.mend == inspectedWith_) return;
  findings_.reset();
  inspectedOf_ = outlines;
  inspectedAt_ = scale;
  inspectedWith_ = shown_.mend;
  if (!outlines) {
    inspecting_.cancel();
    return;
  }
  inspecting_.request([this, outlines, job = shown_](const std::stop_token& overtaken, const std::stop_token&) {
    const auto got =
        outcomeOf([&] { return std::make_shared<const std::vector<Finding>>(findingsOf(job, overtaken)); });
    if (overtaken.stop_requested()) return;
    QMetaObject::invokeMethod(this, [this, outlines, got] {
      if (outlines != inspectedOf_) return;
      findings_ = got.result;
      if (!got.trouble.isEmpty()) emit failed(got.trouble);
      emit inspected();
    });
  });
}

void Session::previewRepair(const Finding& finding, const std::string& repair, bool all) {
  previewing_.request([this, finding, repair, all, job = shown_](const std::stop_token& overtaken, const auto&) {
    const auto got = outcomeOf([&] {
      const Drawing before = drawingOf(job);
      const MendSettings& settings = job.mend.settings;
      const Drawing after = all ? rim::repairedAll(before, finding.kind, repair, settings, overtaken)
                                : rim::repaired(before, finding, repair, settings, overtaken);
      RepairPreview preview{newPaths(before, after), newPaths(after, before)};
      const double pxPerMm = 1 / mmPerPixel(job);
      for (std::vector<Path>* paths : {&preview.comes, &preview.goes}) {
        for (Path& path : *paths) path = scaled(path, pxPerMm);
      }
      return preview;
    });
    if (overtaken.stop_requested()) return;
    QMetaObject::invokeMethod(this, [this, got] { emit repairPreviewed(got.result); });
  });
}

void Session::reportBusy() {
  if (opening_ != 0) {
    emit busyChanged(tr("Opening the picture"), -1);
  } else if (tracing_) {
    emit busyChanged(tr("Tracing"), done_);
  } else if (exporting_) {
    emit busyChanged(tr("Writing the file"), -1);
  } else if (saving_) {
    emit busyChanged(tr("Saving the job"), -1);
  } else {
    emit busyChanged({}, 0);
  }
}

}  // namespace rim::app
