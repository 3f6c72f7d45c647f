// Drawings that are opened instead of pictures.

#include <QFileInfo>
#include <QInputDialog>

#include "app/bench/bench.h"
#include "app/main_window.h"
#include "app/widgets/notice.h"

namespace rim::app {

Box pageOf(const Drawing& drawing) {
  Box page = boxOf(drawing);
  constexpr double kRoom = 0.04;
  const double room = kRoom * std::max(page.width(), page.height());
  page.include(page.low - Point{room, room});
  page.include(page.high + Point{room, room});
  return page;
}

void MainWindow::takeDrawing(const QStringList& notes, bool unitKnown) {
  bench_->setPage(pageOf(*session_.job().drawing));
  bench_->fit();
  showStep(Step::Mend);
  if (!unitKnown && !askForUnit()) return;
  if (!notes.isEmpty()) notice_->tell(notes.join(" "));
}

/// Asks for the unit of a drawing that names none. True: it stays as it was read.
bool MainWindow::askForUnit() {
  struct Choice {
    QString name;
    double mm;
  };
  const std::vector<Choice> choices{{tr("millimetres"), 1},
                                    {tr("centimetres"), 10},
                                    {tr("inches"), kMmPerInch},
                                    {tr("pixels (96 an inch)"), kMmPerCssPx},
                                    {tr("points (72 an inch)"), kMmPerInch / 72}};
  const bool svg = QFileInfo(drawingFile_).suffix().toLower() == "svg";
  const double taken = svg ? kMmPerCssPx : 1;
  const Box box = boxOf(*session_.job().drawing);
  QStringList names;
  int now = 0;
  for (const Choice& choice : choices) {
    if (std::abs(choice.mm - taken) < 1e-9) now = static_cast<int>(names.size());
    const double k = choice.mm / taken;
    names << tr("%1: %2 × %3 mm").arg(choice.name).arg(box.width() * k, 0, 'f', 1).arg(box.height() * k, 0, 'f', 1);
  }
  QInputDialog dialog(this);
  dialog.setObjectName("unitDialog");
  dialog.setWindowTitle(tr("Unit of the drawing"));
  dialog.setLabelText(tr("The file names no unit. Its numbers are"));
  dialog.setComboBoxItems(names);
  dialog.setTextValue(names[now]);
  const bool chosen = dialog.exec() == QDialog::Accepted;
  const auto at = names.indexOf(dialog.textValue());
  if (!chosen || at < 0 || at == now) return true;
  session_.openDrawing(drawingFile_, choices[static_cast<std::size_t>(at)].mm);
  return false;
}

}  // namespace rim::app
