#include "app/steps/refine/refine_panel.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "app/session.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/handwork_notice.h"
#include "app/steps/refine/layer_list.h"
#include "app/steps/refine/new_faults.h"
#include "app/steps/refine/refine_actions.h"
#include "app/steps/refine/refine_list.h"
#include "app/steps/refine/refine_text.h"
#include "app/steps/refine/simplify_part.h"
#include "app/steps/refine/stock_part.h"
#include "app/widgets/counted.h"
#include "app/widgets/length_field.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

constexpr double kLeastWithinMm = 0.001;
constexpr double kMostWithinMm = 20;
constexpr int kOffer = Qt::UserRole;

/// No higher than it must be, so that the tools below come into sight, but where there is room to spare.
class OfferTree : public QTreeWidget {
 public:
  QSize sizeHint() const override { return {QTreeWidget::sizeHint().width(), minimumHeight()}; }
};

}  // namespace

RefinePanel::RefinePanel(Session& session, const RefineActions& actions, QWidget* parent)
    : QWidget(parent), session_(session), actions_(actions) {
  panelLayout(this, tr("Refine"));
  faults_ = new NewFaults(actions);
  layout()->addWidget(faults_);
  connect(faults_, &NewFaults::changed, this, &RefinePanel::faultsChanged);
  connect(faults_, &NewFaults::lookedAt, this,
          [this](const mend::Finding& fault) { emit lookedAt(fault.at * (1 / job::mmPerPixel(session_.shown()))); });
  buildNotices();
  buildOffers(actions);
  hand_ = new Handwork(session, actions);
  layout()->addWidget(hand_);
  buildSimplify();
  layers_ = new LayerList;
  layout()->addWidget(layers_);
  connect(layers_, &LayerList::refused, this, &RefinePanel::refused);
  connect(layers_, &LayerList::changed, this, [this](const std::vector<refine::Step>& steps, const QString& name) {
    session_.edit(name, {}, [&steps](job::Job& job) { job.refine = steps; });
  });
  buildStock();
  connect(hand_, &Handwork::chosenChanged, this, [this] {
    layers_->setChosen(hand_->chosenMarks());
    simplify_->setChosen(hand_->chosenIds());
    lookForOffers();
  });
  buildList();
}

RefinePanel::~RefinePanel() = default;

void RefinePanel::buildOffers(const RefineActions& actions) {
  auto* column = static_cast<QVBoxLayout*>(layout());
  totals_ = addText(column);
  totals_->setObjectName("offers");
  tree_ = new OfferTree;
  tree_->setObjectName("offerList");
  tree_->setAccessibleName(tr("What is nearly exact"));
  tree_->setHeaderHidden(true);
  tree_->setMinimumHeight(150);
  column->addWidget(tree_, 1);
  connect(tree_, &QTreeWidget::currentItemChanged, this, &RefinePanel::lookAtOffer);
  onlyChosen_ = new QCheckBox(tr("Only of what is chosen on the bench"));
  onlyChosen_->setObjectName("onlyChosen");
  column->addWidget(onlyChosen_);
  connect(onlyChosen_, &QCheckBox::toggled, this, &RefinePanel::lookForOffers);
  buildSizeRow();
  auto* row = new QHBoxLayout;
  row->addWidget(buttonFor(actions.takeOffer));
  row->addWidget(buttonFor(actions.takeLikeOffers));
  column->addLayout(row);
  auto* all = buttonFor(actions.takeOffers);
  all->setProperty("role", "main");
  column->addWidget(all);
  within_ = new LengthField;
  within_->setObjectName("within");
  within_->setRange(kLeastWithinMm, kMostWithinMm);
  connect(within_, &LengthField::refused, this, &RefinePanel::refused);
  connect(within_, &LengthField::entered, this, [this](double mm) {
    withinMm_ = mm;
    show(unit_);
  });
  withinUnit_ = new QLabel;
  addRow(column, tr("No point moves &more than"), within_, tr("What would have to move farther is not offered"),
         withinUnit_);
  connectOffers(actions);
}

void RefinePanel::buildNotices() {
  kept_ = new HandworkNotice({"keptByHand", tr("What is set above made %1 anew; what was made of it by hand was kept."),
                              tr("Let them go"), tr("What was made of them by hand goes; undo brings it back")});
  lost_ = new HandworkNotice(
      {"lostByHand",
       tr("%1 that you deleted, joined or put somewhere by hand cannot be told from others any more, as what is set "
          "above was changed. Look whether any is there again."),
       tr("Forget that"), tr("What was done to them by hand is taken out of the steps; undo brings it back")});
  for (HandworkNotice* notice : {kept_, lost_}) {
    layout()->addWidget(notice);
    connect(notice, &HandworkNotice::lookedAt, this, &RefinePanel::lookedAt);
    connect(notice, &HandworkNotice::letGoWanted, this, [this](const std::set<OutlineId>& outlines) {
      session_.edit(tr("Let handwork go"), {}, [&outlines](job::Job& job) {
        job.refine = refine::withoutHandworkOn(std::move(job.refine), outlines);
      });
    });
  }
}

void RefinePanel::buildSimplify() {
  simplify_ = new SimplifyPart;
  layout()->addWidget(simplify_);
  connect(simplify_, &SimplifyPart::previewed, this, &RefinePanel::previewed);
  connect(simplify_, &SimplifyPart::allWanted, this, [this](const refine::Simplify& step) { add(step); });
  connect(simplify_, &SimplifyPart::made, this,
          [this](const QString& name, const std::vector<refine::ByHand::One>& changes) {
            session_.edit(name, {}, [&changes](job::Job& job) {
              job.refine = refine::withHandwork(std::move(job.refine), changes);
            });
          });
}

void RefinePanel::buildStock() {
  stock_ = new StockPart;
  layout()->addWidget(stock_);
  connect(stock_, &StockPart::refused, this, &RefinePanel::refused);
  connect(stock_, &StockPart::centreWanted, this, &RefinePanel::centreOnStock);
  connect(stock_, &StockPart::wished, this, [this](const std::optional<job::Stock>& stock) {
    session_.edit(tr("Stock"), QStringLiteral("stock"), [&stock](job::Job& job) { job.stock = stock; });
  });
}

/// What is chosen, else everything.
void RefinePanel::centreOnStock() {
  const auto& stock = session_.job().stock;
  if (!stock) return;
  const Box sheet = job::boxOf(*stock);
  const Point middle = lerp(sheet.low, sheet.high, 0.5);
  if (!hand_->chosenMarks().empty()) return hand_->bringChosenTo(middle);
  add(refine::PlaceAt{middle, refine::Hold::Centre});
}

void RefinePanel::buildList() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  addHeading(column, tr("Done, in this order"));
  list_ = new RefineList;
  list_->setObjectName("refineList");
  column->addWidget(list_);
  connect(list_, &RefineList::refused, this, &RefinePanel::refused);
  connect(list_, &RefineList::changed, this,
          [this](const std::vector<refine::Step>& steps, const QString& name, const QString& mergeKey) {
            session_.edit(name, mergeKey, [&steps](job::Job& job) { job.refine = steps; });
          });
  addStep_ = new QPushButton(tr("&Do more"));
  addStep_->setObjectName("addRefine");
  addStep_->setToolTip(tr("Corners, areas, places: what else can be done to the outlines"));
  menu_ = new QMenu(addStep_);
  addStep_->setMenu(menu_);
  connect(menu_, &QMenu::aboutToShow, this, &RefinePanel::fillMenu);
  column->addWidget(addStep_);
  changes_ = addText(column);
  changes_->setObjectName("refineChanges");
}

void RefinePanel::fillMenu() {
  menu_->clear();
  for (const refine::Step& step : refineSteps(job::outlinesBoxOf(session_.shown())))
    menu_->addAction(refineName(step), this, [this, step] { add(step); });
}

void RefinePanel::add(const refine::Step& step) {
  session_.edit(refineName(step), {}, [&step](job::Job& job) { job.refine.push_back(step); });
}

const Offer* RefinePanel::offer() const {
  const QTreeWidgetItem* item = tree_->currentItem();
  if (item == nullptr || !offers_ || !item->data(0, kOffer).isValid()) return nullptr;
  const auto number = static_cast<std::size_t>(item->data(0, kOffer).toULongLong());
  return number < offers_->list.size() ? &offers_->list[number] : nullptr;
}

void RefinePanel::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  show(unit_);
}

void RefinePanel::show(Unit unit) {
  const bool otherUnit = unit != unit_;
  unit_ = unit;
  within_->show(withinMm_, unit);
  withinUnit_->setText(unitName(unit));
  const job::Job& job = session_.job();
  list_->show(job.refine, unit);
  faults_->show(session_.faultsByRefining(), unit);
  const job::Job& shown = session_.shown();
  if (session_.upToDate()) {
    kept_->show(job.keptByHand);
    lost_->show(job.lostByHand);
  }
  hand_->show(unit);
  if (session_.upToDate() && session_.hasWork()) layers_->show(*job::outlinesOf(session_.job()), job.refine);
  const bool there = session_.upToDate() && session_.hasWork();
  simplify_->show(there ? job::outlinesOf(session_.job()) : nullptr, there ? job::mmPerPixel(session_.job()) : 1, unit);
  simplify_->setVisible(session_.hasWork());
  layers_->setVisible(session_.hasWork());
  stock_->setVisible(session_.hasWork());
  if (session_.hasWork()) stock_->show(job.stock, job::outlinesBoxOf(shown), unit);
  double most = 0;
  for (const refine::Change& c : shown.refineChanges) most = std::max(most, c.movedMm);
  changes_->setVisible(!shown.refineChanges.empty());
  changes_->setText(tr("%1 made, none moves a point by more than %2.")
                        .arg(counted(shown.refineChanges.size(), tr("1 change"), tr("%1 changes")),
                             QString::fromStdString(mend::sizeText(most, unit))));
  if (otherUnit && offers_) listOffers();
  lookForOffers();
  showAllowed();
}

/// Looked for while the panel shows, and only when outlines or distance are others.
void RefinePanel::lookForOffers() {
  const job::Job& shown = session_.shown();
  const auto outlines = job::outlinesOf(shown);
  const double k = job::mmPerPixel(shown);
  const auto only = wantedOutlines();
  onlyChosen_->setEnabled(!hand_->chosenIds().empty() || onlyChosen_->isChecked());
  const bool known = outlines == offersOf_ && withinMm_ == offersWithin_ && k == offersAt_ && only == offersOnly_;
  if (!isVisible() || known) return;
  offersOf_ = outlines;
  offersWithin_ = withinMm_;
  offersAt_ = k;
  offersOnly_ = only;
  offers_.reset();
  listOffers();
  if (!outlines) return;
  looking_.request([this, job = shown, within = withinMm_, outlines, only](const std::stop_token& overtaken,
                                                                           const auto&) {
    const auto got = outcomeOf([&] { return std::make_shared<const Offers>(offersFor(job, within, only, overtaken)); });
    if (overtaken.stop_requested()) return;
    QMetaObject::invokeMethod(this, [this, got, outlines, only] {
      if (outlines != offersOf_ || only != offersOnly_) return;
      offers_ = got.result ? got.result : std::make_shared<const Offers>();
      listOffers();
    });
  });
}

void RefinePanel::listOffers() {
  tree_->clear();
  typed_.reset();
  showSize();
  if (!offers_) {
    totals_->setText(session_.hasWork() ? tr("Looking for what is nearly exact…")
                                        : tr("Open a picture or a drawing first."));
    showAllowed();
    return;
  }
  totals_->setText(offers_->list.empty()
                       ? tr("Nothing here is nearly exact without being so.")
                       : tr("Nearly exact: %1.").arg(counted(offers_->list.size(), tr("1 place"), tr("%1 places"))));
  QTreeWidgetItem* group = nullptr;
  for (std::size_t i = 0; i < offers_->list.size(); ++i) {
    const Offer& one = offers_->list[i];
    if (group == nullptr || group->text(0) != one.group) {
      group = new QTreeWidgetItem(tree_);
      group->setText(0, one.group);
      group->setFlags(Qt::ItemIsEnabled);
      group->setExpanded(true);
    }
    auto* item = new QTreeWidgetItem(group);
    const QString size = QString::fromStdString(mend::sizeText(one.movedMm, unit_));
    item->setText(
        0, one.places > 1 ? tr("%1 places, moves up to %2").arg(one.places).arg(size) : tr("moves %1").arg(size));
    item->setData(0, kOffer, static_cast<qulonglong>(i));
  }
  showAllowed();
}

void RefinePanel::showAllowed() {
  const bool any = offers_ && !offers_->list.empty() && session_.upToDate();
  const QString none = tr("Nothing is nearly exact.");
  allow(actions_.takeOffers, any, none);
  allow(actions_.nextOffer, any, none);
  allow(actions_.previousOffer, any, none);
  const bool one = any && offer() != nullptr;
  allow(actions_.takeOffer, one, any ? tr("Choose one of the list first.") : none);
  allow(actions_.takeLikeOffers, one, any ? tr("Choose one of the list first.") : none);
  addStep_->setEnabled(session_.hasWork() && session_.upToDate());
}

QString RefinePanel::stateLine(const Session& session) {
  if (!session.hasWork()) return tr("nothing yet");
  const std::size_t steps = session.job().refine.size();
  if (steps == 0) return tr("as mended");
  QStringList all{counted(steps, tr("1 step"), tr("%1 steps"))};
  const auto& faults = session.faultsByRefining();
  if (faults && !faults->empty()) all += counted(faults->size(), tr("1 fault"), tr("%1 faults"));
  const std::size_t lost = session.job().lostByHand.size();
  if (lost > 0) all += tr("%1 by hand lost").arg(lost);
  return all.join(tr(", "));
}

}  // namespace rim::app
