// The Refine step in the window: its offers on the bench, and what is chosen there.

#include <QInputDialog>
#include <QMenu>

#include "app/bench/bench.h"
#include "app/main_window.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/new_faults.h"
#include "app/steps/refine/refine_panel.h"
#include "app/widgets/job_card.h"
#include "app/widgets/notice.h"

namespace rim::app {

std::shared_ptr<const Drawing> MainWindow::outlinesHere(const Job& job) const {
  return card_->chosenStep() <= kMend ? mendedOf(job) : outlinesOf(job);
}

void MainWindow::connectRefining() {
  connectAids();
  connect(card_, &JobCard::chosen, this, &MainWindow::followRefining);
  for (QAction* action :
       {actions_.takeOffer, actions_.takeLikeOffers, actions_.takeOffers, actions_.nextOffer, actions_.previousOffer,
        actions_.nextFault, actions_.chooseAll, actions_.hand.duplicate, actions_.hand.cut}) {
    connect(action, &QAction::triggered, this, [this] {
      if (card_->chosenStep() != kRefine) showStep(kRefine);
    });
  }
  for (QAction* action : actions_.hand.tools->actions() + actions_.hand.ofNodes() + actions_.hand.alike) {
    connect(action, &QAction::triggered, this, [this] {
      if (card_->chosenStep() != kRefine) showStep(kRefine);
    });
  }
  connect(bench_, &Bench::menuWished, this, [this](QPoint onScreen) {
    if (card_->chosenStep() == kRefine) refinePanel_->handwork().menu().popup(onScreen);
  });
  connect(&refinePanel_->handwork(), &Handwork::toolChanged, this, &MainWindow::followRefining);
  refinePanel_->handwork().setNudge(preferences_.nudgeMm);
  connect(actions_.hand.nudgeStep, &QAction::triggered, this, &MainWindow::askForNudge);
  connect(&refinePanel_->handwork(), &Handwork::sizedBy, this, [this](double factor) {
    const Box now = outlinesBoxOf(session_.shown());
    const bool wide = now.width() > now.height();
    setSize(wide ? SizeWish::Of::OutlinesWidth : SizeWish::Of::OutlinesHeight,
            factor * (wide ? now.width() : now.height()));
  });
  connect(&refinePanel_->handwork(), &Handwork::refused, notice_, &Notice::warn);
  connect(refinePanel_, &RefinePanel::refused, notice_, &Notice::warn);
  connect(refinePanel_, &RefinePanel::faultsChanged, this, &MainWindow::showFindings);
  connect(refinePanel_, &RefinePanel::previewed, this, [this](const RepairPreview& preview) {
    if (card_->chosenStep() == kRefine) bench_->setRepairPreview(preview);
  });
  connect(refinePanel_, &RefinePanel::lookedAt, this, [this](Point place) {
    if (card_->chosenStep() != kRefine) return;
    constexpr double kSightMm = 40;
    const double scale = std::min(bench_->width(), bench_->height()) * mmPerPixel(session_.shown()) / kSightMm;
    bench_->lookAt(place, std::max(scale, bench_->fittingScale()));
  });
}

void MainWindow::askForNudge() {
  bool accepted = false;
  const double mm =
      QInputDialog::getDouble(this, tr("Step of the arrow keys"), tr("One step moves by, in mm:"), preferences_.nudgeMm,
                              Preferences::kLeastNudgeMm, Preferences::kMostNudgeMm, 3, &accepted);
  if (!accepted) return;
  preferences_.nudgeMm = mm;
  refinePanel_->handwork().setNudge(mm);
}

/// The sheet that is cut from shows where it says something.
void MainWindow::showStock() {
  const Job& job = session_.job();
  const bool here = card_->chosenStep() == kRefine || card_->chosenStep() == kExport;
  Box stock;
  if (here && job.stock && session_.hasWork()) {
    const Box mm = boxOf(*job.stock);
    stock = {mm.low * (1 / mmPerPixel(session_.shown())), mm.high * (1 / mmPerPixel(session_.shown()))};
  }
  bench_->setStock(stock);
}

/// Outlines are taken hold of in the Refine step; before it they show as they were mended.
void MainWindow::followRefining() {
  const bool here = card_->chosenStep() == kRefine;
  bench_->setTool(here ? &refinePanel_->handwork().tool() : nullptr);
  if (here) bench_->setRepairPreview({});
  showStock();
  showAids();
  if (session_.upToDate()) bench_->setOutlines(outlinesHere(session_.job()));
}

}  // namespace rim::app
