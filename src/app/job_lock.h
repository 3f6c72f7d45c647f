#pragma once

#include <QLockFile>
#include <QString>
#include <memory>

namespace rim::app {

/// A lock between windows, not yet taken: only the end of the process that holds it makes it stale.
std::unique_ptr<QLockFile> lockOf(const QString& file);

/// Says to other windows which job file is open in this one, by a lock in the state folder; a window that is no more
/// holds nothing.
class JobLock {
 public:
  explicit JobLock(QString folder) : folder_(std::move(folder)) {}

  /// Holds another file, and lets go of the one before; an empty name: none. False: another window has it open.
  bool hold(const QString& file);
  /// Whether no other window has the file open.
  bool isOurs() const { return file_.isEmpty() || (lock_ && lock_->isLocked()); }

 private:
  QString folder_;
  QString file_;
  std::unique_ptr<QLockFile> lock_;
};

}  // namespace rim::app
