#include "app/steps/export/export_room.h"

#include <QApplication>
#include <QClipboard>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMimeData>

#include "app/bench/bench.h"
#include "app/file_questions.h"
#include "app/preferences.h"
#include "app/session.h"
#include "app/steps/export/batch_dialog.h"
#include "app/steps/export/drag_out.h"
#include "app/steps/export/export_panel.h"
#include "app/steps/export/presets.h"
#include "app/steps/export/sketch_dialog.h"
#include "app/steps/rooms.h"
#include "app/widgets/svg_mime.h"
#include "core/io/deliver.h"

namespace rim::app {

ExportActions::ExportActions(ActionBook& book) {
  const auto text = [](const char* source) { return ExportRoom::tr(source); };
  exportFile = book.add(kEverywhere, text("&Export…"), text("Write the outlines to a file"), onKey("Ctrl+E"));
  copyDrawing = book.add(kEverywhere, text("&Copy as SVG"),
                         text("All outlines to the clipboard, as they would be written"), onKey("Ctrl+Shift+C"));
  sketch = book.add(kEverywhere, text("S&ketch check…"),
                    text("What a CAD program would make of the outlines: profiles, holes, the solid"), onKey("Ctrl+K"));
  batch = book.add(kEverywhere, text("&Apply this job to other pictures…"),
                   text("The same settings for many pictures, with a receipt for each"));
}

ExportRoom::ExportRoom(const Workplace& at)
    : StepRoom(at, Step::Export, tr("E&xport"), tr("Outlines into a DXF or SVG file")),
      actions_(at.book),
      panel_(new ExportPanel(at.session, actions_)) {
  connect(actions_.exportFile, &QAction::triggered, this, [this] { askForFile({}); });
  connect(&at_.exchange, &Exchange::exportWanted, this, &ExportRoom::askForFile);
  connect(actions_.copyDrawing, &QAction::triggered, this, &ExportRoom::copyDrawing);
  connect(actions_.sketch, &QAction::triggered, this, &ExportRoom::checkSketch);
  connect(actions_.batch, &QAction::triggered, this, &ExportRoom::applyToOthers);
  connect(&at_.session, &Session::receiptTaken, this,
          [this](const QString& file, const std::shared_ptr<const io::Receipt>& receipt) {
            panel_->showReceipt(file, receipt, at_.preferences.unit);
            if (receipt && !receipt->clean)
              emit at_.exchange.warned(
                  tr("%1 is written, but not clean: %2")
                      .arg(QFileInfo(file).fileName(), QString::fromStdString(receipt->remarks.front())));
          });
  connectPanel();
}

void ExportRoom::connectPanel() {
  connect(panel_, &ExportPanel::told, &at_.exchange, &Exchange::told);
  connect(panel_, &ExportPanel::refused, &at_.exchange, &Exchange::warned);
  connect(panel_, &ExportPanel::mendingWanted, this, [this] { emit at_.exchange.stepWanted(Step::Mend); });
  connect(panel_, &ExportPanel::placeWanted, this, [this](Point mm) {
    constexpr double kSightMm = 15;
    lookAt(mm * (1 / job::mmPerPixel(at_.session.job())), kSightMm);
  });
  connect(panel_, &ExportPanel::wished, this, [this](const job::FileWish& wish) {
    rememberFileWish(wish);
    if (at_.session.hasWork()) {
      at_.session.edit(tr("Choose the file"), "file", [&wish](job::Job& job) { job.file = wish; });
    } else {
      show();
    }
  });
}

QWidget* ExportRoom::panel() { return panel_; }

void ExportRoom::fillMenu(QMenu& menu) {
  menu.addActions({actions_.exportFile, actions_.copyDrawing});
  menu.addSeparator();
  menu.addActions({actions_.sketch, actions_.batch});
}

QList<QAction*> ExportRoom::forFileMenu() const { return {actions_.exportFile}; }

CardLine ExportRoom::cardLine() const {
  return {ExportPanel::stateLine(at_.session, at_.preferences.unit), hasOutlines()};
}

void ExportRoom::show() {
  panel_->show(at_.preferences.unit);
  allow(actions_.batch, at_.session.hasPicture(),
        at_.session.hasWork() ? tr("A drawing has no settings for pictures.") : needsOutlines());
  const QString whyNot = whyNotWritten(at_.session);
  for (QAction* action : {actions_.exportFile, actions_.copyDrawing, actions_.sketch})
    allow(action, whyNot.isEmpty(), whyNot);
}

std::shared_ptr<const Drawing> ExportRoom::outlines(const job::Job& job) const { return job::outlinesOf(job); }

QString ExportRoom::folder() const { return exportFolder(at_.preferences); }

void ExportRoom::askForFile(const std::set<OutlineId>& only) {
  if (only.empty()) emit at_.exchange.stepWanted(step());
  const job::FileWish wish = panel_->wish();
  const QString ending = QString::fromStdString(io::endingFor(wish.format)).mid(1);
  const QString base = baseNameOf(at_.session.job());
  QFileDialog dialog(&at_.window, tr("Export outlines"), folder() + "/" + base + "." + ending,
                     tr("%1 (*.%2)").arg(ending.toUpper(), ending));
  dialog.setObjectName("exportDialog");
  dialog.selectFile(base + "." + ending);
  const QString file = chosenFile(dialog, {ending, "svg", "dxf", "pdf", "eps", "png"});
  if (file.isEmpty() || (wish.fileEach && !mayReplaceEach(file, only))) return;
  at_.preferences.exportFolder = QFileInfo(file).absolutePath();
  at_.session.exportTo(file, wish, only);
}

/// Whether the files of the layers may be written; those that are there are asked about, one by one.
bool ExportRoom::mayReplaceEach(const QString& file, const std::set<OutlineId>& only) {
  const Drawing drawing = io::arrangedOf(at_.session.job(), io::settingsFor(panel_->wish()), only);
  for (const io::Delivered& one : io::byLayerFiles(drawing, file.toStdString())) {
    const QString name = QString::fromStdString(one.file.string());
    if (name != file && QFileInfo::exists(name) && !mayReplace(name, &at_.window)) return false;
  }
  return true;
}

void ExportRoom::copyDrawing() {
  QApplication::clipboard()->setMimeData(svgContent(svgOf(at_.session)));
  emit at_.exchange.told(tr("The outlines are on the clipboard, as SVG."));
}

void ExportRoom::checkSketch() {
  const job::Job& job = at_.session.job();
  auto* dialog =
      new SketchDialog(job::drawingOf(job), folder() + "/" + baseNameOf(job), at_.preferences.unit, &at_.window);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->open();
}

void ExportRoom::applyToOthers() {
  auto* dialog = new BatchDialog(at_.session.job(), panel_->wish(), folder(), &at_.window);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->open();
}

}  // namespace rim::app
