#include "app/steps/mend/mend_panel.h"

#include <QComboBox>
#include <QEvent>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/steps/mend/finding_list.h"
#include "app/steps/mend/mend_room.h"
#include "app/widgets/counted.h"
#include "app/widgets/finding_text.h"
#include "app/widgets/length_field.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

constexpr double kSpeckStepMm = 0.1;
constexpr int kMostSpeckSteps = 100;
constexpr double kLeastGapMm = 0.01;
constexpr double kMostGapMm = 20;

/// Outlines before anything was decided.
Counts countsBefore(const job::Job& job) { return job.tracing ? countsOf(pathsOf(*job.tracing)) : Counts{}; }

}  // namespace

MendPanel::MendPanel(Session& session, const MendActions& actions, QWidget* parent)
    : QWidget(parent), session_(session), actions_(actions) {
  QVBoxLayout* layout = panelLayout(this, tr("Mend"));
  totals_ = addText(layout);
  totals_->setObjectName("totals");
  QFont bold = totals_->font();
  bold.setBold(true);
  totals_->setFont(bold);
  before_ = addText(layout);
  before_->setObjectName("before");
  auto* safe = buttonFor(actions.mendSafe);
  safe->setProperty("role", "main");
  layout->addWidget(safe);
  proposals_ = buttonFor(actions.takeProposals);
  proposals_->installEventFilter(this);
  layout->addWidget(proposals_);
  list_ = new FindingList;
  layout->addWidget(list_, 1);
  buildFinding(actions);
  buildSettings();
  connect(list_, &FindingList::chosen, this, &MendPanel::showFinding);
  connect(actions.mendSafe, &QAction::triggered, this, [this] { decide({mend::MendStep::What::Safe, {}, {}, {}}); });
  connect(actions.takeProposals, &QAction::triggered, this, [this] {
    decide({mend::MendStep::What::Proposals, {}, {}, {}});
  });
  connect(actions.repairThis, &QAction::triggered, this, [this] { decide(mend::MendStep::What::One); });
  connect(actions.repairAll, &QAction::triggered, this, [this] { decide(mend::MendStep::What::Kind); });
  connect(actions.leaveThis, &QAction::triggered, this, [this] { decide(mend::MendStep::What::Leave); });
  connect(actions.nextFinding, &QAction::triggered, list_, [this] { list_->step(1); });
  connect(actions.previousFinding, &QAction::triggered, list_, [this] { list_->step(-1); });
}

void MendPanel::buildFinding(const MendActions& actions) {
  auto* column = static_cast<QVBoxLayout*>(layout());
  sentence_ = addText(column);
  sentence_->setObjectName("sentence");
  sentence_->setMinimumHeight(40);
  sentence_->setAlignment(Qt::AlignTop);
  repair_ = new QComboBox;
  repair_->setObjectName("repair");
  repair_->setAccessibleName(tr("Repair"));
  repair_->setToolTip(tr("What the repair does; the bench shows it before it is done"));
  column->addWidget(repair_);
  connect(repair_, &QComboBox::currentIndexChanged, this, [this] {
    if (const mend::Finding* f = finding()) chosen_[f->kind] = repair_->currentData().toString();
    showAllowed();
    emit findingChanged();
  });
  auto* row = new QHBoxLayout;
  row->addWidget(buttonFor(actions.repairThis));
  repairAll_ = buttonFor(actions.repairAll);
  repairAll_->installEventFilter(this);
  row->addWidget(repairAll_);
  column->addLayout(row);
  auto* second = new QHBoxLayout;
  for (QAction* action : {actions.leaveThis, actions.nextFinding}) second->addWidget(buttonFor(action));
  column->addLayout(second);
}

void MendPanel::buildSettings() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("What counts"));
  gap_ = new LengthField;
  gap_->setObjectName("gap");
  gap_->setRange(kLeastGapMm, kMostGapMm);
  connect(gap_, &LengthField::refused, this, &MendPanel::refused);
  gapUnit_ = new QLabel;
  addRow(column, tr("Ends belong together &within"), gap_, tr("Open ends nearer than this are one gap to be joined"),
         gapUnit_);
  connect(gap_, &LengthField::entered, this,
          [this](double mm) { editSettings(tr("Gap"), "gap", &mend::MendSettings::gapMm, mm); });
  speck_ = new QSlider(Qt::Horizontal);
  speck_->setObjectName("speck");
  speck_->setRange(0, kMostSpeckSteps);
  speckText_ = new QLabel;
  addRow(column, tr("&Specks below"), speck_,
         tr("Closed outlines smaller than this are lit; click one on the bench to keep it"), speckText_);
  constexpr int kTextWidth = 52;  // so that the slider stays where it is
  speckText_->setMinimumWidth(kTextWidth);
  connect(speck_, &QSlider::valueChanged, this,
          [this](int step) { editSettings(tr("Specks"), "speck", &mend::MendSettings::speckMm, step * kSpeckStepMm); });
  connect(speck_, &QSlider::sliderReleased, this, [this] { session_.seal(); });
  sort_ = new QComboBox;
  sort_->setObjectName("sort");
  sort_->addItems({tr("by place"), tr("largest first")});
  addRow(column, tr("S&ort"), sort_, tr("The order of findings of one kind"));
  connect(sort_, &QComboBox::currentIndexChanged, this, [this] {
    listed_.reset();
    show(unit_);
  });
}

void MendPanel::editSettings(const QString& name, const QString& mergeKey, double mend::MendSettings::*which,
                             double value) {
  session_.edit(name, mergeKey, [which, value](job::Job& job) { job.mend.settings.*which = value; });
}

void MendPanel::show(Unit unit) {
  if (unit != unit_) listed_.reset();
  unit_ = unit;
  const job::Job& job = session_.job();
  const QSignalBlocker quietSpeck(speck_);
  gap_->show(job.mend.settings.gapMm, unit);
  gapUnit_->setText(unitName(unit));
  speck_->setValue(static_cast<int>(std::lround(job.mend.settings.speckMm / kSpeckStepMm)));
  speckText_->setText(job.mend.settings.speckMm > 0
                          ? QString::fromStdString(mend::sizeText(job.mend.settings.speckMm, unit))
                          : tr("none"));
  const auto outlines = job::mendedOf(session_.shown());
  const auto& findings = session_.findings();
  if (!session_.hasWork() || !outlines) {
    totals_->setText(session_.hasWork() ? tr("Tracing…") : tr("Open a picture or a drawing first."));
    before_->clear();
  } else {
    const Counts now = countsOf(pathsOf(*outlines));
    totals_->setText(findings ? totalsText(now, openPenLines(*outlines), findings->size()) : tr("Inspecting…"));
    const Counts first = countsBefore(session_.shown());
    before_->setVisible(!job.mend.steps.empty());
    before_->setText(tr("Before: %1, %2 open, %3 nodes. Now: %4 nodes.")
                         .arg(counted(first.outlines, tr("1 outline"), tr("%1 outlines")))
                         .arg(first.open)
                         .arg(first.nodes)
                         .arg(now.nodes));
  }
  if (findings != listed_) {
    // While outlines are inspected anew the list is empty; the place in it is kept.
    if (listed_) lookedAt_ = list_->current();
    listed_ = findings;
    list_->show(findings, job::mendedDrawingOf(session_.shown()), sort_->currentIndex() == 1, unit);
    // After a repair the next one moves up into its place.
    if (lookedAt_ && findings && !findings->empty()) list_->choose(std::min(*lookedAt_, findings->size() - 1));
    showFinding();
  }
  showAllowed();
}

const mend::Finding* MendPanel::finding() const {
  const auto number = list_->current();
  if (!number || !listed_ || *number >= list_->order().size()) return nullptr;
  return &(*listed_)[list_->order()[*number]];
}

std::string MendPanel::repair() const { return repair_->currentData().toString().toStdString(); }

void MendPanel::showFinding() {
  const mend::Finding* f = finding();
  {
    const QSignalBlocker quiet(repair_);
    repair_->clear();
    if (f != nullptr) {
      for (const std::string& name : mend::repairsFor(*f))
        repair_->addItem(repairText(name), QString::fromStdString(name));
    }
    const auto chosen = f == nullptr ? chosen_.end() : chosen_.find(f->kind);
    if (chosen != chosen_.end()) repair_->setCurrentIndex(std::max(0, repair_->findData(chosen->second)));
    if (repair_->count() == 0) repair_->addItem(f == nullptr ? QString() : tr("none; change it where it was drawn"));
    repair_->setEnabled(repair_->count() > 1);
  }
  sentence_->setText(f == nullptr ? QString() : QString::fromStdString(mend::sentenceOf(*f, unit_)));
  showAllowed();
  emit findingChanged();
}

void MendPanel::showAllowed() {
  const mend::Finding* f = finding();
  const bool any = listed_ && !listed_->empty();
  const QString none = tr("There are no findings.");
  const QString choose = any ? tr("Choose a finding first.") : none;
  const bool can = f != nullptr && !repair().empty() && session_.upToDate();
  const QString whyNot = f == nullptr ? choose : tr("There is no repair for this one.");
  allow(actions_.mendSafe, any, none);
  const bool proposed = any && std::any_of(listed_->begin(), listed_->end(),
                                           [](const mend::Finding& one) { return !one.repair.empty(); });
  allow(actions_.takeProposals, proposed, any ? tr("Nothing is proposed: these are for you to decide.") : none);
  allow(actions_.nextFinding, any, none);
  allow(actions_.previousFinding, any, none);
  allow(actions_.repairThis, can, whyNot);
  allow(actions_.repairAll, can && repair() != "nearest", can ? tr("Such ends are joined one by one.") : whyNot);
  allow(actions_.leaveThis, f != nullptr, choose);
}

bool MendPanel::showsAll() const {
  const mend::Finding* f = finding();
  return f != nullptr &&
         (f->kind == mend::FindingKind::StrokePair || (repairAll_->underMouse() && repairAll_->isEnabled()));
}

bool MendPanel::showsProposals() const {
  return finding() != nullptr && proposals_->underMouse() && proposals_->isEnabled();
}

void MendPanel::showNoWay() {
  sentence_->setText(tr("From here no other end can be reached without crossing a line."));
  allow(actions_.repairThis, false, tr("No end can be reached."));
}

bool MendPanel::eventFilter(QObject* watched, QEvent* event) {
  const bool passes = event->type() == QEvent::Enter || event->type() == QEvent::Leave;
  if ((watched == repairAll_ || watched == proposals_) && passes && finding() != nullptr) emit findingChanged();
  return QWidget::eventFilter(watched, event);
}

void MendPanel::toggle(const Speck& speck) {
  mend::MendStep leave{
      mend::MendStep::What::Leave, mend::FindingKind::Speck, speck.at * (1 / job::mmPerPixel(session_.shown())), {}};
  for (const mend::Finding& f : session_.findings() ? *session_.findings() : std::vector<mend::Finding>{}) {
    if (f.kind == mend::FindingKind::Speck && f.outline == speck.outline)
      leave = mend::stepFor(job::mendedDrawingOf(session_.shown()), f, mend::MendStep::What::Leave, {},
                            job::mmPerPixel(session_.shown()));
  }
  session_.edit(speck.kept ? tr("Let a speck go") : tr("Keep a speck"), {}, [&](job::Job& job) {
    if (!speck.kept) {
      job.mend.steps.push_back(leave);
    } else {
      std::erase_if(job.mend.steps, [&leave](const mend::MendStep& step) {
        constexpr double kSamePlace = 1e-6;
        return step.what == leave.what && step.kind == leave.kind && distance(step.at, leave.at) < kSamePlace;
      });
    }
  });
}

void MendPanel::decide(mend::MendStep::What what) {
  const mend::Finding* f = finding();
  if (f == nullptr) return;
  const std::string chosen = what == mend::MendStep::What::Leave ? std::string() : repair();
  if (f->kind == mend::FindingKind::LostDecision) return forget(*f);
  decide(mend::stepFor(job::mendedDrawingOf(session_.shown()), *f, what, chosen, job::mmPerPixel(session_.shown())));
}

/// Takes back the decision that found nothing at this place.
void MendPanel::forget(const mend::Finding& lost) {
  const double k = job::mmPerPixel(session_.shown());
  session_.edit(tr("Forget a decision"), {}, [&](job::Job& job) {
    constexpr double kSamePlaceMm = 1e-6;
    std::vector<mend::MendStep> kept;
    for (std::size_t i = 0; i < job.mend.steps.size(); ++i) {
      const bool isLost = std::find(job.lost.begin(), job.lost.end(), i) != job.lost.end();
      if (!isLost || distance(job.mend.steps[i].at * k, lost.at) > kSamePlaceMm) kept.push_back(job.mend.steps[i]);
    }
    job.mend.steps = std::move(kept);
  });
}

void MendPanel::decide(const mend::MendStep& step) {
  session_.edit(stepName(step), {}, [&step](job::Job& job) { job.mend.steps.push_back(step); });
}

QString MendPanel::stateLine(const Session& session) {
  if (!session.hasWork()) return tr("nothing yet");
  const auto& findings = session.findings();
  if (!findings) return tr("inspecting…");
  return findings->empty() ? tr("nothing to mend") : counted(findings->size(), tr("1 finding"), tr("%1 findings"));
}

}  // namespace rim::app
