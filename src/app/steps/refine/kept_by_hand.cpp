#include "app/steps/refine/kept_by_hand.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/widgets/counted.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

std::set<OutlineId> idsOf(const std::vector<OutlineMark>& marks) {
  std::set<OutlineId> ids;
  for (const OutlineMark& mark : marks) ids.insert(mark.id);
  return ids;
}

}  // namespace

KeptByHand::KeptByHand(QWidget* parent) : QWidget(parent) {
  auto* column = partLayout(this);
  text_ = addText(column);
  text_->setObjectName("keptByHand");
  auto* row = new QHBoxLayout;
  column->addLayout(row);
  auto* look = addButton(row, "lookAtKept", tr("Look"), tr("Look at the next of them"));
  connect(look, &QPushButton::clicked, this, &KeptByHand::next);
  auto* keep = addButton(row, "keepKept", tr("That is right"), tr("They stay, and this is not said of them again"));
  connect(keep, &QPushButton::clicked, this, [this] {
    right_.merge(idsOf(kept_));
    show({});
  });
  auto* letGo =
      addButton(row, "letKeptGo", tr("Let them go"), tr("What was made of them by hand goes; undo brings it back"));
  connect(letGo, &QPushButton::clicked, this, [this] { emit letGoWanted(idsOf(kept_)); });
  setVisible(false);
}

void KeptByHand::show(const std::vector<OutlineMark>& kept) {
  kept_.clear();
  for (const OutlineMark& mark : kept) {
    if (!right_.contains(mark.id)) kept_.push_back(mark);
  }
  setVisible(!kept_.empty());
  text_->setText(tr("What is set above made %1 anew; what was made of it by hand was kept.")
                     .arg(counted(kept_.size(), tr("1 outline"), tr("%1 outlines"))));
}

void KeptByHand::next() {
  if (kept_.empty()) return;
  looked_ = (looked_ + 1) % kept_.size();
  emit lookedAt(kept_[looked_].middle);
}

}  // namespace rim::app
