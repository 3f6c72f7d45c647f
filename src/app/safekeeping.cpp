#include "app/safekeeping.h"

#include <QDir>
#include <QFileInfo>
#include <QUuid>
#include <algorithm>
#include <chrono>

#include "app/job_lock.h"
#include "app/session.h"

namespace rim::app {
namespace {

constexpr int kMomentMs = 1000;
constexpr char kLockName[] = "lock";

/// Whether the window that a folder belongs to is no more.
bool isLeft(const QString& folder) { return lockOf(folder + "/" + kLockName)->tryLock(0); }

}  // namespace

QString stateFolder() {
  const QString named = qEnvironmentVariable("XDG_STATE_HOME");
  const QString root = QDir::isAbsolutePath(named) ? named : QDir::homePath() + "/.local/state";
  return root + "/snugrim";
}

Safekeeping::Safekeeping(Session& session, const QString& root, QObject* parent)
    : QObject(parent),
      session_(session),
      root_(root),
      folder_(root + "/" + QUuid::createUuid().toString(QUuid::WithoutBraces)),
      keeper_(std::make_shared<io::WorkKeeper>(folder_.toStdString())) {
  timer_.setSingleShot(true);
  timer_.setInterval(kMomentMs);
  connect(&timer_, &QTimer::timeout, this, &Safekeeping::keep);
  connect(&session_, &Session::changed, this, &Safekeeping::follow);
}

Safekeeping::~Safekeeping() = default;

void Safekeeping::end() {
  timer_.stop();
  // What is still being written would come back after the folder is gone.
  writing_.leaveAndWait();
  lock_.reset();
  if (!folder_.isEmpty()) QDir(folder_).removeRecursively();
}

io::KeptNote Safekeeping::note() const {
  return {session_.job().original.name, std::filesystem::path(session_.jobFile().toStdString())};
}

void Safekeeping::follow() {
  if (!session_.modified()) {
    if (kept_) forget();
    timer_.stop();
    return;
  }
  // Not put off by every further change, so that no more than a moment is ever lost.
  if (!timer_.isActive()) timer_.start();
}

void Safekeeping::keep() {
  if (!session_.modified()) return;
  if (writing_.running()) {
    again_ = true;
    return;
  }
  if (!lock_) {
    QDir().mkpath(folder_);
    lock_ = lockOf(folder_ + "/" + kLockName);
    lock_->tryLock(0);
  }
  kept_ = true;
  const auto write = [keeper = keeper_, job = session_.job(), note = note()](const std::stop_token&) {
    keeper->keep(job, note);
    return true;
  };
  writing_.begin(this, write, [this](const Outcome<bool>& got) {
    if (!got.trouble.isEmpty() && !std::exchange(told_, true))
      emit failed(tr("What you do cannot be kept against a crash: %1 Save the job soon.").arg(got.trouble));
    if (got.trouble.isEmpty()) {
      told_ = false;
      emit kept();
    }
    if (!session_.modified()) return forget();
    if (std::exchange(again_, false)) timer_.start();
  });
}

void Safekeeping::keepNow() {
  timer_.stop();
  if (!session_.modified()) return;
  keep();
}

void Safekeeping::forget() {
  timer_.stop();
  again_ = false;
  if (writing_.running()) return;  // what is being written is forgotten when it is done
  kept_ = false;
  keeper_->forget();
}

QList<LeftWork> Safekeeping::left() const {
  QList<LeftWork> all;
  for (const QFileInfo& entry : QDir(root_).entryInfoList(QDir::Dirs | QDir::NoDotAndDotDot)) {
    const QString folder = entry.absoluteFilePath();
    if (folder == QFileInfo(folder_).absoluteFilePath() || !isLeft(folder)) continue;
    const auto note = io::keptNoteIn(folder.toStdString());
    if (!note) {
      // Its window ended with nothing to keep. A young one may just be beginning.
      constexpr int kOldSeconds = 24 * 3600;
      if (entry.lastModified().secsTo(QDateTime::currentDateTime()) > kOldSeconds) QDir(folder).removeRecursively();
      continue;
    }
    const auto at = std::chrono::file_clock::to_sys(io::keptAt(folder.toStdString()));
    all.append({folder, QString::fromStdString(note->name),
                QDateTime::fromMSecsSinceEpoch(
                    std::chrono::duration_cast<std::chrono::milliseconds>(at.time_since_epoch()).count())});
  }
  std::sort(all.begin(), all.end(), [](const LeftWork& a, const LeftWork& b) { return a.at > b.at; });
  return all;
}

void Safekeeping::letGo(const LeftWork& work) { QDir(work.folder).removeRecursively(); }

}  // namespace rim::app
