#include "app/session.h"

#include "core/error.h"
#include "core/job/faults.h"
#include "core/job/stages.h"

namespace rim::app {
Session::Session(QObject* parent, HistoryLimits limits) : QObject(parent), history_(limits) { connectTracer(); }

Session::~Session() = default;

void Session::connectTracer() {
  connect(&tracer_, &Tracer::bordersFollowed, this,
          [this](quint64 request, const std::shared_ptr<const Borders>& borders, int threshold) {
            if (ofThisPicture(request)) emit bordersFollowed(borders, threshold);
          });
  connect(&tracer_, &Tracer::previewed, this,
          [this](quint64 request, const std::shared_ptr<const picture::Preview>& preview) {
            if (tracing_ && request >= firstOfOriginal_ && job().picture.empty()) emit previewed(preview);
          });
  connect(&tracer_, &Tracer::prepared, this, [this](quint64 request, const std::shared_ptr<const job::Job>& job) {
    if (request != request_ || !tracing_) return;
    history_.complete(*job);
    emit pictureChanged();
    emit changed();
  });
  connect(&tracer_, &Tracer::inksFound, this, [this](quint64 request, const std::shared_ptr<const job::Job>& job) {
    if (request != request_ || !tracing_) return;
    history_.complete(*job);
    emit inksFound();
  });
  connect(&tracer_, &Tracer::progressed, this, [this](quint64 request, double done) {
    if (request != request_ || !tracing_) return;
    done_ = done;
    reportBusy();
  });
  connect(&tracer_, &Tracer::traced, this, [this](quint64 request, const std::shared_ptr<const job::Job>& job) {
    if (request != request_ || !tracing_) return;
    tracing_ = false;
    memo_ = job->memo;
    history_.complete(*job);
    shown_ = this->job();
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

void Session::edit(const QString& name, const QString& mergeKey, const std::function<void(job::Job&)>& change) {
  job::Job next = job();
  change(next);
  if (job::sameWork(next, job())) return;
  job::dropStale(next);
  history_.edit(std::move(next), name, mergeKey);
  follow();
}

void Session::undo() {
  const picture::PictureId before = job().picture.id;
  history_.undo();
  if (job().picture.id != before && !job().picture.empty()) emit pictureChanged();
  follow();
}

void Session::redo() {
  const picture::PictureId before = job().picture.id;
  history_.redo();
  if (job().picture.id != before && !job().picture.empty()) emit pictureChanged();
  follow();
}

std::shared_ptr<const Drawing> Session::reference() const {
  return job().references.empty() ? nullptr : job().references.back().outlines;
}

void Session::keepReference() {
  const auto outlines = job::outlinesOf(shown_);
  if (!outlines) return;
  if (job().references.size() >= job::kMostReferences) {
    emit failed(tr("A job keeps %1 reference copies at most. Drop one first.").arg(job::kMostReferences));
    return;
  }
  const QString name = history_.canUndo() ? history_.undoName() : tr("as opened");
  edit(tr("Keep a reference copy"), {}, [&](job::Job& job) {
    job.references.push_back({name.toStdString(), outlines, true});
  });
}

void Session::dropReference() {
  if (job().references.empty()) return;
  edit(tr("Drop a reference copy"), {}, [](job::Job& job) { job.references.pop_back(); });
}

void Session::measureDeviation() {
  if (!upToDate()) return;
  const auto measure = [job = job()](const std::stop_token& stop) {
    return std::make_shared<const trace::Deviation>(trace::deviationOf(job.picture, job.trace, *job.tracing, stop));
  };
  measuring_.begin(this, measure,
                   [this, tracing = job().tracing](const Outcome<std::shared_ptr<const trace::Deviation>>& got) {
                     if (!got.trouble.isEmpty()) {
                       emit failed(got.trouble);
                     } else if (job().tracing == tracing) {
                       emit deviationMeasured(got.result);
                     }
                   });
}

void Session::makeTraceable() {
  if (!hasPicture() || planning_.running()) return;
  const auto find = [original = job().original](const std::stop_token& stop) {
    return picture::recipesFor(original, stop);
  };
  const auto take = [this, original = job().original.id,
                     steps = job().preparation](const Outcome<std::vector<picture::PictureRecipe>>& got) {
    reportBusy();
    if (job().original.id != original) return;
    if (!got.trouble.isEmpty()) {
      emit failed(tr("This cannot be done: %1").arg(got.trouble));
      return;
    }
    recipesOf_ = original;
    recipes_ = got.result;
    if (job().preparation != steps) {
      emit said(
          tr("The picture was changed in the meantime, so that stays. Press Make it traceable again to replace it."));
    } else if (recipes_.empty() || recipes_.front().steps.empty()) {
      emit said(tr("The picture needs nothing more: trace it as it is."));
    } else {
      useRecipe(recipes_.front());
    }
    emit changed();
  };
  planning_.begin(this, find, take);
  done_ = -1;
  reportBusy();
}

const std::vector<picture::PictureRecipe>& Session::recipes() const {
  static const std::vector<picture::PictureRecipe> none;
  return job().original.id == recipesOf_ ? recipes_ : none;
}

void Session::useRecipe(const picture::PictureRecipe& recipe) {
  const bool light = job::looksLightOnDark(recipe.small);
  edit(tr("Make it traceable"), {}, [steps = recipe.steps, light](job::Job& job) {
    job.preparation = steps;
    job.trace.lightIsInk = light;
  });
}

void Session::cancel() {
  opening_.leave();
  planning_.leave();
  if (tracing_) {
    tracer_.cancel();
    tracing_ = false;
    fallBack();
  }
  reportBusy();
}

void Session::fallBack() {
  history_.goToOutlines();
  emit pictureChanged();
  follow();
}

bool Session::keepPicture() {
  const job::Job* before = history_.before();
  if (job().picture.empty() || job().colours.on || before == nullptr) return false;
  if (job::hasOutlines(*before) && before->picture.id == job().picture.id) return false;
  job::Job kept = job();
  Drawing none;
  none.frame = Frame::Pixels;
  none.pageWidth = kept.picture.width();
  none.pageHeight = kept.picture.height();
  kept.tracing = std::make_shared<const Drawing>(std::move(none));
  kept.threshold = trace::contour::thresholdFor(kept.picture, kept.trace);
  history_.complete(job::withKeys(std::move(kept), job::StageKind::Refine));
  emit pictureChanged();
  follow();
  return true;
}

void Session::follow() {
  if (hasWork() && !upToDate()) {
    const bool sameOriginal = requested_.original.id == job().original.id && !job().drawing;
    const bool samePicture = sameOriginal && requested_.preparation == job().preparation;
    job::Job asked = job();
    asked.memo = memo_;
    request_ = tracer_.request(std::move(asked));
    if (!samePicture) firstOfPicture_ = request_;
    if (!sameOriginal) firstOfOriginal_ = request_;
    requested_.original = job().original;
    requested_.preparation = job().preparation;
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
  const auto outlines = job::mendedOf(shown_);
  const Inspection wanted{outlines, shown_.refined, job::mmPerPixel(shown_), shown_.mend};
  if (wanted == inspection_) return;
  // While the hand refines, what was known of the rest stays to be seen.
  if (!wanted.sameMended(inspection_)) findings_.reset();
  if (!findings_ || !wanted.refined) byRefining_.reset();
  inspection_ = wanted;
  if (!outlines) {
    inspecting_.cancel();
    return;
  }
  job::Job job = shown_;
  job.memo = memo_;
  inspecting_.request([this, wanted, job = std::move(job)](const std::stop_token& overtaken, const std::stop_token&) {
    const auto got = outcomeOf([&] { return std::make_shared<const job::JobFaults>(job::faultsOf(job, overtaken)); });
    if (overtaken.stop_requested()) return;
    QMetaObject::invokeMethod(this, [this, wanted, got] {
      if (!(wanted == inspection_)) return;
      if (!got.trouble.isEmpty()) {
        emit failed(got.trouble);
      } else {
        memo_ = got.result->memo;
        if (!findings_) findings_ = {got.result, &got.result->ofMended};
        byRefining_ = {got.result, &got.result->byRefining};
      }
      emit inspected();
    });
  });
}

void Session::previewRepair(const mend::Finding& finding, const std::string& repair, bool all) {
  preview([finding, repair, all, settings = shown_.mend.settings](const Drawing& before, const std::stop_token& stop) {
    return all ? mend::repairedAll(before, finding.kind, repair, settings, stop)
               : mend::repaired(before, finding, repair, settings, stop);
  });
}

void Session::previewProposals() {
  preview([work = shown_.mend, k = job::mmPerPixel(shown_)](const Drawing& before, const std::stop_token& stop) {
    return mend::repairedAsProposed(before, work, k, stop);
  });
}

namespace {

/// The paths of outlines that `before` does not have like this, in upright pixels.
std::vector<Path> changedPaths(const Drawing& before, const Drawing& after, double pxPerMm) {
  std::vector<Path> paths;
  for (const Outline& outline : changedOutlines(before, after)) paths.push_back(scaled(outline.path(), pxPerMm));
  return paths;
}

}  // namespace

void Session::preview(const std::function<Drawing(const Drawing&, const std::stop_token&)>& repair) {
  previewing_.request([this, repair, job = shown_](const std::stop_token& overtaken, const auto&) {
    const auto got = outcomeOf([&] {
      const Drawing before = job::mendedDrawingOf(job);
      const Drawing after = repair(before, overtaken);
      const double pxPerMm = 1 / job::mmPerPixel(job);
      return RepairPreview{changedPaths(before, after, pxPerMm), changedPaths(after, before, pxPerMm), {}};
    });
    if (overtaken.stop_requested()) return;
    QMetaObject::invokeMethod(this, [this, got] { emit repairPreviewed(got.result); });
  });
}

void Session::reportBusy() {
  if (opening_.running()) {
    emit busyChanged(tr("Opening the file"), -1);
  } else if (planning_.running()) {
    emit busyChanged(tr("Looking at the picture"), -1);
  } else if (tracing_) {
    emit busyChanged(tr("Tracing"), done_);
  } else if (exporting_.running()) {
    emit busyChanged(tr("Writing the file"), -1);
  } else if (saving_.running()) {
    emit busyChanged(tr("Saving the job"), -1);
  } else {
    emit busyChanged({}, 0);
  }
}

void takeLightAsInk(Session& session, bool on) {
  session.edit(on ? Session::tr("Light ink on dark") : Session::tr("Dark ink on light"), {},
               [on](job::Job& job) { job.trace.lightIsInk = on; });
}

}  // namespace rim::app
