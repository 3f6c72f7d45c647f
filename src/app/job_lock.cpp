#include "app/job_lock.h"

#include <QCryptographicHash>
#include <QDir>
#include <QFileInfo>

namespace rim::app {

std::unique_ptr<QLockFile> lockOf(const QString& file) {
  auto lock = std::make_unique<QLockFile>(file);
  lock->setStaleLockTime(0);
  return lock;
}

bool JobLock::hold(const QString& file) {
  const QString whole = file.isEmpty() ? QString() : QFileInfo(file).canonicalFilePath();
  if (whole == file_ && isOurs()) return true;
  lock_.reset();
  file_ = whole;
  if (whole.isEmpty() || !QDir().mkpath(folder_)) return true;
  const QByteArray name = QCryptographicHash::hash(whole.toUtf8(), QCryptographicHash::Sha1).toHex();
  lock_ = lockOf(folder_ + "/" + QString::fromLatin1(name));
  return lock_->tryLock(0);
}

}  // namespace rim::app
