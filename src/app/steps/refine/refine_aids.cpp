// What helps to place and is never cut: rules, guides, a grid, the step of the arrow keys.

#include <QInputDialog>

#include "app/preferences.h"
#include "app/session.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/snapping.h"
#include "app/steps/refine/refine_room.h"

namespace rim::app {

void RefineRoom::connectAids() {
  actions_.rulers->setChecked(at_.preferences.rulers);
  connect(actions_.rulers, &QAction::toggled, this, [this](bool on) {
    at_.preferences.rulers = on;
    if (on && !isHere()) emit at_.exchange.stepWanted(step());
    showAids();
  });
  connect(actions_.grid, &QAction::triggered, this, &RefineRoom::askForGrid);
  connect(actions_.clearGuides, &QAction::triggered, this, [this] { setGuides({}); });
  connect(&rulers_, &Rulers::guideToBeTyped, this, &RefineRoom::typeGuide);
  connect(&rulers_, &Rulers::guidesChanged, this, [this](std::vector<Guide> guides) {
    const double k = job::mmPerPixel(at_.session.job());
    for (Guide& guide : guides) guide.at *= k;
    setGuides(guides);
  });
}

void RefineRoom::setGuides(const std::vector<Guide>& guides) {
  const std::size_t before = at_.session.job().guides.size();
  const QString name = guides.size() > before   ? tr("Pull a guide")
                       : guides.size() < before ? tr("Remove guides")
                                                : tr("Move a guide");
  at_.session.edit(name, {}, [&guides](job::Job& job) { job.guides = guides; });
}

void RefineRoom::showAids() {
  const job::Job& job = at_.session.job();
  const bool here = isHere() && at_.session.hasWork() && at_.preferences.rulers;
  const double k = at_.session.hasWork() ? job::mmPerPixel(at_.session.upToDate() ? job : at_.session.shown()) : 1;
  std::vector<Guide> guides;
  if (here) {
    for (const Guide& guide : job.guides) guides.push_back({guide.upright, guide.at / k});
  }
  const double grid = here ? at_.preferences.gridMm / k : 0;
  rulers_.setShown(here);
  rulers_.setGuides(guides);
  grid_.set(grid);
  handwork().snapping().setAids(guides, grid);
  actions_.clearGuides->setEnabled(!job.guides.empty());
}

void RefineRoom::askForGrid() {
  bool accepted = false;
  const double mm = QInputDialog::getDouble(&at_.window, tr("Grid"), tr("From line to line, in mm (0: no grid):"),
                                            at_.preferences.gridMm, 0, Preferences::kMostGridMm, 3, &accepted);
  if (!accepted) return;
  at_.preferences.gridMm = mm;
  if (mm > 0) actions_.rulers->setChecked(true);
  showAids();
}

void RefineRoom::askForNudge() {
  bool accepted = false;
  const double mm = QInputDialog::getDouble(&at_.window, tr("Step of the arrow keys"), tr("One step moves by, in mm:"),
                                            at_.preferences.nudgeMm, Preferences::kLeastNudgeMm,
                                            Preferences::kMostNudgeMm, 3, &accepted);
  if (!accepted) return;
  at_.preferences.nudgeMm = mm;
  handwork().setNudge(mm);
}

void RefineRoom::typeGuide(std::size_t guide) {
  std::vector<Guide> guides = at_.session.job().guides;
  if (guide >= guides.size()) return;
  bool accepted = false;
  constexpr double kMost = 100'000;
  const double mm =
      QInputDialog::getDouble(&at_.window, tr("Guide"), guides[guide].upright ? tr("x, in mm:") : tr("y, in mm:"),
                              guides[guide].at, -kMost, kMost, 4, &accepted);
  if (!accepted) return;
  guides[guide].at = mm;
  setGuides(guides);
}

}  // namespace rim::app
