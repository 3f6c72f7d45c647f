#include "app/steps/mend/mend_room.h"

#include <QMenu>

#include "app/bench/bench.h"
#include "app/preferences.h"
#include "app/session.h"
#include "app/steps/mend/finding_list.h"
#include "app/steps/mend/mend_panel.h"
#include "app/steps/rooms.h"

namespace rim::app {
namespace {

/// Whether outlines vanish by the repair, and not only change.
bool takesAway(const std::string& repair) {
  return repair == "drop" || repair == "outer" || repair == "inner" || repair == "centre";
}

}  // namespace

MendActions::MendActions(ActionBook& book) {
  const auto add = [&book](const char* name, const char* tip, const char* keys) {
    return book.add(Step::Mend, MendRoom::tr(name), MendRoom::tr(tip), onKey(keys));
  };
  mendSafe = add("&Mend all that is safe", "Repair everything that can be repaired without a visible change", "S");
  takeProposals =
      add("&Take all proposals",
          "Do every repair that is proposed; the bench shows it before, while the pointer is here", "Shift+S");
  nextFinding = add("&Next finding", "Look at the next finding", "E");
  previousFinding = add("&Previous finding", "Look at the finding before", "Shift+E");
  repairThis = add("&Repair this", "Repair the finding that is looked at", "Y");
  repairAll = add("Repair &all like this", "Repair all findings of this kind", "Shift+Y");
  leaveThis = add("&Leave this one", "It stays as it is and is listed no more", "Q");
}

MendRoom::MendRoom(const Workplace& at)
    : StepRoom(at, Step::Mend, tr("&Mend"), tr("Faults of the outlines, and their repairs")),
      actions_(at.book),
      panel_(new MendPanel(at.session, actions_)) {
  at_.bench.addLayer(&specks_);
  at_.bench.addLayer(&findings_);
  connect(&at_.session, &Session::inspected, this, [this] {
    panel_->show(at_.preferences.unit);
    emit at_.exchange.measuresChanged();
    showFindings();
  });
  connect(panel_, &MendPanel::findingChanged, this, &MendRoom::lookAtFinding);
  connect(&findings_, &FindingLayer::pressed, &panel_->list(), &FindingList::choose);
  connect(panel_, &MendPanel::refused, &at_.exchange, &Exchange::warned);
  connect(&specks_, &SpeckLayer::pressed, panel_, &MendPanel::toggle);
  connect(&at_.session, &Session::repairPreviewed, this, &MendRoom::showPreview);
  leadHere({actions_.mendSafe, actions_.takeProposals, actions_.nextFinding, actions_.previousFinding,
            actions_.repairThis, actions_.repairAll, actions_.leaveThis});
}

QWidget* MendRoom::panel() { return panel_; }

void MendRoom::fillMenu(QMenu& menu) {
  menu.addActions({actions_.mendSafe, actions_.takeProposals});
  menu.addSeparator();
  menu.addActions({actions_.nextFinding, actions_.previousFinding});
  menu.addSeparator();
  menu.addActions({actions_.repairThis, actions_.repairAll, actions_.leaveThis});
}

CardLine MendRoom::cardLine() const {
  const auto& findings = at_.session.findings();
  return {MendPanel::stateLine(at_.session), hasOutlines() && findings && findings->empty()};
}

void MendRoom::show() { panel_->show(at_.preferences.unit); }

/// The specks that would go, and those that were kept.
std::vector<Speck> MendRoom::specks() const {
  std::vector<Speck> specks;
  if (!at_.session.findings()) return specks;
  const double k = job::mmPerPixel(at_.session.shown());
  for (const mend::Finding& f : *at_.session.findings()) {
    if (f.kind == mend::FindingKind::Speck) specks.push_back({f.at, f.sizeMm, false, f.outline});
  }
  for (const mend::MendStep& step : at_.session.job().mend.steps) {
    if (step.what == mend::MendStep::What::Leave && step.kind == mend::FindingKind::Speck)
      specks.push_back({step.at * k, 0, true, step.outline});
  }
  return specks;
}

void MendRoom::showFindings() {
  findings_.set(isHere() ? at_.session.findings() : nullptr, panel_->list().order());
  specks_.set(isHere() ? specks() : std::vector<Speck>{});
  findings_.setPreview({});
  if (isHere()) findings_.setCurrent(panel_->list().current());
}

void MendRoom::showPreview(RepairPreview preview) {
  if (!isHere()) return;
  const std::string repair = panel_->repair();
  if (preview.empty() && repair == "nearest" && !panel_->showsProposals()) panel_->showNoWay();
  if (!takesAway(repair) && !panel_->showsProposals()) preview.goes.clear();
  findings_.setPreview(std::move(preview));
}

void MendRoom::lookAtFinding() {
  showFindings();
  const mend::Finding* finding = panel_->finding();
  if (finding == nullptr || !isHere()) return;
  constexpr double kLeastSightMm = 12;
  const double k = job::mmPerPixel(at_.session.shown());
  if (!lookedAt_ || !(*lookedAt_ == finding->at))
    lookAt(finding->at * (1 / k), std::max(kLeastSightMm, 8 * finding->sizeMm));
  lookedAt_ = finding->at;
  if (panel_->showsProposals()) {
    at_.session.previewProposals();
  } else if (!panel_->repair().empty()) {
    at_.session.previewRepair(*finding, panel_->repair(), panel_->showsAll());
  }
}

}  // namespace rim::app
