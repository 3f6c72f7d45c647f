#include "app/steps/step_room.h"

#include <algorithm>

#include "app/bench/bench.h"
#include "app/session.h"

namespace rim::app {

StepRoom::StepRoom(const Workplace& at, Step step, const QString& title, const QString& tip)
    : at_(at), step_(step), title_(title), tip_(tip) {
  at_.book.addStep(step, name());
}

std::shared_ptr<const Drawing> StepRoom::outlines(const job::Job& job) const { return job::mendedOf(job); }

void StepRoom::workIn(Step step) {
  now_ = step;
  follow();
}

void StepRoom::leadHere(const QList<QAction*>& actions) {
  for (QAction* action : actions) {
    connect(action, &QAction::triggered, this, [this] {
      if (!isHere()) emit at_.exchange.stepWanted(step_);
    });
  }
}

bool StepRoom::hasOutlines() const {
  return at_.session.upToDate() && !job::outlinesOf(at_.session.job())->outlines.empty();
}

QString StepRoom::needsPicture() { return tr("Open a picture first."); }

QString StepRoom::needsOutlines() const {
  return at_.session.hasWork() ? tr("There are no outlines yet.") : tr("Open a picture or a drawing first.");
}

void StepRoom::lookAt(Point place, double sightMm) {
  const Bench& bench = at_.bench;
  const double scale = std::min(bench.width(), bench.height()) * job::mmPerPixel(at_.session.shown()) / sightMm;
  at_.bench.lookAt(place, std::max(scale, bench.fittingScale()));
}

}  // namespace rim::app
