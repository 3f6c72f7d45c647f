#include "app/job_lock.h"

#include <QCryptographicHash>
#include <QDir>
#include <QFileInfo>

namespace rim::app {

bool JobLock::hold(const QString& file) {
  const QString whole = file.isEmpty() ? QString() : QFileInfo(file).canonicalFilePath();
  if (whole == file_ && isOurs()) return true;
  lock_.reset();
  file_ = whole;
  if (whole.isEmpty() || !QDir().mkpath(folder_)) return true;
  const QByteArray name = QCryptographicHash::hash(whole.toUtf8(), QCryptographicHash::Sha1).toHex();
  lock_ = std::make_unique<QLockFile>(folder_ + "/" + QString::fromLatin1(name));
  lock_->setStaleLockTime(0);  // only the end of its process makes it stale
  return lock_->tryLock(0);
}

}  // namespace rim::app
