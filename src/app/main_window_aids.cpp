// What helps to place and to compare, and is never cut: rules, guides, a grid, reference copies.

#include <QInputDialog>

#include "app/bench/bench.h"
#include "app/main_window.h"
#include "app/reference_dialog.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/snapping.h"
#include "app/steps/refine/refine_panel.h"
#include "app/widgets/job_card.h"

namespace rim::app {

void MainWindow::connectAids() {
  actions_.rulers->setChecked(preferences_.rulers);
  connect(actions_.rulers, &QAction::toggled, this, [this](bool on) {
    preferences_.rulers = on;
    if (on && card_->chosenStep() != kRefine) showStep(kRefine);
    showAids();
  });
  connect(actions_.grid, &QAction::triggered, this, &MainWindow::askForGrid);
  connect(actions_.clearGuides, &QAction::triggered, this, [this] { setGuides({}); });
  connect(actions_.references, &QAction::triggered, this, &MainWindow::openReferences);
  connect(bench_, &Bench::guideToBeTyped, this, &MainWindow::typeGuide);
  connect(bench_, &Bench::guidesChanged, this, [this](std::vector<Guide> guides) {
    const double k = mmPerPixel(session_.job());
    for (Guide& guide : guides) guide.at *= k;
    setGuides(guides);
  });
}

void MainWindow::setGuides(const std::vector<Guide>& guides) {
  const std::size_t before = session_.job().guides.size();
  const QString name = guides.size() > before   ? tr("Pull a guide")
                       : guides.size() < before ? tr("Remove guides")
                                                : tr("Move a guide");
  session_.edit(name, {}, [&guides](Job& job) { job.guides = guides; });
}

void MainWindow::showAids() {
  const bool here = card_->chosenStep() == kRefine && session_.hasWork();
  const Job& job = session_.job();
  const double k = session_.hasWork() ? mmPerPixel(session_.upToDate() ? job : session_.shown()) : 1;
  std::vector<Guide> guides;
  if (here && preferences_.rulers) {
    for (const Guide& guide : job.guides) guides.push_back({guide.upright, guide.at / k});
  }
  const double grid = here && preferences_.rulers ? preferences_.gridMm / k : 0;
  bench_->setRulers(here && preferences_.rulers);
  bench_->setGuides(guides);
  bench_->setGrid(grid);
  refinePanel_->handwork().snapping().setAids(guides, grid);
  actions_.clearGuides->setEnabled(!job.guides.empty());
  std::vector<std::shared_ptr<const Drawing>> references;
  for (const Reference& reference : job.references) {
    if (reference.shown) references.push_back(reference.outlines);
  }
  bench_->setReferences(references);
}

void MainWindow::askForGrid() {
  bool accepted = false;
  const double mm = QInputDialog::getDouble(this, tr("Grid"), tr("From line to line, in mm (0: no grid):"),
                                            preferences_.gridMm, 0, Preferences::kMostGridMm, 3, &accepted);
  if (!accepted) return;
  preferences_.gridMm = mm;
  if (mm > 0) actions_.rulers->setChecked(true);
  showAids();
}

void MainWindow::typeGuide(std::size_t guide) {
  std::vector<Guide> guides = session_.job().guides;
  if (guide >= guides.size()) return;
  bool accepted = false;
  constexpr double kMost = 100'000;
  const double mm =
      QInputDialog::getDouble(this, tr("Guide"), guides[guide].upright ? tr("x, in mm:") : tr("y, in mm:"),
                              guides[guide].at, -kMost, kMost, 4, &accepted);
  if (!accepted) return;
  guides[guide].at = mm;
  setGuides(guides);
}

void MainWindow::openReferences() {
  auto* dialog = findChild<ReferenceDialog*>();
  if (dialog == nullptr) {
    dialog = new ReferenceDialog(session_, this);
    connect(dialog, &ReferenceDialog::marked, bench_, &Bench::setMarks);
    connect(dialog, &ReferenceDialog::lookedAt, this, [this](Point place) {
      constexpr double kSightMm = 20;
      const double scale = std::min(bench_->width(), bench_->height()) * mmPerPixel(session_.shown()) / kSightMm;
      bench_->lookAt(place, std::max(scale, bench_->fittingScale()));
    });
  }
  dialog->show(preferences_.unit);
  dialog->raise();
}

}  // namespace rim::app
