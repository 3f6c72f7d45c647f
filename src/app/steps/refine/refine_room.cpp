#include "app/steps/refine/refine_room.h"

#include <QInputDialog>
#include <QMenu>
#include <numeric>

#include "app/actions.h"
#include "app/bench/bench.h"
#include "app/preferences.h"
#include "app/session.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/snapping.h"
#include "app/steps/refine/new_faults.h"
#include "app/steps/refine/refine_panel.h"
#include "app/steps/rooms.h"

namespace rim::app {

RefineRoom::RefineRoom(const Workplace& at)
    : StepRoom(at, Step::Refine, tr("&Refine"), tr("What is nearly exact made exact, and what else is to be done")),
      actions_(at.book, at.actions.paste, this),
      panel_(new RefinePanel(at.session, actions_)) {
  for (BenchLayer* layer : std::initializer_list<BenchLayer*>{&faults_, &grid_, &stock_, &rulers_})
    at_.bench.addLayer(layer);
  leadHere({actions_.takeOffer, actions_.takeLikeOffers, actions_.takeOffers, actions_.nextOffer,
            actions_.previousOffer, actions_.nextFault, actions_.chooseAll, actions_.hand.duplicate,
            actions_.hand.cut});
  leadHere(actions_.hand.tools->actions() + actions_.hand.ofNodes() + actions_.hand.alike);
  connectHandwork();
  connectPanel();
  connectAids();
}

QWidget* RefineRoom::panel() { return panel_; }

Handwork& RefineRoom::handwork() const { return panel_->handwork(); }

void RefineRoom::fillMenu(QMenu& menu) {
  const HandActions& hand = actions_.hand;
  menu.addActions({actions_.takeOffers, actions_.takeOffer, actions_.takeLikeOffers});
  menu.addSeparator();
  menu.addActions({actions_.nextOffer, actions_.previousOffer, actions_.nextFault});
  menu.addSeparator();
  menu.addActions(hand.tools->actions());
  menu.addSeparator();
  menu.addActions({actions_.chooseAll, actions_.deleteChosen, hand.group, hand.ungroup});
  QMenu* alike = menu.addMenu(tr("C&hoose"));
  alike->addActions(hand.alike);
  alike->addSeparator();
  alike->addAction(hand.lasso);
  fillSnaps(*menu.addMenu(tr("Sna&p to")));
  menu.addActions({actions_.rulers, actions_.grid, actions_.clearGuides, at_.actions.references});
  menu.addAction(hand.nudgeStep);
  menu.addMenu(tr("No&des and segments"))->addActions(hand.ofNodes());
}

void RefineRoom::fillSnaps(QMenu& menu) {
  menu.addAction(actions_.hand.snap);
  menu.addSeparator();
  for (std::size_t k = 0; k < refine::kSnaps; ++k) {
    const auto to = static_cast<refine::SnapTo>(k);
    QAction* one = menu.addAction(snapWord(to));
    one->setCheckable(true);
    one->setChecked(true);
    connect(one, &QAction::toggled, this, [this, to](bool on) { handwork().snapping().want(to, on); });
  }
}

QList<QAction*> RefineRoom::forFileMenu() const { return {actions_.hand.exportChosen}; }

QList<QAction*> RefineRoom::forEditMenu() const {
  return {actions_.hand.cut, actions_.hand.copy, actions_.paste, actions_.hand.duplicate};
}

CardLine RefineRoom::cardLine() const { return {RefinePanel::stateLine(at_.session), hasOutlines()}; }

void RefineRoom::show() {
  showAids();
  panel_->show(at_.preferences.unit);
  showStock();
}

std::shared_ptr<const Drawing> RefineRoom::outlines(const job::Job& job) const { return job::outlinesOf(job); }

bool RefineRoom::putToolAway() { return isHere() && !at_.session.busy() && handwork().tool().leave(); }

bool RefineRoom::paste(const QMimeData* content) { return handwork().paste(content); }

/// Outlines are taken hold of in this step.
void RefineRoom::follow() {
  at_.bench.setTool(isHere() ? &handwork().tool() : nullptr);
  faults_.setPreview({});
  showFaults();
  showStock();
  showAids();
}

void RefineRoom::connectHandwork() {
  Handwork& hand = handwork();
  connect(&at_.bench, &Bench::menuWished, this, [this](QPoint onScreen) {
    if (isHere()) handwork().menu().popup(onScreen);
  });
  connect(&hand, &Handwork::toolChanged, this, &RefineRoom::follow);
  hand.setNudge(at_.preferences.nudgeMm);
  connect(actions_.hand.nudgeStep, &QAction::triggered, this, &RefineRoom::askForNudge);
  connect(actions_.hand.exportChosen, &QAction::triggered, this,
          [this] { emit at_.exchange.exportWanted(handwork().chosenIds()); });
  connect(&hand, &Handwork::sizedBy, this, [this](double factor) {
    const Box now = job::outlinesBoxOf(at_.session.shown());
    const bool wide = now.width() > now.height();
    emit at_.exchange.sizeWanted(wide ? job::SizeWish::Of::OutlinesWidth : job::SizeWish::Of::OutlinesHeight,
                                 factor * (wide ? now.width() : now.height()));
  });
  connect(&hand, &Handwork::refused, &at_.exchange, &Exchange::warned);
  connect(&at_.exchange, &Exchange::pieceWanted, this, [this](const QByteArray& svg, Point place) {
    emit at_.exchange.stepWanted(step());
    handwork().putIn(svg, place);
  });
}

void RefineRoom::connectPanel() {
  connect(panel_, &RefinePanel::refused, &at_.exchange, &Exchange::warned);
  connect(panel_, &RefinePanel::faultsChanged, this, &RefineRoom::showFaults);
  connect(panel_, &RefinePanel::previewed, this, [this](const RepairPreview& preview) {
    if (isHere()) faults_.setPreview(preview);
  });
  connect(panel_, &RefinePanel::lookedAt, this, [this](Point place) {
    constexpr double kSightMm = 40;
    if (isHere()) lookAt(place, kSightMm);
  });
  connect(&at_.session, &Session::inspected, this, [this] {
    panel_->show(at_.preferences.unit);
    showFaults();
  });
}

/// What came wrong by refining is tagged while this step is worked in.
void RefineRoom::showFaults() {
  const auto& faults = panel_->newFaults().faults();
  const bool any = isHere() && faults;
  std::vector<std::size_t> all(any ? faults->size() : 0);
  std::iota(all.begin(), all.end(), 0);
  faults_.set(any ? faults : nullptr, std::move(all));
  faults_.setCurrent(any ? panel_->newFaults().current() : std::nullopt);
}

/// The sheet that is cut from shows where it says something: here, and when files are made.
void RefineRoom::showStock() {
  const job::Job& job = at_.session.job();
  const bool here = isHere() || now() == Step::Export;
  Box stock;
  if (here && job.stock && at_.session.hasWork()) {
    const Box mm = boxOf(*job.stock);
    const double k = job::mmPerPixel(at_.session.shown());
    stock = {mm.low * (1 / k), mm.high * (1 / k)};
  }
  stock_.set(stock);
}

}  // namespace rim::app
