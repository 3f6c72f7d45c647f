#pragma once

#include <QMainWindow>
#include <functional>
#include <vector>

#include "app/actions.h"
#include "app/job_lock.h"
#include "app/preferences.h"
#include "app/safekeeping.h"
#include "app/session.h"
#include "app/steps/rooms.h"

class QMenu;
class QMimeData;
class QStackedWidget;
class QVBoxLayout;

namespace rim::app {

class Bench;
class BusyLine;
class Gauge;
class JobCard;
class Notice;
class ShelfDialog;
class StartPage;
class ViewStrip;

/// The page of a drawing in its own mm: it holds all outlines, wherever they lie, with some room round them.
Box pageOf(const Drawing& drawing);

/// The window: a room for each step, put together with job card, bench and gauge round one Session. It knows files and
/// closing; what a step shows and does is its room's affair.
class MainWindow : public QMainWindow {
  Q_OBJECT

 public:
  explicit MainWindow(QWidget* parent = nullptr);
  ~MainWindow() override;

  Session& session() { return session_; }
  const Session& session() const { return session_; }
  ActionBook& book() { return book_; }
  Actions& actions() { return actions_; }
  Bench& bench() { return *bench_; }
  Preferences& preferences() { return preferences_; }
  /// The room of that kind.
  template <typename Room>
  Room& room() const {
    for (const auto& one : rooms_) {
      if (auto* found = dynamic_cast<Room*>(one.get())) return *found;
    }
    throw std::logic_error("There is no such room.");
  }

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
  QWidget* buildWork();
  void buildGauge(QVBoxLayout& rows);
  void buildRooms();
  void placeOnScreen();
  void showStartOrWork();
  void keepThumbnail();
  void buildMenus();
  void buildFileMenu();
  void buildLookMenu();
  void fillRecent(QMenu* menu);
  void connectActions();
  void connectView();
  void connectLook();
  void connectRooms();
  void connectSession();
  void connectFiles();
  bool escape();
  StepRoom& here() const;
  void enterStep();
  void showJob();
  void showMeasures();
  void showAllowed();
  void takeDrawing(const QStringList& notes, bool unitKnown);
  bool askForUnit();

  void askForPicture();
  void openShelf();
  void showShelf();
  void putOnShelf();
  void takeDropped(const QMimeData* content, Point place);
  void saveJob();
  void askForJobFile();
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
  void setSize(job::SizeWish::Of of, double millimetres);
  void toggleUnit();
  void setAppearance(Appearance appearance);
  void showAbout();

  Preferences preferences_;
  Session session_;
  Safekeeping safekeeping_;
  JobLock jobLock_;
  ActionBook book_;
  Actions actions_;
  Exchange exchange_;
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
  Gauge* gauge_ = nullptr;
  std::vector<std::unique_ptr<StepRoom>> rooms_;
  QString drawingFile_;                ///< the drawing that was opened last
  QString thumbnailFor_;               ///< the file whose thumbnail is kept as soon as its outlines are there
  std::function<void()> afterSaving_;  ///< what waits until the job is saved
  std::optional<Counts> provisional_;  ///< of borders that are not fitted yet
};

}  // namespace rim::app
