// The Mend step and drawings that are opened instead of pictures.

#include <QFileInfo>
#include <QInputDialog>
#include <numeric>

#include "app/bench/bench.h"
#include "app/main_window.h"
#include "app/steps/mend/finding_list.h"
#include "app/steps/mend/mend_panel.h"
#include "app/steps/refine/new_faults.h"
#include "app/steps/refine/refine_panel.h"
#include "app/widgets/job_card.h"
#include "app/widgets/length_text.h"
#include "app/widgets/notice.h"

namespace rim::app {
namespace {

/// Whether outlines vanish by the repair, and not only change.
bool takesAway(const std::string& repair) {
  return repair == "drop" || repair == "outer" || repair == "inner" || repair == "centre";
}

}  // namespace

Box pageOf(const Drawing& drawing) {
  Box page = boxOf(drawing);
  constexpr double kRoom = 0.04;
  const double room = kRoom * std::max(page.width(), page.height());
  page.include(page.low - Point{room, room});
  page.include(page.high + Point{room, room});
  return page;
}

void MainWindow::connectMending() {
  connect(&session_, &Session::inspected, this, [this] {
    mendPanel_->show(preferences_.unit);
    refinePanel_->show(preferences_.unit);
    showMeasures();
    showFindings();
  });
  connect(mendPanel_, &MendPanel::findingChanged, this, &MainWindow::lookAtFinding);
  connect(bench_, &Bench::findingPressed, &mendPanel_->list(), &FindingList::choose);
  connect(mendPanel_, &MendPanel::refused, notice_, &Notice::warn);
  connect(bench_, &Bench::speckPressed, mendPanel_, &MendPanel::toggle);
  connect(&session_, &Session::repairPreviewed, this, [this](RepairPreview preview) {
    const std::string repair = mendPanel_->repair();
    if (preview.empty() && repair == "nearest" && !mendPanel_->showsProposals()) mendPanel_->showNoWay();
    if (!takesAway(repair) && !mendPanel_->showsProposals()) preview.goes.clear();
    bench_->setRepairPreview(std::move(preview));
  });
  connect(card_, &JobCard::chosen, this, &MainWindow::showFindings);
  connect(&session_, &Session::drawingRead, this, &MainWindow::takeDrawing);
  for (QAction* action : {actions_.mendSafe, actions_.takeProposals, actions_.nextFinding, actions_.previousFinding,
                          actions_.repairThis, actions_.repairAll, actions_.leaveThis}) {
    connect(action, &QAction::triggered, this, [this] {
      if (card_->chosenStep() != kMend) showStep(kMend);
    });
  }
}

/// The specks that would go, and those that were kept.
std::vector<Speck> MainWindow::specks() const {
  std::vector<Speck> specks;
  if (!session_.findings()) return specks;
  const double k = mmPerPixel(session_.shown());
  for (const Finding& f : *session_.findings()) {
    if (f.kind == FindingKind::Speck) specks.push_back({f.at, f.sizeMm, false, f.outline});
  }
  for (const MendStep& step : session_.job().mend.steps) {
    if (step.what == MendStep::What::Leave && step.kind == FindingKind::Speck)
      specks.push_back({step.at * k, 0, true, step.outline});
  }
  return specks;
}

/// Findings are tagged while the Mend step is chosen, in the Refine step those that came by refining.
void MainWindow::showFindings() {
  const bool mending = card_->chosenStep() == kMend;
  const NewFaults& broken = refinePanel_->newFaults();
  if (card_->chosenStep() == kRefine && broken.faults()) {
    std::vector<std::size_t> all(broken.faults()->size());
    std::iota(all.begin(), all.end(), 0);
    bench_->setFindings(broken.faults(), std::move(all));
    bench_->setSpecks({});
    bench_->markFinding(broken.current());
    return;
  }
  bench_->setFindings(mending ? session_.findings() : nullptr, mendPanel_->list().order());
  bench_->setSpecks(mending ? specks() : std::vector<Speck>{});
  if (mending) bench_->setCurrentFinding(mendPanel_->list().current());
}

void MainWindow::lookAtFinding() {
  showFindings();
  const Finding* finding = mendPanel_->finding();
  if (finding == nullptr || card_->chosenStep() != kMend) return;
  const double k = mmPerPixel(session_.shown());
  constexpr double kLeastSightMm = 12;
  const double sightPx = std::max(kLeastSightMm, 8 * finding->sizeMm) / k;
  const double scale = std::min(bench_->width(), bench_->height()) / sightPx;
  const double whole = bench_->fittingScale();
  if (!lookedAt_ || !(*lookedAt_ == finding->at)) bench_->lookAt(finding->at * (1 / k), std::max(scale, whole));
  lookedAt_ = finding->at;
  if (mendPanel_->showsProposals()) {
    session_.previewProposals();
  } else if (!mendPanel_->repair().empty()) {
    session_.previewRepair(*finding, mendPanel_->repair(), mendPanel_->showsAll());
  }
}

void MainWindow::takeDrawing(const QStringList& notes, bool unitKnown) {
  bench_->setPage(pageOf(*session_.job().drawing));
  bench_->fit();
  showStep(kMend);
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
