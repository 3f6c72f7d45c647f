#pragma once

#include <QDateTime>
#include <QLockFile>
#include <QObject>
#include <QTimer>
#include <memory>

#include "app/errand.h"
#include "core/io/job/kept_work.h"

namespace rim::app {

class Session;

/// Work that was not saved when its window ended: it crashed, was killed, or the power went.
struct LeftWork {
  QString folder;
  QString name;
  QDateTime at;  ///< of its last change
};

/// Keeps what is in no file yet in the user's state folder, a moment after every change, each window in a folder of its
/// own; and tells what windows left there that are no more.
class Safekeeping : public QObject {
  Q_OBJECT

 public:
  /// `root` holds a folder for each window; see stateFolder().
  Safekeeping(Session& session, const QString& root, QObject* parent = nullptr);
  ~Safekeeping() override;

  /// What windows that are no more left, the newest first.
  QList<LeftWork> left() const;
  /// Deletes what was left.
  void letGo(const LeftWork& work);
  /// Nothing has to be kept any more: the work was saved, or let go of.
  void forget();
  /// Keeps what is to be kept at once instead of in a moment.
  void keepNow();
  /// The window ends well: nothing of this one is left.
  void end();

 signals:
  void kept();  ///< what was changed last is on the disk
  /// Work cannot be kept; told once until it can be again.
  void failed(const QString& sentence);

 private:
  void follow();
  void keep();
  io::KeptNote note() const;

  Session& session_;
  QString root_;
  QString folder_;
  std::unique_ptr<QLockFile> lock_;
  std::shared_ptr<io::WorkKeeper> keeper_;
  QTimer timer_;
  Errand writing_;
  bool again_ = false;  ///< something changed while it was being written
  bool kept_ = false;
  bool told_ = false;
};

/// Where the application keeps what is no setting and no document: XDG_STATE_HOME, or ~/.local/state.
QString stateFolder();

}  // namespace rim::app
