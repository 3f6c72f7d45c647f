// Files that the window writes for machines and for other programs.

#include <QApplication>
#include <QClipboard>
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

/// Where files were written last, or the user's documents.
QString MainWindow::exportFolder() const {
  return preferences_.exportFolder.isEmpty() ? QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation)
                                             : preferences_.exportFolder;
}

/// What files made of this job are called, without an ending.
QString MainWindow::baseName() const {
  return QFileInfo(QString::fromStdString(session_.job().original.name)).completeBaseName();
}

void MainWindow::askForExport(const std::set<OutlineId>& only) {
  if (only.empty()) showStep(kExport);
  const FileWish wish = exportPanel_->wish();
  const QString ending = QString::fromStdString(endingFor(wish.format)).mid(1);
  const QString base = baseName();
  QFileDialog dialog(this, tr("Export outlines"), exportFolder() + "/" + base + "." + ending,
                     tr("%1 (*.%2)").arg(ending.toUpper(), ending));
  dialog.setObjectName("exportDialog");
  dialog.selectFile(base + "." + ending);
  const QStringList endings{ending, "svg", "dxf", "pdf", "eps", "png"};
  const QString file = chosenFile(dialog, endings);
  if (file.isEmpty() || (wish.fileEach && !mayReplaceEach(file, only))) return;
  preferences_.exportFolder = QFileInfo(file).absolutePath();
  session_.exportTo(file, wish, only);
}

/// Whether the files of the layers may be written; those that are there are asked about, one by one.
bool MainWindow::mayReplaceEach(const QString& file, const std::set<OutlineId>& only) {
  const Drawing drawing = arrangedOf(session_.job(), settingsFor(exportPanel_->wish()), only);
  for (const Delivered& one : byLayerFiles(drawing, file.toStdString())) {
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
  auto* dialog =
      new SketchDialog(drawingOf(session_.job()), exportFolder() + "/" + baseName(), preferences_.unit, this);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->open();
}

void MainWindow::applyToOthers() {
  auto* dialog = new BatchDialog(session_.job(), exportPanel_->wish(), exportFolder(), this);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->open();
}

}  // namespace rim::app
