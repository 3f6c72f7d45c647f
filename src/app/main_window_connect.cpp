// What the window's own actions do, and what it hears from its parts.

#include <QApplication>
#include <QBuffer>
#include <QClipboard>
#include <QFileDialog>
#include <QFileInfo>
#include <QImage>
#include <QMessageBox>
#include <QMimeData>
#include <QStandardPaths>
#include <utility>

#include "app/bench/bench.h"
#include "app/keys_page.h"
#include "app/look.h"
#include "app/main_window.h"
#include "app/start/practice_camera_dialog.h"
#include "app/start/start_page.h"
#include "app/widgets/busy_line.h"
#include "app/widgets/counted.h"
#include "app/widgets/gauge.h"
#include "app/widgets/job_card.h"
#include "app/widgets/length_text.h"
#include "app/widgets/notice.h"
#include "app/widgets/view_strip.h"

namespace rim::app {

void MainWindow::connectActions() {
  connect(actions_.open, &QAction::triggered, this, &MainWindow::askForPicture);
  connect(actions_.paste, &QAction::triggered, this, [this] {
    const QMimeData* content = QApplication::clipboard()->mimeData();
    if (!here().paste(content)) pasteFrom(content);
  });
  connect(actions_.camera, &QAction::triggered, this, &MainWindow::takePracticePhoto);
  connect(actions_.shelf, &QAction::triggered, this, &MainWindow::openShelf);
  connect(actions_.toShelf, &QAction::triggered, this, &MainWindow::putOnShelf);
  connect(actions_.save, &QAction::triggered, this, &MainWindow::saveJob);
  connect(actions_.saveAs, &QAction::triggered, this, &MainWindow::askForJobFile);
  connect(actions_.quit, &QAction::triggered, this, &QWidget::close);
  connect(actions_.undo, &QAction::triggered, &session_, &Session::undo);
  connect(actions_.redo, &QAction::triggered, &session_, &Session::redo);
  connect(actions_.keys, &QAction::triggered, this, [this] { (new KeysPage(book_, this))->show(); });
  connect(actions_.about, &QAction::triggered, this, &MainWindow::showAbout);
}

void MainWindow::connectView() {
  connectLook();
  connect(strip_, &ViewStrip::strengthChanged, this, &MainWindow::setStrength);
  connect(strip_, &ViewStrip::peek, bench_, &Bench::setPeek);
  connect(bench_, &Bench::zoomChanged, strip_, &ViewStrip::setZoom);
  connect(bench_, &Bench::dropped, this, &MainWindow::takeDropped);
  connect(start_, &StartPage::dropped, this, &MainWindow::pasteFrom);
  connect(start_, &StartPage::fileChosen, this, &MainWindow::openFile);
  connect(start_, &StartPage::demoChosen, this, &MainWindow::openDemo);
  connect(gauge_, &Gauge::unitToggled, this, &MainWindow::toggleUnit);
  connect(gauge_, &Gauge::refused, notice_, &Notice::warn);
  connect(gauge_, &Gauge::widthEntered, this, [this](double mm) { setSize(job::SizeWish::Of::OutlinesWidth, mm); });
  connect(gauge_, &Gauge::heightEntered, this, [this](double mm) { setSize(job::SizeWish::Of::OutlinesHeight, mm); });
}

void MainWindow::connectLook() {
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
  setStrength(preferences_.pictureStrength);
  constexpr double kZoomStep = 1.25;
  connect(actions_.zoomIn, &QAction::triggered, bench_, [this] { bench_->zoom(kZoomStep); });
  connect(actions_.zoomOut, &QAction::triggered, bench_, [this] { bench_->zoom(1 / kZoomStep); });
  connect(actions_.fit, &QAction::triggered, bench_, &Bench::fit);
  connect(actions_.trueSize, &QAction::triggered, bench_, &Bench::showAtTrueSize);
  connect(actions_.unit, &QAction::triggered, this, &MainWindow::toggleUnit);
  const QList<QAction*> appearances = actions_.appearance->actions();
  appearances[static_cast<int>(preferences_.appearance)]->setChecked(true);
  for (const auto appearance : {Appearance::System, Appearance::Light, Appearance::Dark}) {
    connect(appearances[static_cast<int>(appearance)], &QAction::triggered, this,
            [this, appearance] { setAppearance(appearance); });
  }
}

void MainWindow::connectRooms() {
  connect(card_, &JobCard::chosen, this, &MainWindow::enterStep);
  connect(&exchange_, &Exchange::stepWanted, this, &MainWindow::showStep);
  connect(&exchange_, &Exchange::told, notice_, &Notice::tell);
  connect(&exchange_, &Exchange::warned, notice_, &Notice::warn);
  connect(&exchange_, &Exchange::measuresChanged, this, &MainWindow::showMeasures);
  connect(&exchange_, &Exchange::sizeWanted, this, &MainWindow::setSize);
}

void MainWindow::connectSession() {
  connect(&session_, &Session::changed, this, &MainWindow::showJob);
  connect(&session_, &Session::said, notice_, &Notice::tell);
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
  connect(&session_, &Session::drawingRead, this, &MainWindow::takeDrawing);
  connect(&session_, &Session::previewed, bench_, &Bench::setPreview);
  connect(&session_, &Session::bordersFollowed, this, [this](const std::shared_ptr<const Borders>& borders, int) {
    bench_->setBorders(*borders);
    provisional_ = Counts{borders->size(), borders->size()};
    showMeasures();
  });
  connect(&session_, &Session::busyChanged, busy_, &BusyLine::report);
  connect(busy_, &BusyLine::cancelled, &session_, &Session::cancel);
  connect(&session_, &Session::failed, notice_, &Notice::warn);
}

void MainWindow::connectFiles() {
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
    showStep(Step::Picture);
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

void MainWindow::setSize(job::SizeWish::Of of, double millimetres) {
  const QString name = of == job::SizeWish::Of::OutlinesWidth ? tr("Set width") : tr("Set height");
  // The wish means the outlines before they are refined; what is typed means them as they are shown.
  const Box now = job::outlinesBoxOf(session_.shown());
  const Box before = boxOf(job::mendedDrawingOf(session_.shown()));
  const bool width = of == job::SizeWish::Of::OutlinesWidth;
  const double share = width ? before.width() / now.width() : before.height() / now.height();
  session_.edit(name, {}, [&](job::Job& job) { job.size = {of, millimetres * share}; });
}

void MainWindow::toggleUnit() {
  preferences_.unit = preferences_.unit == Unit::Inch ? Unit::Millimetre : Unit::Inch;
  showJob();
}

void MainWindow::setAppearance(Appearance appearance) {
  preferences_.appearance = appearance;
  applyLook(*qApp, appearance);
  bench_->setOutlines(here().outlines(session_.shown()));
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
