#include "app/steps/colours/decision_list.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QToolButton>

#include "app/steps/colours/ink_text.h"

namespace rim::app {

DecisionList::DecisionList(QWidget* parent) : QWidget(parent), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(2);
}

void DecisionList::show(const std::vector<colour::InkStep>& steps, const std::vector<colour::Ink>& inks) {
  QStringList names;
  for (const colour::InkStep& step : steps) names << decisionName(step.what, inks);
  if (steps == steps_ && names == names_) return;
  steps_ = steps;
  names_ = names;
  for (QWidget* row : rows_) row->deleteLater();
  rows_.clear();
  for (std::size_t i = 0; i < steps_.size(); ++i) {
    rows_.push_back(makeRow(i, names_[static_cast<int>(i)]));
    column_->addWidget(rows_.back());
  }
}

QWidget* DecisionList::makeRow(std::size_t index, const QString& name) {
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  auto* on = new QCheckBox(QString(name).replace('&', "&&"));
  on->setChecked(steps_[index].on);
  on->setToolTip(tr("Switch this off to see the inks without it"));
  line->addWidget(on, 1);
  connect(on, &QCheckBox::toggled, this, [this, index, name](bool checked) {
    std::vector<colour::InkStep> steps = steps_;
    steps[index].on = checked;
    emit changed(steps, checked ? tr("Switch on: %1").arg(name) : tr("Switch off: %1").arg(name));
  });
  auto* remove = new QToolButton;
  remove->setText(QStringLiteral("×"));
  remove->setFixedWidth(26);
  remove->setToolTip(tr("Remove: %1").arg(name));
  remove->setAccessibleName(remove->toolTip());
  line->addWidget(remove);
  connect(remove, &QToolButton::clicked, this, [this, index, name] {
    std::vector<colour::InkStep> steps = steps_;
    steps.erase(steps.begin() + static_cast<std::ptrdiff_t>(index));
    emit changed(steps, tr("Remove: %1").arg(name));
  });
  return row;
}

}  // namespace rim::app
