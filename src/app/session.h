#pragma once

#include <QObject>
#include <functional>

#include "app/errand.h"
#include "app/history.h"
#include "app/newest_worker.h"
#include "app/repair_preview.h"
#include "app/tracer.h"
#include "core/io/export.h"
#include "core/io/read_drawing.h"
#include "core/io/receipt.h"
#include "core/job/stages.h"
#include "core/picture/recipes.h"
#include "core/trace/deviation.h"

namespace rim::app {

/// The work that is open in a window: the history of its Job, and what is done beside the window
/// to it. The window shows what this says and asks it for changes; it keeps no Job of its own.
class Session : public QObject {
  Q_OBJECT

 public:
  explicit Session(QObject* parent = nullptr, HistoryLimits limits = {});
  ~Session() override;

  /// The job with the settings of this moment; its outlines may still be on their way.
  const job::Job& job() const { return history_.job(); }
  /// The last job whose outlines are known; what is measured and shown until job() has its own.
  const job::Job& shown() const { return shown_; }
  bool hasPicture() const { return !job().original.empty(); }
  /// A picture or a drawing that was read.
  bool hasWork() const { return rim::job::hasWork(job()); }
  /// Whether outlines for job() are there.
  bool upToDate() const { return job::hasOutlines(job()); }
  bool busy() const {
    return opening_.running() || planning_.running() || tracing_ || exporting_.running() || saving_.running();
  }

  const History& history() const { return history_; }
  void undo();
  void redo();

  /// Changes the settings as one named step. Steps with one `mergeKey` become one until seal().
  void edit(const QString& name, const QString& mergeKey, const std::function<void(job::Job&)>& change);
  void seal() { history_.seal(); }

  /// Whether coloured pictures are begun with several inks when they are opened; else all are in two tones.
  void setOpensInInks(bool on) { opensInInks_ = on; }

  /// The file that the job is kept in; empty when it was never saved, or another picture was opened since.
  QString jobFile() const {
    return job().original.id == saved_.original.id && job().drawing == saved_.drawing ? jobFile_ : QString();
  }
  /// Whether the job has been changed since it was opened or saved.
  bool modified() const { return hasWork() && (neverSaved_ || !job::sameWork(job(), saved_)); }
  /// Writes the job beside the window; saved() or failed() follows.
  void saveTo(const QString& file);

  /// The reference copy that was kept last; null: there is none.
  std::shared_ptr<const Drawing> reference() const;
  /// Keeps the outlines as they are now under the name of what was done last.
  void keepReference();
  /// The one that was kept last goes.
  void dropReference();
  /// Whether that is being measured.
  bool measuring() const { return measuring_.running(); }
  /// Measures beside the window how far the outlines lie from the border; deviationMeasured() follows.
  void measureDeviation();

  /// The faults of the outlines that are shown; null as long as they are not inspected.
  const std::shared_ptr<const std::vector<mend::Finding>>& findings() const { return findings_; }
  /// What refining brought that the mended outlines did not have; null as long as it is not inspected.
  const std::shared_ptr<const std::vector<mend::Finding>>& faultsByRefining() const { return byRefining_; }
  /// Works out beside the window what a repair of this finding, or of all like it, would make of the outlines that are
  /// shown; repairPreviewed() follows.
  void previewRepair(const mend::Finding& finding, const std::string& repair, bool all = false);

  /// The same for all repairs that are proposed.
  void previewProposals();

  /// Opens a picture or a job beside the window; opened() or failed() follows. The newest call wins.
  void open(const QString& file);
  static bool isDrawingFile(const QString& file);
  /// Opens an SVG or DXF; `mmPerUnit` as in ReadOptions. drawingRead() follows.
  void openDrawing(const QString& file, std::optional<double> mmPerUnit);
  /// The same with the bytes of an SVG or DXF; the name's ending says which.
  void openDrawingBytes(const QByteArray& bytes, const QString& name);
  /// Opens work that was kept when its window ended without saving it; broughtBack() or failed() follows.
  void bringBack(const QString& folder);
  /// Opens another page of the document that the picture came from, as a step that can be undone.
  void openPage(int page);
  /// The same with the bytes of a picture file.
  void openBytes(const QByteArray& bytes, const QString& name);

  /// Finds beside the window what would make the picture traceable, and does it as one step; said() or failed() may
  /// follow instead. Nothing is done when the steps were changed in the meantime: what is newer counts.
  void makeTraceable();
  /// The ways that makeTraceable() found for the picture that was opened, the best first; empty before.
  const std::vector<picture::PictureRecipe>& recipes() const;
  /// Takes one of them, as one step.
  void useRecipe(const picture::PictureRecipe& recipe);

  /// Writes the outlines as they are shown, or only some, as the file's ending says; exported() or failed() follows.
  void exportTo(const QString& file, const job::FileWish& wish, const std::set<OutlineId>& only = {});

  /// Stops opening and tracing. The job falls back to the last settings that have outlines.
  void cancel();

 signals:
  void changed();         ///< the job, its outlines or the history
  void pictureChanged();  ///< another picture is on the bench
  /// What the picture will look like, with fewer pixels; pictureChanged() follows.
  void previewed(std::shared_ptr<const rim::picture::Preview> preview);
  void opened(const QString& file);
  void broughtBack(const QString& folder);  ///< what was kept there is open now
  void inksFound();                         ///< job().inks is there; the outlines follow
  void bordersFollowed(std::shared_ptr<const rim::app::Borders> borders, int threshold);
  void busyChanged(const QString& what, double done);  ///< done < 0: unknown; empty: nothing runs
  void inspected();                                    ///< findings() and faultsByRefining() are there
  /// The outlines as they would be, in picture pixels.
  void repairPreviewed(const rim::app::RepairPreview& preview);
  /// A drawing was read; what was left out or assumed of it.
  void drawingRead(const QStringList& notes, bool unitKnown);
  void deviationMeasured(std::shared_ptr<const rim::trace::Deviation> deviation);
  void saved(const QString& file);
  void exported(const QStringList& files, rim::Counts counts, rim::Box box);
  /// What a fresh reading of the file that was written found; null where it is only looked at.
  void receiptTaken(const QString& file, std::shared_ptr<const rim::io::Receipt> receipt);
  void failed(const QString& sentence);
  void said(const QString& sentence);

 private:
  using Load = std::function<rim::job::Job(const std::stop_token&)>;
  using Read = std::function<rim::io::ReadResult(const std::stop_token&)>;
  /// What is inspected.
  struct Inspection {
    std::shared_ptr<const Drawing> mended;
    std::shared_ptr<const Drawing> refined;
    double mmPerPixel = 0;
    mend::MendWork mend;

    bool sameMended(const Inspection& other) const {
      return mended == other.mended && mmPerPixel == other.mmPerPixel && mend == other.mend;
    }
    friend bool operator==(const Inspection& a, const Inspection& b) {
      return a.sameMended(b) && a.refined == b.refined;
    }
  };
  void connectTracer();
  /// Whether what came of a request beside the window belongs to the picture that is on the bench now.
  bool ofThisPicture(quint64 request) const { return tracing_ && request >= firstOfPicture_; }
  void load(const QString& name, const Load& load, const std::function<void(rim::job::Job)>& take);
  void loadDrawing(const QString& name, const QString& file, const Read& read);
  void take(job::Job fresh, const QString& file);
  void begin(job::Job fresh, const QString& jobFile, const QString& name);
  void takePage(const picture::Picture& picture);
  /// Takes back what could not be finished.
  void fallBack();

  /// Leaves a picture that was just opened or changed and cannot be traced there without outlines, so that what helps
  /// can be done to it. False, and nothing done, when only a setting was changed or the picture could not be prepared.
  bool keepPicture();
  void follow();
  void reportBusy();
  void inspectShown();
  void preview(const std::function<rim::Drawing(const rim::Drawing&, const std::stop_token&)>& repair);

  History history_;
  job::Job shown_;
  Tracer tracer_;
  quint64 request_ = 0;
  quint64 firstOfPicture_ = 0;   ///< the first request with the picture of the last one
  quint64 firstOfOriginal_ = 0;  ///< the same whatever was done to it
  job::Job requested_;           ///< what the last request was about
  bool opensInInks_ = true;
  bool tracing_ = false;
  job::Job saved_;
  QString jobFile_;
  bool neverSaved_ = false;  ///< the work was brought back as it was kept; no file holds it
  double done_ = -1;
  std::shared_ptr<const std::vector<mend::Finding>> findings_;
  std::shared_ptr<const std::vector<mend::Finding>> byRefining_;
  Inspection inspection_;
  std::shared_ptr<const job::JobMemo> memo_;  ///< of the job that was worked out or inspected last
  NewestWorker inspecting_;
  NewestWorker previewing_;
  Errand opening_;
  Errand planning_;
  picture::PictureId recipesOf_ = picture::PictureId::None;  ///< the picture that they were found for
  std::vector<picture::PictureRecipe> recipes_;
  Errand saving_;
  Errand exporting_;
  Errand measuring_;
};

/// Takes the light part of the picture as the ink, or the dark one, as a named step.
void takeLightAsInk(Session& session, bool on);

}  // namespace rim::app
