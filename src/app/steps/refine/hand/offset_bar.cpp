#include "app/steps/refine/hand/offset_bar.h"

#include <QCheckBox>
#include <QComboBox>
#include <QVBoxLayout>

#include "app/widgets/panel_parts.h"

namespace rim::app {

OffsetBar::OffsetBar(QWidget* parent) : QWidget(parent) {
  auto* column = partLayout(this);
  joins_ = new QComboBox;
  joins_->setObjectName("offsetJoins");
  // In the order of enum Joins.
  joins_->addItems({tr("round"), tr("mitre"), tr("bevel")});
  addRow(column, tr("C&orners"), joins_, tr("What stands at a corner that opens"));
  instead_ = new QCheckBox(tr("In the place of the outline"));
  instead_->setObjectName("offsetInstead");
  instead_->setToolTip(tr("The outline itself goes; else both stay"));
  column->addWidget(instead_);
  connect(joins_, &QComboBox::currentIndexChanged, this, &OffsetBar::take);
  connect(instead_, &QCheckBox::toggled, this, &OffsetBar::take);
}

void OffsetBar::take() { emit wished(static_cast<refine::Joins>(joins_->currentIndex()), instead_->isChecked()); }

}  // namespace rim::app
