// Opening, saving and exporting beside the window.

#include <QFileInfo>
#include <span>

#include "app/session.h"
#include "core/colour/reduce.h"
#include "core/error.h"
#include "core/io/deliver.h"
#include "core/io/job/job_file.h"
#include "core/io/job/kept_work.h"
#include "core/picture/load.h"

namespace rim::app {
namespace {

/// A job on a picture that was just opened, with ink and paper as the picture's edge suggests.
job::Job freshJob(picture::Picture picture, bool inInks) {
  job::Job job = job::jobOn(std::move(picture));
  job.colours.on = inInks && colour::wantsSeveralInks(job.picture);
  job.trace.lightIsInk = job::looksLightOnDark(job.picture);
  return job;
}

}  // namespace

void Session::open(const QString& file) {
  if (isDrawingFile(file)) {
    openDrawing(file, {});
    return;
  }
  load(
      QFileInfo(file).fileName(),
      [path = std::filesystem::path(file.toStdString()), inInks = opensInInks_](const std::stop_token& stop) {
        return io::isJobFile(path) ? io::loadJob(path, stop) : freshJob(picture::loadPicture(path, 1, stop), inInks);
      },
      [this, file](job::Job job) { take(std::move(job), file); });
}

bool Session::isDrawingFile(const QString& file) {
  const QString ending = QFileInfo(file).suffix().toLower();
  return ending == "svg" || ending == "dxf";
}

void Session::openDrawing(const QString& file, std::optional<double> mmPerUnit) {
  loadDrawing(QFileInfo(file).fileName(), file,
              [path = std::filesystem::path(file.toStdString()), mmPerUnit](const std::stop_token& stop) {
                io::ReadOptions options;
                options.mmPerUnit = mmPerUnit;
                options.stop = stop;
                return io::readDrawing(path, options);
              });
}

void Session::openDrawingBytes(const QByteArray& bytes, const QString& name) {
  loadDrawing(name, {}, [text = bytes.toStdString(), called = name.toStdString()](const std::stop_token& stop) {
    io::ReadOptions options;
    options.stop = stop;
    return io::readDrawing(text, called, options);
  });
}

void Session::loadDrawing(const QString& name, const QString& file, const Read& read) {
  const auto got = std::make_shared<io::ReadResult>();
  load(
      name,
      [got, name, read](const std::stop_token& stop) {
        *got = read(stop);
        if (got->drawing.outlines.empty()) throw InputError("there are no outlines in this drawing.");
        return job::jobOn(got->drawing, name.toStdString());
      },
      [this, got, file](job::Job job) {
        take(std::move(job), file);
        QStringList notes;
        for (const std::string& note : got->notes) notes << QString::fromStdString(note);
        emit drawingRead(notes, got->unitKnown);
      });
}

void Session::openPage(int page) {
  const picture::Picture original = job().original;
  if (page == original.page) return;
  load(
      QString::fromStdString(original.name),
      [original, page](const std::stop_token& stop) { return job::jobOn(picture::loadPage(original, page, stop)); },
      [this, of = original.id](const job::Job& fresh) {
        // Taken back or opened anew in the meantime, another picture may lie there: the page is none of its own.
        if (job().original.id == of) takePage(fresh.original);
      });
}

void Session::openBytes(const QByteArray& bytes, const QString& name) {
  load(
      name,
      [bytes, called = name.toStdString(), inInks = opensInInks_](const std::stop_token& stop) {
        const auto all = std::as_bytes(std::span(bytes.constData(), static_cast<std::size_t>(bytes.size())));
        return freshJob(picture::loadPicture(all, called, 1, stop), inInks);
      },
      [this](job::Job job) { take(std::move(job), {}); });
}

void Session::load(const QString& name, const Load& load, const std::function<void(job::Job)>& take) {
  opening_.begin(this, load, [this, name, take](Outcome<job::Job> got) {
    reportBusy();
    if (got.trouble.isEmpty()) {
      take(std::move(got.result));
    } else {
      emit failed(tr("%1: %2").arg(name, got.trouble));
    }
  });
  done_ = -1;
  reportBusy();
}

void Session::take(job::Job fresh, const QString& file) {
  const bool isDrawing = fresh.drawing && !io::isJobFile(file.toStdString());
  const bool isJob = !isDrawing && fresh.picture.empty();
  neverSaved_ = false;
  begin(std::move(fresh), isJob ? file : QString(),
        isDrawing ? tr("Open drawing")
        : isJob   ? tr("Open job")
                  : tr("Open picture"));
  if (!file.isEmpty()) emit opened(file);
  follow();
}

/// Lets go of what was worked on; a picture that still has to be prepared comes on the bench when it is.
void Session::begin(job::Job fresh, const QString& jobFile, const QString& name) {
  saved_ = fresh;
  memo_.reset();
  jobFile_ = jobFile;
  history_.edit(std::move(fresh), name);
  if (job().drawing || !job().picture.empty()) emit pictureChanged();
}

void Session::bringBack(const QString& folder) {
  const std::filesystem::path path(folder.toStdString());
  const io::KeptNote note = io::keptNoteIn(path).value_or(io::KeptNote{});
  load(
      QString::fromStdString(note.name),
      [path](const std::stop_token& stop) {
        try {
          return io::loadKept(path, stop);
        } catch (const InputError& error) {
          throw InputError("the work cannot be brought back: " + std::string(error.what()));
        }
      },
      [this, folder, note](job::Job job) {
        neverSaved_ = true;
        begin(std::move(job), QString::fromStdString(note.jobFile.string()), tr("Bring back"));
        emit broughtBack(folder);
        follow();
      });
}

void Session::takePage(const picture::Picture& picture) {
  // What was set for one page is a good beginning for the next; only hand work belongs to one page alone.
  edit(tr("Page %1").arg(picture.page), {}, [&picture](job::Job& job) {
    job.original = picture;
    std::erase_if(job.preparation, [](const picture::PreparationStep& step) { return picture::isHandWork(step.what); });
  });
}

void Session::saveTo(const QString& file) {
  if (saving_.running() || !hasWork()) return;
  const job::Job job = this->job();
  const auto write = [job, path = std::filesystem::path(file.toStdString())](const std::stop_token&) {
    io::saveJob(job, path);
    return true;
  };
  saving_.begin(this, write, [this, job, file](const Outcome<bool>& got) {
    reportBusy();
    if (!got.trouble.isEmpty()) {
      emit failed(tr("%1: %2").arg(QFileInfo(file).fileName(), got.trouble));
      return;
    }
    saved_ = job;
    neverSaved_ = false;
    jobFile_ = file;
    emit saved(file);
    emit changed();
  });
  done_ = -1;
  reportBusy();
}

void Session::exportTo(const QString& file, const job::FileWish& wish, const std::set<OutlineId>& only) {
  if (exporting_.running() || !upToDate()) return;
  struct Written {
    QStringList files;
    Counts counts;
    Box box;
    QString receiptOf;
    std::shared_ptr<const io::Receipt>
        receipt;  ///< of the first that is not clean, else of the first; null: none is read
  };
  const auto write = [job = job(), path = std::filesystem::path(file.toStdString()), wish,
                      only](const std::stop_token& stop) {
    Written written;
    std::vector<Path> paths;
    for (const io::Delivered& one : io::deliverJob(job, path, io::settingsFor(wish), {wish.fileEach, only})) {
      written.files << QString::fromStdString(one.file.string());
      for (const Outline& outline : one.drawing.outlines) paths.push_back(outline.path());
      if (io::isPrint(one.file) || (written.receipt && !written.receipt->clean)) continue;
      // What was written is read back as a stranger would.
      auto receipt = std::make_shared<const io::Receipt>(io::receiptOf(one.file, &one.drawing, stop));
      if (written.receipt && receipt->clean) continue;
      written.receiptOf = written.files.last();
      written.receipt = std::move(receipt);
    }
    written.counts = countsOf(paths);
    written.box = boxOf(paths);
    return written;
  };
  exporting_.begin(this, write, [this, file](const Outcome<Written>& got) {
    reportBusy();
    if (!got.trouble.isEmpty()) {
      emit failed(tr("%1: %2").arg(QFileInfo(file).fileName(), got.trouble));
      return;
    }
    emit exported(got.result.files, got.result.counts, got.result.box);
    emit receiptTaken(got.result.receiptOf, got.result.receipt);
  });
  done_ = -1;
  reportBusy();
}

}  // namespace rim::app
