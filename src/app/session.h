#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <functional>

#include "app/history.h"
#include "app/tracer.h"
#include "core/io/export.h"

namespace rim::app {

/// The work that is open in a window: the history of its Job, and what is done beside the window
/// to it. The window shows what this says and asks it for changes; it keeps no Job of its own.
class Session : public QObject {
  Q_OBJECT

 public:
  explicit Session(QObject* parent = nullptr);
  ~Session() override;

  /// The job with the settings of this moment; its outlines may still be on their way.
  const Job& job() const { return history_.job(); }
  /// The last job whose outlines are known; what is measured and shown until job() has its own.
  const Job& shown() const { return shown_; }
  bool hasPicture() const { return !job().original.empty(); }
  /// Whether outlines for job() are there.
  bool upToDate() const { return job().tracing != nullptr; }
  bool busy() const { return opening_ || tracing_ || exporting_; }

  const History& history() const { return history_; }
  void undo();
  void redo();

  /// Changes the settings as one named step. Steps with one `mergeKey` become one until seal().
  void edit(const QString& name, const QString& mergeKey, const std::function<void(Job&)>& change);
  void seal() { history_.seal(); }

  /// Opens a picture beside the window; opened() or failed() follows. The newest call wins.
  void open(const QString& file);
  /// The same with the bytes of a picture file.
  void openBytes(const QByteArray& bytes, const QString& name);

  /// Writes the outlines as they are shown; exported() or failed() follows.
  void exportTo(const QString& file, const ExportSettings& settings);

  /// Stops opening and tracing. The job falls back to the last settings that have outlines.
  void cancel();

 signals:
  void changed();         ///< the job, its outlines or the history
  void pictureChanged();  ///< another picture is on the bench
  /// What the picture will look like, with fewer pixels; pictureChanged() follows.
  void previewed(std::shared_ptr<const rim::Preview> preview);
  void opened(const QString& file);
  void bordersFollowed(std::shared_ptr<const rim::app::Borders> borders, int threshold);
  void busyChanged(const QString& what, double done);  ///< done < 0: unknown; empty: nothing runs
  void exported(const QString& file, rim::Counts counts, rim::Box box);
  void failed(const QString& sentence);

 private:
  void load(const QString& name, const QString& file, const std::function<Picture()>& load);
  void take(Picture picture, const QString& file);
  void fallBack();
  void follow();
  void reportBusy();

  History history_;
  Job shown_;
  Tracer tracer_;
  quint64 request_ = 0;
  quint64 opening_ = 0;
  quint64 lastOpening_ = 0;
  bool tracing_ = false;
  bool exporting_ = false;
  double done_ = -1;
};

}  // namespace rim::app
