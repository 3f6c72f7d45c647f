#pragma once

#include <QMainWindow>
#include <functional>

#include "app/actions.h"
#include "app/bench/speck_layer.h"
#include "app/job_lock.h"
#include "app/preferences.h"
#include "app/safekeeping.h"
#include "app/session.h"

class QFileDialog;
class QMenu;
class QMimeData;
class QStackedWidget;
class QVBoxLayout;

namespace rim::app {

class Bench;
class BusyLine;
class ColoursPanel;
class ExportPanel;
class Gauge;
class JobCard;
class MendPanel;
class Notice;
class PicturePanel;
class RefinePanel;
class ShelfDialog;
class StartPage;
class TracePanel;
class ViewStrip;

/// The page of a drawing in its own mm: it holds all outlines, wherever they lie, with some room round them.
Box pageOf(const Drawing& drawing);

/// The window: job card, bench, panel and gauge round one Session.
class MainWindow : public QMainWindow {
  Q_OBJECT

 public:
  /// The steps of the job that work so far, in their order on the job card.
  enum Step { kPicture, kColours, kTrace, kMend, kRefine, kExport };

  explicit MainWindow(QWidget* parent = nullptr);
  ~MainWindow() override;

  Session& session() { return session_; }
  const Session& session() const { return session_; }
  Actions& actions() { return actions_; }
  Bench& bench() { return *bench_; }
  Preferences& preferences() { return preferences_; }

  void openFile(const QString& file);
  /// The picture of a demo that ships inside the application.
  void openDemo(const QString& name);
  void showStep(Step step);
  /// The sentence that the window shows at this moment; empty when there is none.
  QString sentence() const;

 public slots:
  void pasteFrom(const QMimeData* content);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void closeEvent(QCloseEvent* event) override;

 private:
  void build();
  void placeOnScreen();
  void showStartOrWork();
  void keepThumbnail();
  void buildMenus();
  void fillRecent(QMenu* menu);
  void connectActions();
  void connectView();
  void connectSession();
  void showJob();
  void showMeasures();
  void followDeviation();
  void showDeviation(std::shared_ptr<const Deviation> deviation);
  void lookAtWorst();
  void showAllowed();
  void connectColours();
  void followStep();
  void connectMending();
  void connectRefining();
  void showStock();
  /// Guides, grid, rules and reference copies on the bench.
  void showAids();
  void connectAids();
  void askForGrid();
  void typeGuide(std::size_t guide);
  void setGuides(const std::vector<Guide>& guides);
  void openReferences();
  void askForNudge();
  void followRefining();
  /// The outlines as the chosen step has them: before refining up to the Mend step, after it behind that.
  std::shared_ptr<const Drawing> outlinesHere(const Job& job) const;
  std::vector<Speck> specks() const;
  void showFindings();
  void lookAtFinding();
  void takeDrawing(const QStringList& notes, bool unitKnown);
  bool askForUnit();

  void askForPicture();
  /// Asks for a file and writes the outlines to it, or only some.
  void askForExport(const std::set<OutlineId>& only);
  QString exportFolder() const;
  QString baseName() const;
  bool mayReplaceEach(const QString& file, const std::set<OutlineId>& only);
  void copyDrawing();
  void checkSketch();
  void applyToOthers();
  void openShelf();
  void showShelf();
  void putOnShelf();
  void takeDropped(const QMimeData* content, Point place);
  void saveJob();
  void askForJobFile();
  /// The file that a dialogue names for saving, with one of the endings (the first, when it has none of them); empty
  /// when it is left. Asks before a file is replaced.
  QString chosenFile(QFileDialog& dialog, const QStringList& endings);
  bool mayReplace(const QString& file);
  QString jobName() const;
  /// Asks what to do with changes that are in no file. False: they stay, and `then` follows if they are being saved.
  bool mayLeave(const QString& title, const std::function<void()>& then);
  /// Opens something else, once nothing that was done is lost by it.
  void replaceWork(const std::function<void()>& open);
  void takePracticePhoto();
  void connectSafekeeping();
  void letGo(const LeftWork& work);
  void holdJobFile();
  bool mayWriteOver();
  void fillLeft(QMenu* menu);
  void setStrength(double strength);
  void setSize(SizeWish::Of of, double millimetres);
  void toggleUnit();
  void setAppearance(Appearance appearance);
  void showAbout();

  Preferences preferences_;
  Session session_;
  Safekeeping safekeeping_;
  JobLock jobLock_;
  Actions actions_;
  Notice* notice_ = nullptr;
  BusyLine* busy_ = nullptr;
  JobCard* card_ = nullptr;
  ViewStrip* strip_ = nullptr;
  Bench* bench_ = nullptr;
  QStackedWidget* desk_ = nullptr;  ///< the start page, or bench and panel
  ShelfDialog* shelf_ = nullptr;    ///< as soon as it was opened
  StartPage* start_ = nullptr;
  QVBoxLayout* aboveBench_ = nullptr;  ///< where the notice stands when something is open
  QStackedWidget* panels_ = nullptr;
  PicturePanel* picturePanel_ = nullptr;
  ColoursPanel* coloursPanel_ = nullptr;
  TracePanel* tracePanel_ = nullptr;
  MendPanel* mendPanel_ = nullptr;
  RefinePanel* refinePanel_ = nullptr;
  ExportPanel* exportPanel_ = nullptr;
  Gauge* gauge_ = nullptr;
  std::shared_ptr<const Deviation> deviation_;  ///< of the outlines deviationOf_
  std::shared_ptr<const Drawing> deviationOf_;  ///< that are measured, or being measured
  bool lookAtWorst_ = false;                    ///< as soon as it is known
  QString drawingFile_;                         ///< the drawing that was opened last
  QString thumbnailFor_;                        ///< the file whose thumbnail is kept as soon as its outlines are there
  std::function<void()> afterSaving_;           ///< what waits until the job is saved
  std::optional<Point> lookedAt_;               // the finding that was brought into sight last, mm
  std::optional<Counts> provisional_;           ///< of borders that are not fitted yet
};

}  // namespace rim::app
