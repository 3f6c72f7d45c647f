// Finished artwork: kept on the shelf, and taken from it.

#include "app/bench/bench.h"
#include "app/file_questions.h"
#include "app/main_window.h"
#include "app/shelf/label_dialog.h"
#include "app/shelf/shelf_dialog.h"
#include "app/widgets/notice.h"
#include "app/widgets/svg_mime.h"

namespace rim::app {

void MainWindow::openShelf() {
  if (shelf_ == nullptr) {
    shelf_ = new ShelfDialog(shelfFolder(), this);
    connect(shelf_, &ShelfDialog::refused, notice_, &Notice::warn);
    connect(shelf_, &ShelfDialog::openWanted, this, &MainWindow::openFile);
    connect(shelf_, &ShelfDialog::pieceWanted, this,
            [this](const QByteArray& svg) { emit exchange_.pieceWanted(svg, bench_->middle()); });
  } else {
    shelf_->refresh();
  }
  shelf_->showFor(session_.hasWork(), preferences_.unit);
}

/// What can be done with a piece depends on whether something is open.
void MainWindow::showShelf() {
  if (shelf_ != nullptr && shelf_->isVisible()) shelf_->setDrawing(session_.hasWork(), preferences_.unit);
}

void MainWindow::putOnShelf() {
  LabelDialog dialog(baseNameOf(session_.job()), QString::fromStdString(session_.job().origin), this);
  if (dialog.exec() != QDialog::Accepted) return;
  const auto kept = outcomeOf(
      [&] { return io::putOnShelf(job::drawingOf(session_.job()), dialog.label(), shelfFolder().toStdString()); });
  if (!kept.trouble.isEmpty()) {
    notice_->warn(tr("It was not put on the shelf: %1").arg(kept.trouble));
    return;
  }
  notice_->tell(tr("%1 is on the shelf.").arg(QString::fromStdString(dialog.label().name)));
  if (shelf_ != nullptr) shelf_->refresh();
}

/// Outlines come into the drawing that is open, where they are let go; a file is opened.
void MainWindow::takeDropped(const QMimeData* content, Point place) {
  const QByteArray svg = content != nullptr ? svgIn(*content) : QByteArray();
  if (svg.isEmpty() || !session_.hasWork()) return pasteFrom(content);
  emit exchange_.pieceWanted(svg, place);
}

}  // namespace rim::app
