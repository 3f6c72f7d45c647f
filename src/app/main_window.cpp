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
#include "app/look.h"
#include "app/start/start_page.h"
#include "app/start/thumbnails.h"
#include "app/steps/colours/colours_panel.h"
#include "app/steps/export/export_panel.h"
#include "app/steps/mend/mend_panel.h"
#include "app/steps/picture/picture_panel.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/refine_panel.h"
#include "app/steps/trace/trace_panel.h"
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
      actions_(this) {
  setWindowTitle(tr("Snug Rim"));
  build();
  buildMenus();
  connectActions();
  connectView();
  connectSession();
  connectSafekeeping();
  placeOnScreen();
  qApp->installEventFilter(this);
  showStep(kTrace);
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

MainWindow::~MainWindow() { qApp->removeEventFilter(this); }

void MainWindow::build() {
  auto* centre = new QWidget;
  auto* rows = new QVBoxLayout(centre);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(0);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(0);
  rows->addLayout(middle, 1);

  card_ = new JobCard;
  card_->addStep(tr("Picture"), tr("The picture that is traced (Alt+1)"));
  card_->addStep(tr("Colours"), tr("Two tones or several inks, and what is kept of them (Alt+2)"));
  card_->addStep(tr("Trace"), tr("From borders to outlines (Alt+3)"));
  card_->addStep(tr("Mend"), tr("Faults of the outlines, and their repairs (Alt+4)"));
  card_->addStep(tr("Refine"), tr("What is nearly exact made exact, and what else is to be done (Alt+5)"));
  card_->addStep(tr("Export"), tr("Outlines into a DXF or SVG file (Alt+6)"));
  for (int i = 0; i < card_->count(); ++i)
    card_->step(i)->setShortcut(QKeySequence(QStringLiteral("Alt+%1").arg(i + 1)));
  middle->addWidget(card_);

  auto* table = new QVBoxLayout;
  table->setSpacing(0);
  strip_ = new ViewStrip(actions_.compare->actions() << actions_.nodes,
                         {actions_.zoomOut, actions_.zoomIn, actions_.fit, actions_.trueSize});
  bench_ = new Bench;
  notice_ = new Notice;
  busy_ = new BusyLine;
  aboveBench_ = new QVBoxLayout(bench_);
  aboveBench_->addStretch(1);
  table->addWidget(strip_);
  table->addWidget(bench_, 1);
  auto* work = new QWidget;
  auto* workRow = new QHBoxLayout(work);
  workRow->setContentsMargins(0, 0, 0, 0);
  workRow->setSpacing(0);
  workRow->addLayout(table, 1);

  picturePanel_ = new PicturePanel(session_, actions_.open, actions_.paste);
  coloursPanel_ = new ColoursPanel(session_, actions_);
  tracePanel_ = new TracePanel(session_, actions_);
  mendPanel_ = new MendPanel(session_, actions_);
  refinePanel_ = new RefinePanel(session_, actions_);
  exportPanel_ = new ExportPanel(session_, actions_);
  panels_ = new QStackedWidget;
  panels_->setObjectName("panel");
  panels_->setFixedWidth(kPanelWidth);
  for (QWidget* panel : std::initializer_list<QWidget*>{picturePanel_, coloursPanel_, tracePanel_, mendPanel_,
                                                        refinePanel_, exportPanel_}) {
    panels_->addWidget(new PanelScroll(panel));
  }
  workRow->addWidget(panels_);
  start_ = new StartPage({actions_.open, actions_.paste, actions_.camera, actions_.shelf},
                         {{"badge.jpg", tr("Badge of the kite loft")},
                          {"window-card-photo.jpg", tr("Photo of a window card")},
                          {"weather-vane.png", tr("Weather vane")},
                          {"swallow.jpg", tr("Swallow in ink")},
                          {"spool-plate.dxf", tr("Broken spool plate")}});
  desk_ = new QStackedWidget;
  desk_->addWidget(start_);
  desk_->addWidget(work);
  middle->addWidget(desk_, 1);

  gauge_ = new Gauge;
  auto* foot = new QHBoxLayout;
  foot->setSpacing(0);
  foot->addWidget(gauge_, 1);
  rows->addLayout(foot);
  static_cast<QHBoxLayout*>(gauge_->layout())->insertWidget(gauge_->layout()->count() - 6, busy_);
  // As high as with work going on: the picture must not jump when that begins.
  busy_->show();
  gauge_->ensurePolished();
  gauge_->setMinimumHeight(gauge_->sizeHint().height());
  busy_->hide();
  setCentralWidget(centre);
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

void MainWindow::showStep(Step step) { card_->choose(step); }

QString MainWindow::sentence() const { return notice_->sentence(); }

void MainWindow::showJob() {
  showStartOrWork();
  keepThumbnail();
  setWindowTitle(session_.hasWork() ? tr("%1[*] – Snug Rim").arg(jobName()) : tr("Snug Rim"));
  setWindowModified(session_.modified());
  if (!session_.job().drawing) bench_->setPage({});
  if (session_.upToDate() || !session_.hasWork()) {
    provisional_.reset();
    bench_->setOutlines(outlinesHere(session_.job()));
  }
  showAids();
  followDeviation();
  picturePanel_->show();
  coloursPanel_->show();
  followStep();
  tracePanel_->show();
  mendPanel_->show(preferences_.unit);
  refinePanel_->show(preferences_.unit);
  exportPanel_->show(preferences_.unit);
  showMeasures();
  showAllowed();
}

void MainWindow::showMeasures() {
  const Job& shown = session_.shown();
  std::optional<Measures> measures;
  if (session_.hasWork() && shown.tracing) {
    const auto outlines = outlinesOf(shown);
    measures = Measures{countsOf(pathsOf(*outlines)), outlinesBoxOf(shown), false, openPenLines(*outlines), {}};
    if (const auto& findings = session_.findings()) {
      measures->doubles = static_cast<std::size_t>(std::count_if(
          findings->begin(), findings->end(), [](const Finding& f) { return f.kind == FindingKind::DoubleLine; }));
    }
  }
  if (provisional_) {
    if (!measures) measures = Measures{};
    measures->counts = *provisional_;
    measures->provisional = true;
  }
  gauge_->show(measures, preferences_.unit);
  const bool outlines = session_.upToDate() && !outlinesOf(session_.job())->outlines.empty();
  if (session_.job().drawing) {
    card_->step(kPicture)->setState(tr("a drawing instead"), true);
    card_->step(kColours)->setState(tr("as in the drawing"), true);
    card_->step(kTrace)->setState(tr("as in the drawing"), true);
  } else {
    card_->step(kPicture)->setState(PicturePanel::stateLine(session_), session_.hasPicture());
    card_->step(kColours)->setState(ColoursPanel::stateLine(session_),
                                    session_.hasPicture() && (!session_.job().colours.on || session_.job().inks));
    card_->step(kTrace)->setState(TracePanel::stateLine(session_), outlines);
  }
  card_->step(kMend)->setState(MendPanel::stateLine(session_),
                               outlines && session_.findings() && session_.findings()->empty());
  card_->step(kRefine)->setState(RefinePanel::stateLine(session_), outlines);
  card_->step(kExport)->setState(ExportPanel::stateLine(session_, preferences_.unit), outlines);
  bench_->setMeasure(
      shown.drawing || !shown.picture.empty() ? mmPerPixel(session_.upToDate() ? session_.job() : shown) : 1,
      preferences_.unit);
  showStock();
}

void MainWindow::showAllowed() {
  showShelf();
  const bool picture = session_.hasPicture();
  const QString needsPicture = tr("Open a picture first.");
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
  allow(actions_.severalInks, picture, needsPicture);
  const bool inks = picture && session_.job().colours.on;
  const QString twoTones = tr("This is for two tones; the picture has several inks now.");
  for (QAction* action : {actions_.automatic, actions_.lightIsInk, actions_.darker, actions_.lighter})
    allow(action, picture && !inks, inks ? twoTones : needsPicture);
  const bool mixed = picture && !inks && session_.job().trace.method == TraceMethod::Mixed;
  allow(actions_.switchParts, mixed, tr("This is for pictures of which lines and areas are made: choose Both."));
  if (!mixed) actions_.switchParts->setChecked(false);
  allow(actions_.sweep, inks && session_.job().inks, tr("Choose several inks first."));
  if (!inks) allow(actions_.mergeLikest, false, tr("Choose several inks first."));
  actions_.severalInks->setChecked(inks);
  allow(actions_.traceable, picture, needsPicture);
  actions_.automatic->setChecked(picture && !session_.job().trace.threshold);
  actions_.lightIsInk->setChecked(picture && session_.job().trace.lightIsInk);
  const bool outlines = session_.upToDate() && !outlinesOf(session_.job())->outlines.empty();
  const QString needsOutlines = !work ? needsWork : tr("There are no outlines yet.");
  const QString needsBorder = inks ? twoTones : picture ? needsOutlines : needsPicture;
  allow(actions_.deviation, picture && !inks && (outlines || actions_.deviation->isChecked()), needsBorder);
  if (inks) actions_.deviation->setChecked(false);
  allow(actions_.worst, outlines && picture && !inks, needsBorder);
  allow(actions_.reference, outlines, needsOutlines);
  allow(actions_.dropReference, session_.reference() != nullptr, tr("No reference copy was kept."));
  allow(actions_.batch, picture, work ? tr("A drawing has no settings for pictures.") : needsWork);
  for (QAction* action : {actions_.exportFile, actions_.copyDrawing, actions_.sketch, actions_.toShelf})
    allow(action, outlines,
          !work                 ? needsWork
          : session_.upToDate() ? tr("There are no outlines to write.")
                                : tr("Tracing is not done yet."));
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
  const bool typing = qobject_cast<QLineEdit*>(widget) != nullptr || widget->inherits("QAbstractSpinBox");
  if (key->key() == Qt::Key_O && key->modifiers() == Qt::NoModifier && !typing) {
    if (!key->isAutoRepeat()) bench_->setPeekOriginal(event->type() == QEvent::KeyPress);
    return true;
  }
  if (key->key() == Qt::Key_P && key->modifiers() == Qt::NoModifier && !typing) {
    if (!key->isAutoRepeat()) bench_->setPeek(event->type() == QEvent::KeyPress);
    return true;
  }
  if (key->key() == Qt::Key_Escape && event->type() == QEvent::KeyPress && !typing && picturePanel_->putToolsAway())
    return true;
  for (QAction* tool : {actions_.sweep, actions_.switchParts}) {
    if (key->key() != Qt::Key_Escape || event->type() != QEvent::KeyPress || typing || !tool->isChecked()) continue;
    tool->setChecked(false);
    return true;
  }
  if (key->key() == Qt::Key_Escape && event->type() == QEvent::KeyPress && !typing && !session_.busy() &&
      card_->chosenStep() == kRefine && refinePanel_->handwork().tool().leave())
    return true;
  if (key->key() == Qt::Key_Escape && event->type() == QEvent::KeyPress && !typing && session_.busy()) {
    session_.cancel();
    return true;
  }
  return false;
}

}  // namespace rim::app
