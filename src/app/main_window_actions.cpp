// Menus, and what the window's actions do.

#include <QApplication>
#include <QBuffer>
#include <QClipboard>
#include <QFileDialog>
#include <QFileInfo>
#include <QImage>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QStackedWidget>
#include <QStandardPaths>
#include <QStyle>
#include <utility>

#include "app/bench/bench.h"
#include "app/keys_page.h"
#include "app/look.h"
#include "app/main_window.h"
#include "app/start/start_page.h"
#include "app/steps/export/export_panel.h"
#include "app/steps/export/presets.h"
#include "app/steps/picture/picture_panel.h"
#include "app/steps/picture/practice_camera_dialog.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/snapping.h"
#include "app/steps/refine/refine_panel.h"
#include "app/steps/trace/trace_panel.h"
#include "app/widgets/busy_line.h"
#include "app/widgets/counted.h"
#include "app/widgets/gauge.h"
#include "app/widgets/job_card.h"
#include "app/widgets/length_text.h"
#include "app/widgets/notice.h"
#include "app/widgets/view_strip.h"

namespace rim::app {

void MainWindow::buildMenus() {
  QMenu* file = menuBar()->addMenu(tr("&File"));
  file->addActions({actions_.open, actions_.camera});
  QMenu* recent = file->addMenu(tr("Open &recent"));
  connect(recent, &QMenu::aboutToShow, this, [this, recent] { fillRecent(recent); });
  QMenu* left = file->addMenu(tr("Bring &back"));
  connect(left, &QMenu::aboutToShow, this, [this, left] { fillLeft(left); });
  QMenu* demo = file->addMenu(tr("Open a &demo"));
  demo->addAction(tr("Badge of the kite loft"), this, [this] { openDemo("badge.jpg"); });
  demo->addAction(tr("Photo of the window card"), this, [this] { openDemo("window-card-photo.jpg"); });
  demo->addAction(tr("Weather vane"), this, [this] { openDemo("weather-vane.png"); });
  demo->addAction(tr("Ink drawing of a swallow"), this, [this] { openDemo("swallow.jpg"); });
  demo->addAction(tr("Broken spool plate (drawing)"), this, [this] { openDemo("spool-plate.dxf"); });
  file->addSeparator();
  file->addActions({actions_.save, actions_.saveAs});
  file->addSeparator();
  file->addActions(
      {actions_.exportFile, actions_.hand.exportChosen, actions_.copyDrawing, actions_.sketch, actions_.batch});
  file->addSeparator();
  file->addActions({actions_.shelf, actions_.toShelf});
  file->addSeparator();
  file->addAction(actions_.quit);

  QMenu* edit = menuBar()->addMenu(tr("&Edit"));
  edit->addActions({actions_.undo, actions_.redo});
  edit->addSeparator();
  edit->addActions({actions_.hand.cut, actions_.hand.copy, actions_.paste, actions_.hand.duplicate});

  menuBar()->addMenu(tr("&Picture"))->addAction(actions_.traceable);

  menuBar()->addMenu(tr("&Colours"))->addActions({actions_.severalInks, actions_.sweep, actions_.mergeLikest});

  QMenu* trace = menuBar()->addMenu(tr("&Trace"));
  trace->addActions({actions_.automatic, actions_.lightIsInk, actions_.darker, actions_.lighter, actions_.switchParts});
  trace->addSeparator();
  trace->addActions({actions_.deviation, actions_.worst});
  trace->addSeparator();
  trace->addActions({actions_.reference, actions_.dropReference, actions_.references});

  QMenu* mend = menuBar()->addMenu(tr("&Mend"));
  mend->addActions({actions_.mendSafe, actions_.takeProposals});
  mend->addSeparator();
  mend->addActions({actions_.nextFinding, actions_.previousFinding});
  mend->addSeparator();
  mend->addActions({actions_.repairThis, actions_.repairAll, actions_.leaveThis});

  QMenu* refine = menuBar()->addMenu(tr("&Refine"));
  refine->addActions({actions_.takeOffers, actions_.takeOffer, actions_.takeLikeOffers});
  refine->addSeparator();
  refine->addActions({actions_.nextOffer, actions_.previousOffer, actions_.nextFault});
  refine->addSeparator();
  refine->addActions(actions_.hand.tools->actions());
  refine->addSeparator();
  refine->addActions({actions_.chooseAll, actions_.deleteChosen, actions_.hand.group, actions_.hand.ungroup});
  QMenu* alike = refine->addMenu(tr("C&hoose"));
  alike->addActions(actions_.hand.alike);
  alike->addSeparator();
  alike->addAction(actions_.hand.lasso);
  QMenu* snaps = refine->addMenu(tr("Sna&p to"));
  snaps->addAction(actions_.hand.snap);
  snaps->addSeparator();
  for (std::size_t k = 0; k < refine::kSnaps; ++k) {
    const auto to = static_cast<refine::SnapTo>(k);
    QAction* one = snaps->addAction(snapWord(to));
    one->setCheckable(true);
    one->setChecked(true);
    connect(one, &QAction::toggled, this, [this, to](bool on) { refinePanel_->handwork().snapping().want(to, on); });
  }
  refine->addActions({actions_.rulers, actions_.grid, actions_.clearGuides, actions_.references});
  refine->addAction(actions_.hand.nudgeStep);
  refine->addMenu(tr("No&des and segments"))->addActions(actions_.hand.ofNodes());

  QMenu* look = menuBar()->addMenu(tr("&Look"));
  look->addActions(actions_.compare->actions());
  look->addSeparator();
  look->addActions({actions_.nodes, actions_.weaker, actions_.stronger});
  look->addSeparator();
  look->addActions({actions_.zoomIn, actions_.zoomOut, actions_.fit, actions_.trueSize});
  look->addSeparator();
  look->addAction(actions_.unit);
  look->addMenu(tr("&Appearance"))->addActions(actions_.appearance->actions());

  menuBar()->addMenu(tr("&Help"))->addActions({actions_.keys, actions_.about});
  for (QMenu* menu : findChildren<QMenu*>()) menu->setToolTipsVisible(true);
}

void MainWindow::fillRecent(QMenu* menu) {
  menu->clear();
  for (const QString& name : preferences_.recentFiles) {
    // A file name may hold an ampersand, which a menu would take for a mnemonic.
    menu->addAction(QString(name).replace('&', "&&"), this, [this, name] { openFile(name); });
  }
  if (menu->isEmpty()) menu->addAction(tr("Nothing was opened yet"))->setEnabled(false);
}

void MainWindow::connectActions() {
  connect(actions_.open, &QAction::triggered, this, &MainWindow::askForPicture);
  connect(actions_.paste, &QAction::triggered, this, [this] {
    const QMimeData* content = QApplication::clipboard()->mimeData();
    if (card_->chosenStep() != kRefine || !refinePanel_->handwork().paste(content)) pasteFrom(content);
  });
  connect(actions_.camera, &QAction::triggered, this, &MainWindow::takePracticePhoto);
  connect(actions_.exportFile, &QAction::triggered, this, [this] { askForExport({}); });
  connect(actions_.hand.exportChosen, &QAction::triggered, this,
          [this] { askForExport(refinePanel_->handwork().chosenIds()); });
  connect(actions_.copyDrawing, &QAction::triggered, this, &MainWindow::copyDrawing);
  connect(actions_.sketch, &QAction::triggered, this, &MainWindow::checkSketch);
  connect(actions_.batch, &QAction::triggered, this, &MainWindow::applyToOthers);
  connect(actions_.shelf, &QAction::triggered, this, &MainWindow::openShelf);
  connect(actions_.toShelf, &QAction::triggered, this, &MainWindow::putOnShelf);
  connect(actions_.save, &QAction::triggered, this, &MainWindow::saveJob);
  connect(actions_.saveAs, &QAction::triggered, this, &MainWindow::askForJobFile);
  connect(actions_.quit, &QAction::triggered, this, &QWidget::close);
  connect(actions_.undo, &QAction::triggered, &session_, &Session::undo);
  connect(actions_.redo, &QAction::triggered, &session_, &Session::redo);
  connect(actions_.traceable, &QAction::triggered, &session_, &Session::makeTraceable);
  connect(picturePanel_, &PicturePanel::toolChanged, bench_, &Bench::setTool);
  connect(card_, &JobCard::chosen, picturePanel_, &PicturePanel::putToolsAway);
  connect(picturePanel_, &PicturePanel::refused, notice_, &Notice::warn);
  connect(&session_, &Session::said, notice_, &Notice::tell);
  connect(actions_.automatic, &QAction::triggered, tracePanel_, &TracePanel::setAutomatic);
  connect(actions_.lightIsInk, &QAction::triggered, tracePanel_, &TracePanel::setLightIsInk);
  connect(actions_.switchParts, &QAction::toggled, this, [this](bool on) {
    if (on) showStep(kTrace);
    tracePanel_->setSwitching(on);
  });
  connect(tracePanel_, &TracePanel::toolChanged, bench_, &Bench::setTool);
  connect(card_, &JobCard::chosen, this, [this] {
    if (card_->chosenStep() != kTrace) actions_.switchParts->setChecked(false);
  });
  connect(actions_.darker, &QAction::triggered, this, [this] { tracePanel_->moveThreshold(-1); });
  connect(actions_.lighter, &QAction::triggered, this, [this] { tracePanel_->moveThreshold(1); });
  connect(actions_.reference, &QAction::triggered, &session_, &Session::keepReference);
  connect(actions_.dropReference, &QAction::triggered, &session_, &Session::dropReference);
  connect(actions_.deviation, &QAction::toggled, this, &MainWindow::followDeviation);
  connect(actions_.worst, &QAction::triggered, this, &MainWindow::lookAtWorst);
  connect(&session_, &Session::deviationMeasured, this, &MainWindow::showDeviation);
  connectColours();
  connectMending();
  connectRefining();
  connect(actions_.keys, &QAction::triggered, this, [this] { (new KeysPage(actions_.book, this))->show(); });
  connect(actions_.about, &QAction::triggered, this, &MainWindow::showAbout);
}

void MainWindow::connectView() {
  connect(card_, &JobCard::chosen, panels_, &QStackedWidget::setCurrentIndex);
  // Rooms are the steps in their order, after the one for all of them.
  const auto enter = [this](int step) { actions_.book.enter(static_cast<Room>(step + 1)); };
  connect(card_, &JobCard::chosen, this, enter);
  enter(card_->chosenStep());
  for (const auto compare : {Compare::Overlay, Compare::Seam, Compare::Outlines}) {
    connect(actions_.compare->actions()[static_cast<int>(compare)], &QAction::triggered, bench_,
            [this, compare] { bench_->setCompare(compare); });
  }
  actions_.compare->actions().first()->setChecked(true);
  connect(actions_.nodes, &QAction::toggled, this, [this](bool shown) {
    preferences_.nodes = shown;
    bench_->setNodes(shown);
  });
  actions_.nodes->setChecked(preferences_.nodes);
  connect(actions_.weaker, &QAction::triggered, this, [this] { setStrength(preferences_.pictureStrength - 0.1); });
  connect(actions_.stronger, &QAction::triggered, this, [this] { setStrength(preferences_.pictureStrength + 0.1); });
  connect(strip_, &ViewStrip::strengthChanged, this, &MainWindow::setStrength);
  setStrength(preferences_.pictureStrength);
  connect(strip_, &ViewStrip::peek, bench_, &Bench::setPeek);
  connect(bench_, &Bench::zoomChanged, strip_, &ViewStrip::setZoom);
  connect(bench_, &Bench::dropped, this, &MainWindow::takeDropped);
  connect(start_, &StartPage::dropped, this, &MainWindow::pasteFrom);
  connect(start_, &StartPage::fileChosen, this, &MainWindow::openFile);
  connect(start_, &StartPage::demoChosen, this, &MainWindow::openDemo);
  constexpr double kZoomStep = 1.25;
  connect(actions_.zoomIn, &QAction::triggered, bench_, [this] { bench_->zoom(kZoomStep); });
  connect(actions_.zoomOut, &QAction::triggered, bench_, [this] { bench_->zoom(1 / kZoomStep); });
  connect(actions_.fit, &QAction::triggered, bench_, &Bench::fit);
  connect(actions_.trueSize, &QAction::triggered, bench_, &Bench::showAtTrueSize);
  connect(actions_.unit, &QAction::triggered, this, &MainWindow::toggleUnit);
  connect(gauge_, &Gauge::unitToggled, this, &MainWindow::toggleUnit);
  connect(gauge_, &Gauge::refused, notice_, &Notice::warn);
  connect(gauge_, &Gauge::widthEntered, this, [this](double mm) { setSize(SizeWish::Of::OutlinesWidth, mm); });
  connect(gauge_, &Gauge::heightEntered, this, [this](double mm) { setSize(SizeWish::Of::OutlinesHeight, mm); });
  const QList<QAction*> appearances = actions_.appearance->actions();
  appearances[static_cast<int>(preferences_.appearance)]->setChecked(true);
  for (const auto appearance : {Appearance::System, Appearance::Light, Appearance::Dark}) {
    connect(appearances[static_cast<int>(appearance)], &QAction::triggered, this,
            [this, appearance] { setAppearance(appearance); });
  }
}

void MainWindow::connectSession() {
  connect(&session_, &Session::changed, this, &MainWindow::showJob);
  connect(&session_, &Session::pictureChanged, this, [this] {
    if (const auto& drawing = session_.job().drawing) {
      bench_->setPage(pageOf(*drawing));
      return;
    }
    bench_->setPage({});
    bench_->setPicture(session_.job().picture);
    bench_->setOriginal(session_.job().original);
    notice_->hide();
  });
  connect(&session_, &Session::previewed, bench_, &Bench::setPreview);
  connect(&session_, &Session::bordersFollowed, this, [this](const std::shared_ptr<const Borders>& borders, int) {
    bench_->setBorders(*borders);
    provisional_ = Counts{borders->size(), borders->size()};
    showMeasures();
  });
  connect(&session_, &Session::busyChanged, busy_, &BusyLine::report);
  connect(busy_, &BusyLine::cancelled, &session_, &Session::cancel);
  connect(&session_, &Session::failed, notice_, &Notice::warn);
  const auto remember = [this](const QString& file) {
    const QFileInfo info(file);
    preferences_.recentFiles = withRecentFile(preferences_.recentFiles, info.absoluteFilePath());
    preferences_.pictureFolder = info.absolutePath();
    savePreferences(preferences_);
    thumbnailFor_ = info.absoluteFilePath();
  };
  connect(&session_, &Session::opened, this, remember);
  connect(&session_, &Session::saved, this, remember);
  connect(&session_, &Session::saved, this, [this](const QString& file) {
    notice_->tell(tr("The job is saved as %1.").arg(QFileInfo(file).fileName()));
    if (const auto then = std::exchange(afterSaving_, nullptr)) then();
  });
  connect(&session_, &Session::failed, this, [this] { afterSaving_ = nullptr; });
  connect(&session_, &Session::exported, this, [this](const QStringList& files, const Counts& counts, const Box& box) {
    const QString name = files.size() == 1 ? tr("%1 is written").arg(QFileInfo(files.first()).fileName())
                                           : tr("%1 files are written").arg(files.size());
    notice_->tell(tr("%1: %2, %3 × %4.")
                      .arg(name, counted(counts.closed, tr("1 closed outline"), tr("%1 closed outlines")),
                           lengthText(box.width(), preferences_.unit),
                           lengthWithUnit(box.height(), preferences_.unit)));
  });
  connect(&session_, &Session::receiptTaken, this,
          [this](const QString& file, const std::shared_ptr<const Receipt>& receipt) {
            exportPanel_->showReceipt(file, receipt, preferences_.unit);
            if (receipt && !receipt->clean)
              notice_->warn(tr("%1 is written, but not clean: %2")
                                .arg(QFileInfo(file).fileName(), QString::fromStdString(receipt->remarks.front())));
          });
  connect(exportPanel_, &ExportPanel::told, notice_, &Notice::tell);
  connect(exportPanel_, &ExportPanel::refused, notice_, &Notice::warn);
  connect(exportPanel_, &ExportPanel::mendingWanted, this, [this] { showStep(kMend); });
  connect(exportPanel_, &ExportPanel::placeWanted, this, [this](Point mm) {
    constexpr double kSightMm = 15;
    const double k = mmPerPixel(session_.job());
    bench_->lookAt(mm * (1 / k), std::min(bench_->width(), bench_->height()) * k / kSightMm);
  });
  connect(exportPanel_, &ExportPanel::wished, this, [this](const FileWish& wish) {
    rememberFileWish(wish);
    if (session_.hasWork()) {
      session_.edit(tr("Choose the file"), "file", [&wish](Job& job) { job.file = wish; });
    } else {
      exportPanel_->show(preferences_.unit);
    }
  });
}

void MainWindow::askForPicture() {
  const QString folder = preferences_.pictureFolder.isEmpty()
                             ? QStandardPaths::writableLocation(QStandardPaths::PicturesLocation)
                             : preferences_.pictureFolder;
  const QString file = QFileDialog::getOpenFileName(this, tr("Open picture, drawing or job"), folder,
                                                    tr("Pictures, drawings and jobs (*.png *.jpg *.jpeg *.bmp *.gif "
                                                       "*.tif *.tiff *.webp *.pdf *.svg *.dxf *.snugrim);;"
                                                       "All files (*)"));
  if (!file.isEmpty()) openFile(file);
}

void MainWindow::takePracticePhoto() {
  PracticeCameraDialog camera(this);
  if (camera.exec() != QDialog::Accepted) return;
  replaceWork([this, photo = camera.photo(), name = camera.photoName()] {
    showStep(kPicture);
    session_.openBytes(photo, name);
  });
}

void MainWindow::pasteFrom(const QMimeData* content) {
  if (content == nullptr) return;
  for (const QUrl& url : content->urls()) {
    if (url.isLocalFile()) {
      openFile(url.toLocalFile());
      return;
    }
  }
  if (content->hasImage()) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    constexpr int kQuickly = 100;  // PNG: hardly compressed, it is only handed on
    const auto image = qvariant_cast<QImage>(content->imageData());
    if (!image.isNull() && image.save(&buffer, "PNG", kQuickly)) {
      replaceWork([this, bytes] { session_.openBytes(bytes, tr("clipboard")); });
      return;
    }
  }
  notice_->warn(content->hasUrls()
                    ? tr("Only files on this computer can be opened. Save the picture first, then open it.")
                    : tr("There is no picture on the clipboard. Copy one first."));
}

void MainWindow::setStrength(double strength) {
  preferences_.pictureStrength = std::clamp(strength, 0.0, 1.0);
  bench_->setStrength(preferences_.pictureStrength);
  strip_->setStrength(preferences_.pictureStrength);
}

void MainWindow::setSize(SizeWish::Of of, double millimetres) {
  const QString name = of == SizeWish::Of::OutlinesWidth ? tr("Set width") : tr("Set height");
  // The wish means the outlines before they are refined; what is typed means them as they are shown.
  const Box now = outlinesBoxOf(session_.shown());
  const Box before = boxOf(mendedDrawingOf(session_.shown()));
  const bool width = of == SizeWish::Of::OutlinesWidth;
  const double share = width ? before.width() / now.width() : before.height() / now.height();
  session_.edit(name, {}, [&](Job& job) { job.size = {of, millimetres * share}; });
}

void MainWindow::toggleUnit() {
  preferences_.unit = preferences_.unit == Unit::Inch ? Unit::Millimetre : Unit::Inch;
  showJob();
}

void MainWindow::setAppearance(Appearance appearance) {
  preferences_.appearance = appearance;
  applyLook(*qApp, appearance);
  bench_->setOutlines(outlinesHere(session_.shown()));
  for (QWidget* widget : findChildren<QWidget*>()) widget->update();
}

void MainWindow::showAbout() {
  QMessageBox::about(
      this, tr("About Snug Rim"),
      tr("Snug Rim %1\n\nTurns a picture into closed outlines of a known size.\n\nFree software under the "
         "GNU General Public License, version 3 or later, without any warranty. The typeface Karla is "
         "used under the SIL Open Font License.")
          .arg(SNUGRIM_VERSION));
}

}  // namespace rim::app
