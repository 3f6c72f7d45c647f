// Files that the window writes for machines and for other programs.

#include <QApplication>
#include <QClipboard>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QMimeData>
#include <QStandardPaths>

#include "app/batch_dialog.h"
#include "app/main_window.h"
#include "app/steps/export/drag_out.h"
#include "app/steps/export/export_panel.h"
#include "app/steps/export/sketch_dialog.h"
#include "app/widgets/notice.h"
#include "app/widgets/svg_mime.h"
#include "core/io/deliver.h"

namespace rim::app {

void MainWindow::askForExport() {
  showStep(kExport);
  const FileWish wish = exportPanel_->wish();
  const QString ending = QString::fromStdString(endingFor(wish.format)).mid(1);
  const QString folder = preferences_.exportFolder.isEmpty()
                             ? QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation)
                             : preferences_.exportFolder;
  const QString base = QFileInfo(QString::fromStdString(session_.job().original.name)).completeBaseName();
  QFileDialog dialog(this, tr("Export outlines"), folder + "/" + base + "." + ending,
                     tr("%1 (*.%2)").arg(ending.toUpper(), ending));
  dialog.setObjectName("exportDialog");
  dialog.selectFile(base + "." + ending);
  const QStringList endings{ending, "svg", "dxf", "pdf", "eps", "png"};
  const QString file = chosenFile(dialog, endings);
  if (file.isEmpty() || (wish.fileEach && !mayReplaceEach(file))) return;
  preferences_.exportFolder = QFileInfo(file).absolutePath();
  session_.exportTo(file, wish);
}

/// Whether the files of the layers may be written; those that are there are asked about, one by one.
bool MainWindow::mayReplaceEach(const QString& file) {
  for (const Delivered& one : byLayerFiles(drawingOf(session_.job()), file.toStdString())) {
    const QString name = QString::fromStdString(one.file.string());
    if (name != file && QFileInfo::exists(name) && !mayReplace(name)) return false;
  }
  return true;
}

void MainWindow::copyDrawing() {
  QApplication::clipboard()->setMimeData(svgContent(svgOf(session_)));
  notice_->tell(tr("The outlines are on the clipboard, as SVG."));
}

void MainWindow::checkSketch() {
  const QString base = QFileInfo(QString::fromStdString(session_.job().original.name)).completeBaseName();
  const QString folder = preferences_.exportFolder.isEmpty() ? QDir::homePath() : preferences_.exportFolder;
  auto* dialog = new SketchDialog(drawingOf(session_.job()), folder + "/" + base, preferences_.unit, this);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->open();
}

void MainWindow::applyToOthers() {
  const QString folder = preferences_.exportFolder.isEmpty() ? QDir::homePath() : preferences_.exportFolder;
  auto* dialog = new BatchDialog(session_.job(), exportPanel_->wish(), folder, this);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->open();
}

}  // namespace rim::app
