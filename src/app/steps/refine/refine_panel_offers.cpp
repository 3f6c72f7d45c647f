// The part of the Refine panel that takes offers, in the size that is typed for them.

#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>

#include "app/session.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/refine_actions.h"
#include "app/steps/refine/refine_panel.h"
#include "app/widgets/length_field.h"
#include "core/error.h"

namespace rim::app {

/// The size that a shape is to have, which can be typed.
void RefinePanel::buildSizeRow() {
  sizeRow_ = new QWidget;
  sizeRow_->setObjectName("exactSize");
  auto* row = new QHBoxLayout(sizeRow_);
  row->setContentsMargins(0, 0, 0, 0);
  const auto field = [this](const char* name, const QString& tip, bool wide) {
    auto* one = new LengthField;
    one->setObjectName(name);
    one->setToolTip(tip);
    one->setAccessibleName(tip);
    connect(one, &LengthField::refused, this, &RefinePanel::refused);
    connect(one, &LengthField::entered, this, [this, wide](double mm) { typeSize(mm, wide); });
    return one;
  };
  wide_ = field("exactWide",
                tr("How wide it is made, or its diameter; All like this gives it to those of nearly its size"), true);
  high_ = field("exactHigh", tr("How high it is made, square to that"), false);
  times_ = new QLabel(QStringLiteral("×"));
  row->addWidget(new QLabel(tr("Exact size")));
  row->addWidget(wide_);
  row->addWidget(times_);
  row->addWidget(high_);
  sizeRow_->hide();
  layout()->addWidget(sizeRow_);
}

void RefinePanel::connectOffers(const RefineActions& actions) {
  connect(actions.takeOffer, &QAction::triggered, this, [this] { takeOffer(false); });
  connect(actions.takeLikeOffers, &QAction::triggered, this, [this] { takeOffer(true); });
  connect(actions.takeOffers, &QAction::triggered, this, [this] {
    if (!offers_) return;
    session_.edit(tr("Make all exact"), {}, [this](job::Job& job) {
      job.refine.insert(job.refine.end(), offers_->all.begin(), offers_->all.end());
    });
  });
  const auto step = [this](int by) {
    const QTreeWidgetItem* now = tree_->currentItem();
    QTreeWidgetItem* next = now == nullptr ? tree_->topLevelItem(0)
                            : by > 0       ? tree_->itemBelow(now)
                                           : tree_->itemAbove(now);
    while (next != nullptr && !next->data(0, kOffer).isValid())
      next = by > 0 ? tree_->itemBelow(next) : tree_->itemAbove(next);
    if (next != nullptr) tree_->setCurrentItem(next);
  };
  connect(actions.nextOffer, &QAction::triggered, this, [step] { step(1); });
  connect(actions.previousOffer, &QAction::triggered, this, [step] { step(-1); });
}

void RefinePanel::lookAtOffer() {
  typed_.reset();
  showAllowed();
  showSize();
  const Offer* chosen = offer();
  emit previewed(chosen != nullptr ? chosen->preview : RepairPreview{});
  if (chosen != nullptr) emit lookedAt(chosen->at);
}

void RefinePanel::showSize() {
  const Offer* chosen = offer();
  sizeRow_->setVisible(chosen != nullptr && chosen->shape);
  if (chosen == nullptr || !chosen->shape) return;
  const refine::ShapeSize size = typed_.value_or(chosen->shape->size);
  wide_->show(size.wide, unit_);
  high_->show(size.high, unit_);
  times_->setVisible(!size.one);
  high_->setVisible(!size.one);
}

void RefinePanel::typeSize(double mm, bool wide) {
  const Offer* chosen = offer();
  if (chosen == nullptr || !chosen->shape) return;
  refine::ShapeSize size = typed_.value_or(chosen->shape->size);
  (wide ? size.wide : size.high) = mm;
  try {
    const refine::Step step = resized(*chosen->shape, size, 1 / job::mmPerPixel(session_.shown()));
    RepairPreview preview = chosen->preview;
    preview.comes = {std::get<refine::Replace>(step).outlines.front().path};
    typed_ = size;
    emit previewed(preview);
  } catch (const InputError& error) {
    emit refused(tr("This size cannot be: %1").arg(QString::fromUtf8(error.what())));
  }
  showSize();
}

void RefinePanel::takeOffer(bool allAlike) {
  const Offer* chosen = offer();
  if (chosen == nullptr) return;
  if (!typed_) return add(allAlike ? chosen->all : chosen->one);
  const double pxPerMm = 1 / job::mmPerPixel(session_.shown());
  try {
    add(allAlike ? resizedAlike(offers_->list, *chosen, *typed_, pxPerMm) : resized(*chosen->shape, *typed_, pxPerMm));
  } catch (const InputError& error) {
    emit refused(tr("This size cannot be: %1").arg(QString::fromUtf8(error.what())));
  }
}

std::optional<std::set<OutlineId>> RefinePanel::wantedOutlines() const {
  if (!onlyChosen_->isChecked() || hand_->chosenIds().empty()) return {};
  return hand_->chosenIds();
}

}  // namespace rim::app
