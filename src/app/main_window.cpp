#include "app/main_window.h"

#include <QApplication>
#include <QFile>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QScreen>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <utility>

#include "app/bench/bench.h"
#include "app/file_questions.h"
#include "app/start/start_page.h"
#include "app/start/thumbnails.h"
#include "app/widgets/busy_line.h"
#include "app/widgets/gauge.h"
#include "app/widgets/job_card.h"
#include "app/widgets/notice.h"
#include "app/widgets/panel_scroll.h"
#include "app/widgets/view_strip.h"

namespace rim::app {
namespace {

constexpr int kPanelWidth = 304;

}  // namespace

MainWindow::MainWindow(QWidget* parent)
    : QMainWindow(parent),
      preferences_(loadPreferences()),
      safekeeping_(session_, stateFolder() + "/kept"),
      jobLock_(stateFolder() + "/open"),
      book_(this),
      actions_(book_, this) {
  setWindowTitle(tr("Snug Rim"));
  build();
  buildMenus();
  connectActions();
  connectView();
  connectRooms();
  connectSession();
  connectFiles();
  connectSafekeeping();
  placeOnScreen();
  qApp->installEventFilter(this);
  showStep(Step::Trace);
  start_->showRecent(preferences_.recentFiles);
  showJob();
}

/// As it was left; at first as large as the screen allows with a title bar and a taskbar, and not larger than needed.
void MainWindow::placeOnScreen() {
  constexpr QSize kWanted(1280, 800);
  constexpr QSize kFrame(8, 48);
  resize(kWanted.boundedTo(screen()->availableSize() - kFrame));
  if (!preferences_.windowGeometry.isEmpty()) restoreGeometry(preferences_.windowGeometry);
}

/// An empty bench is of no use: the start page stands in its place.
void MainWindow::showStartOrWork() {
  const bool work = session_.hasWork();
  QWidget* const wanted = work ? desk_->widget(1) : start_;
  if (desk_->currentWidget() == wanted && notice_->parentWidget() != nullptr) return;
  if (work) {
    aboveBench_->insertWidget(0, notice_, 0, Qt::AlignTop);
  } else {
    start_->column()->insertWidget(0, notice_);
    start_->showRecent(preferences_.recentFiles);
    start_->showLeft(safekeeping_.left());
  }
  desk_->setCurrentWidget(wanted);
  wanted->setFocus();
  if (work) bench_->setFocus();
}

void MainWindow::keepThumbnail() {
  if (thumbnailFor_.isEmpty() || !session_.upToDate()) return;
  saveThumbnail(std::exchange(thumbnailFor_, QString()), thumbnailOf(session_.job()));
}

/// Panels go before the rooms whose actions they hold.
MainWindow::~MainWindow() {
  qApp->removeEventFilter(this);
  delete takeCentralWidget();
}

void MainWindow::build() {
  auto* centre = new QWidget;
  auto* rows = new QVBoxLayout(centre);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(0);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(0);
  rows->addLayout(middle, 1);
  card_ = new JobCard;
  middle->addWidget(card_);
  start_ = new StartPage({actions_.open, actions_.paste, actions_.camera, actions_.shelf},
                         {{"badge.jpg", tr("Badge of the kite loft")},
                          {"window-card-photo.jpg", tr("Photo of a window card")},
                          {"weather-vane.png", tr("Weather vane")},
                          {"swallow.jpg", tr("Swallow in ink")},
                          {"spool-plate.dxf", tr("Broken spool plate")}});
  desk_ = new QStackedWidget;
  desk_->addWidget(start_);
  desk_->addWidget(buildWork());
  middle->addWidget(desk_, 1);
  buildGauge(*rows);
  setCentralWidget(centre);
}

QWidget* MainWindow::buildWork() {
  strip_ = new ViewStrip(actions_.compare->actions() << actions_.nodes,
                         {actions_.zoomOut, actions_.zoomIn, actions_.fit, actions_.trueSize});
  bench_ = new Bench;
  notice_ = new Notice;
  busy_ = new BusyLine;
  aboveBench_ = new QVBoxLayout(bench_);
  aboveBench_->addStretch(1);
  auto* table = new QVBoxLayout;
  table->setSpacing(0);
  table->addWidget(strip_);
  table->addWidget(bench_, 1);
  auto* work = new QWidget;
  auto* row = new QHBoxLayout(work);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  row->addLayout(table, 1);
  buildRooms();
  row->addWidget(panels_);
  return work;
}

void MainWindow::buildRooms() {
  rooms_ = makeRooms({session_, *bench_, book_, actions_, preferences_, exchange_, *this});
  panels_ = new QStackedWidget;
  panels_->setObjectName("panel");
  panels_->setFixedWidth(kPanelWidth);
  for (const auto& room : rooms_) {
    const QString keys = QStringLiteral("Alt+%1").arg(card_->count() + 1);
    card_->addStep(room->name(), tr("%1 (%2)").arg(room->tip(), keys));
    card_->step(card_->count() - 1)->setShortcut(QKeySequence(keys));
    panels_->addWidget(new PanelScroll(room->panel()));
  }
}

void MainWindow::buildGauge(QVBoxLayout& rows) {
  gauge_ = new Gauge;
  auto* foot = new QHBoxLayout;
  foot->setSpacing(0);
  foot->addWidget(gauge_, 1);
  rows.addLayout(foot);
  static_cast<QHBoxLayout*>(gauge_->layout())->insertWidget(gauge_->layout()->count() - 6, busy_);
  // As high as with work going on: the picture must not jump when that begins.
  busy_->show();
  gauge_->ensurePolished();
  gauge_->setMinimumHeight(gauge_->sizeHint().height());
  busy_->hide();
}

void MainWindow::openDemo(const QString& name) {
  replaceWork([this, name] {
    QFile file(":/demo/" + name);
    if (!file.open(QIODevice::ReadOnly)) return;
    if (Session::isDrawingFile(name)) {
      session_.openDrawingBytes(file.readAll(), name);
    } else {
      session_.openBytes(file.readAll(), name);
    }
  });
}

void MainWindow::openFile(const QString& file) {
  replaceWork([this, file] {
    if (Session::isDrawingFile(file)) drawingFile_ = file;
    session_.open(file);
  });
}

void MainWindow::showStep(Step step) { card_->choose(static_cast<int>(step)); }

StepRoom& MainWindow::here() const { return *rooms_[static_cast<std::size_t>(card_->chosenStep())]; }

/// Every room hears which step is worked in now.
void MainWindow::enterStep() {
  const Step step = here().step();
  for (const auto& room : rooms_) room->workIn(step);
  if (session_.upToDate()) bench_->setOutlines(here().outlines(session_.job()));
  panels_->setCurrentIndex(card_->chosenStep());
  book_.enter(step);
}

QString MainWindow::sentence() const { return notice_->sentence(); }

void MainWindow::showJob() {
  showStartOrWork();
  keepThumbnail();
  setWindowTitle(session_.hasWork() ? tr("%1[*] – Snug Rim").arg(jobName()) : tr("Snug Rim"));
  setWindowModified(session_.modified());
  if (!session_.job().drawing) bench_->setPage({});
  if (session_.upToDate() || !session_.hasWork()) {
    provisional_.reset();
    bench_->setOutlines(here().outlines(session_.job()));
  }
  for (const auto& room : rooms_) room->show();
  showMeasures();
  showAllowed();
}

void MainWindow::showMeasures() {
  const job::Job& shown = session_.shown();
  std::optional<Measures> measures;
  if (session_.hasWork() && shown.tracing) {
    const auto outlines = job::outlinesOf(shown);
    measures = Measures{countsOf(pathsOf(*outlines)), job::outlinesBoxOf(shown), false, openPenLines(*outlines), {}};
    if (const auto& findings = session_.findings()) {
      measures->doubles =
          static_cast<std::size_t>(std::count_if(findings->begin(), findings->end(), [](const mend::Finding& f) {
            return f.kind == mend::FindingKind::DoubleLine;
          }));
    }
  }
  if (provisional_) {
    if (!measures) measures = Measures{};
    measures->counts = *provisional_;
    measures->provisional = true;
  }
  gauge_->show(measures, preferences_.unit);
  for (std::size_t i = 0; i < rooms_.size(); ++i) {
    const CardLine line = rooms_[i]->cardLine();
    card_->step(static_cast<int>(i))->setState(line.text, line.done);
  }
  bench_->setMeasure(
      shown.drawing || !shown.picture.empty() ? job::mmPerPixel(session_.upToDate() ? session_.job() : shown) : 1,
      preferences_.unit);
}

void MainWindow::showAllowed() {
  showShelf();
  const History& history = session_.history();
  actions_.undo->setText(history.canUndo() ? tr("&Undo: %1").arg(history.undoName()) : tr("&Undo"));
  actions_.redo->setText(history.canRedo() ? tr("&Redo: %1").arg(history.redoName()) : tr("&Redo"));
  allow(actions_.undo, history.canUndo(), tr("Nothing has been changed yet."));
  allow(actions_.redo, history.canRedo(), tr("Nothing has been taken back."));
  const bool work = session_.hasWork();
  const QString needsWork = tr("Open a picture or a drawing first.");
  for (QAction* action :
       {actions_.fit, actions_.trueSize, actions_.zoomIn, actions_.zoomOut, actions_.save, actions_.saveAs})
    allow(action, work, needsWork);
  const QString whyNot = whyNotWritten(session_);
  allow(actions_.toShelf, whyNot.isEmpty(), whyNot);
}

/// Peeking is held, not pressed, so it is no action. It works wherever the keys go, except into text.
bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::ApplicationDeactivate) {
    bench_->setPeek(false);
    bench_->setPeekOriginal(false);
  }
  if (event->type() != QEvent::KeyPress && event->type() != QEvent::KeyRelease) return false;
  auto* widget = qobject_cast<QWidget*>(watched);
  const auto* key = static_cast<QKeyEvent*>(event);
  if (widget == nullptr || widget->window() != this) return false;
  if (qobject_cast<QLineEdit*>(widget) != nullptr || widget->inherits("QAbstractSpinBox")) return false;
  const bool press = event->type() == QEvent::KeyPress;
  const bool plain = key->modifiers() == Qt::NoModifier;
  if (key->key() == Qt::Key_O && plain) {
    if (!key->isAutoRepeat()) bench_->setPeekOriginal(press);
    return true;
  }
  if (key->key() == Qt::Key_P && plain) {
    if (!key->isAutoRepeat()) bench_->setPeek(press);
    return true;
  }
  return key->key() == Qt::Key_Escape && press && escape();
}

/// Puts away the tool in hand; else stops what is being worked out. False: there was neither.
bool MainWindow::escape() {
  for (const auto& room : rooms_) {
    if (room->putToolAway()) return true;
  }
  if (!session_.busy()) return false;
  session_.cancel();
  return true;
}

}  // namespace rim::app
