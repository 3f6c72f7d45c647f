#include "app/steps/picture/step_list.h"

#include <QCheckBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QSignalBlocker>
#include <QToolButton>

#include "app/steps/picture/step_text.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
namespace {

bool sameKinds(const std::vector<picture::PreparationStep>& a, const std::vector<picture::PreparationStep>& b) {
  return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                    [](const auto& x, const auto& y) { return x.what.index() == y.what.index(); });
}

}  // namespace

StepList::StepList(QWidget* parent) : QWidget(parent), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(2);
}

void StepList::show(const std::vector<picture::PreparationStep>& steps) {
  const bool same = sameKinds(steps, steps_) && rows_.size() == steps.size();
  steps_ = steps;
  if (!same) rebuild();
  for (std::size_t i = 0; i < steps_.size(); ++i) {
    const QSignalBlocker quietOn(rows_[i].on);
    rows_[i].on->setChecked(steps_[i].on);
    rows_[i].on->setText(stepName(steps_[i].what));
    if (rows_[i].number != nullptr) {
      const QSignalBlocker quiet(rows_[i].number);
      rows_[i].number->setValue(numberOf(steps_[i].what)->value);
      rows_[i].number->setEnabled(steps_[i].on);
    }
    if (rows_[i].crop != nullptr && !rows_[i].crop->isModified())
      rows_[i].crop->setText(cropText(std::get<picture::Crop>(steps_[i].what)));
  }
}

void StepList::rebuild() {
  for (const Row& row : rows_) row.widget->deleteLater();
  rows_.clear();
  for (std::size_t i = 0; i < steps_.size(); ++i) {
    rows_.push_back(makeRow(i));
    column_->addWidget(rows_.back().widget);
  }
}

StepList::Row StepList::makeRow(std::size_t index) {
  Row row;
  row.widget = new QWidget;
  auto* line = new QHBoxLayout(row.widget);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(3);
  row.on = new QCheckBox;
  row.on->setToolTip(tr("Switch this off to see the picture without it"));
  line->addWidget(row.on, 1);
  connect(row.on, &QCheckBox::toggled, this, [this, index](bool on) {
    std::vector<picture::PreparationStep> steps = steps_;
    steps[index].on = on;
    emit changed(steps,
                 on ? tr("Switch on: %1").arg(stepName(steps[index].what))
                    : tr("Switch off: %1").arg(stepName(steps[index].what)),
                 {});
  });
  const QString name = stepName(steps_[index].what);
  if (const auto number = numberOf(steps_[index].what)) {
    row.number = new QDoubleSpinBox;
    row.number->setRange(number->low, number->high);
    row.number->setSingleStep(number->step);
    row.number->setDecimals(number->decimals);
    if (!number->unit.isEmpty()) row.number->setSuffix(" " + number->unit);
    row.number->setSpecialValueText(number->zeroMeans);
    row.number->setKeyboardTracking(false);
    row.number->setFixedWidth(98);
    row.number->setAccessibleName(name);
    line->addWidget(row.number);
    connect(row.number, &QDoubleSpinBox::valueChanged, this, [this, index](double value) {
      update(index, withNumber(steps_[index].what, value), QStringLiteral("step%1").arg(index));
    });
  }
  if (std::holds_alternative<picture::Crop>(steps_[index].what)) {
    row.crop = new QLineEdit;
    row.crop->setFixedWidth(124);
    row.crop->setAccessibleName(tr("Crop: left, top, width, height in px"));
    row.crop->setToolTip(tr("Left, top, width and height in px, from the upper left corner"));
    line->addWidget(row.crop);
    connect(row.crop, &QLineEdit::editingFinished, this, [this, index, field = row.crop] { cropTyped(index, field); });
  }
  auto* up = signButton(QStringLiteral("↑"), tr("Do this earlier: %1").arg(name));
  up->setEnabled(index > 0);
  line->addWidget(up);
  connect(up, &QToolButton::clicked, this, [this, index] {
    std::vector<picture::PreparationStep> steps = steps_;
    std::swap(steps[index], steps[index - 1]);
    emit changed(steps, tr("Move: %1").arg(stepName(steps[index - 1].what)), {});
  });
  auto* remove = signButton(QStringLiteral("×"), tr("Remove: %1").arg(name));
  line->addWidget(remove);
  connect(remove, &QToolButton::clicked, this, [this, index] {
    std::vector<picture::PreparationStep> steps = steps_;
    const QString gone = stepName(steps[index].what);
    steps.erase(steps.begin() + static_cast<std::ptrdiff_t>(index));
    emit changed(steps, tr("Remove: %1").arg(gone), {});
  });
  return row;
}

void StepList::update(std::size_t index, const picture::Preparation& what, const QString& mergeKey) {
  std::vector<picture::PreparationStep> steps = steps_;
  steps[index].what = what;
  emit changed(steps, tr("Adjust: %1").arg(stepName(what)), mergeKey);
}

void StepList::cropTyped(std::size_t index, QLineEdit* field) {
  if (!field->isModified()) return;
  field->setModified(false);
  const auto crop = cropFrom(field->text());
  field->setText(cropText(std::get<picture::Crop>(steps_[index].what)));
  if (crop) {
    update(index, *crop, {});
  } else {
    emit refused(tr("A crop is four whole numbers: left, top, width, height, such as 10,20,300,200."));
  }
}

}  // namespace rim::app
