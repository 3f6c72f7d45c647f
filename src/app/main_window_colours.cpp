// The Colours step in the window: its actions, its tool on the bench, and what the bench shows of the inks.

#include "app/bench/bench.h"
#include "app/main_window.h"
#include "app/steps/colours/colours_panel.h"
#include "app/widgets/job_card.h"

namespace rim::app {

void MainWindow::connectColours() {
  connect(actions_.severalInks, &QAction::triggered, this, [this](bool on) {
    showStep(kColours);
    coloursPanel_->setSeveralInks(on);
  });
  connect(actions_.mergeLikest, &QAction::triggered, coloursPanel_, &ColoursPanel::mergeLikest);
  connect(actions_.sweep, &QAction::toggled, this, [this](bool on) {
    if (on) showStep(kColours);
    coloursPanel_->setSweeping(on);
  });
  connect(coloursPanel_, &ColoursPanel::toolChanged, bench_, &Bench::setTool);
  connect(coloursPanel_, &ColoursPanel::hovered, bench_, &Bench::lightInk);
  connect(card_, &JobCard::chosen, this, &MainWindow::followStep);
  connect(&session_, &Session::inksFound, this, [this] {
    followStep();
    showMeasures();
    showAllowed();
  });
  connect(coloursPanel_, &ColoursPanel::opensInInksChanged, this, [this](bool on) {
    session_.setOpensInInks(on);
    preferences_.opensInInks = on;
    savePreferences(preferences_);
  });
  coloursPanel_->setOpensInInks(preferences_.opensInInks);
  session_.setOpensInInks(preferences_.opensInInks);
}

/// In the Colours step the bench shows the inks; elsewhere the picture.
void MainWindow::followStep() {
  const bool here = card_->chosenStep() == kColours;
  if (!here) actions_.sweep->setChecked(false);
  bench_->setInks(here && session_.job().colours.on ? session_.job().inks : nullptr);
}

}  // namespace rim::app
