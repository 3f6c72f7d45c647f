#include "app/steps/refine/refine_list.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

#include "app/steps/refine/refine_text.h"
#include "app/widgets/length_field.h"

namespace rim::app {
namespace {

QToolButton* smallButton(const QString& sign, const QString& name) {
  auto* button = new QToolButton;
  button->setText(sign);
  button->setToolTip(name);
  button->setAccessibleName(name);
  button->setFixedWidth(26);
  return button;
}

}  // namespace

RefineList::RefineList(QWidget* parent) : QWidget(parent), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(4);
}

void RefineList::show(const std::vector<refine::Step>& steps, Unit unit) {
  if (steps == steps_ && unit == unit_) return;
  // A field that is typed into must stay: rows whose step only changed a number are made anew after the focus left.
  steps_ = steps;
  unit_ = unit;
  for (QWidget* row : rows_) row->deleteLater();
  rows_.clear();
  for (std::size_t i = 0; i < steps_.size(); ++i) {
    rows_.push_back(makeRow(i));
    column_->addWidget(rows_.back());
  }
}

QWidget* RefineList::makeRow(std::size_t index) {
  auto* row = new QWidget;
  auto* rows = new QVBoxLayout(row);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(2);
  auto* line = new QHBoxLayout;
  line->setSpacing(3);
  rows->addLayout(line);
  const QString name = refineName(steps_[index]);
  auto* label = new QLabel(name);
  label->setWordWrap(true);
  line->addWidget(label, 1);
  auto* up = smallButton(QStringLiteral("↑"), tr("Do this earlier: %1").arg(name));
  up->setEnabled(index > 0);
  line->addWidget(up);
  connect(up, &QToolButton::clicked, this, [this, index, name] {
    std::vector<refine::Step> steps = steps_;
    std::swap(steps[index], steps[index - 1]);
    emit changed(steps, tr("Earlier: %1").arg(name), {});
  });
  auto* remove = smallButton(QStringLiteral("×"), tr("Take out: %1").arg(name));
  line->addWidget(remove);
  connect(remove, &QToolButton::clicked, this, [this, index, name] {
    std::vector<refine::Step> steps = steps_;
    steps.erase(steps.begin() + static_cast<std::ptrdiff_t>(index));
    emit changed(steps, tr("Take out: %1").arg(name), {});
  });
  addNumbers(rows, index);
  return row;
}

void RefineList::addNumbers(QVBoxLayout* rows, std::size_t index) {
  const QString name = refineName(steps_[index]);
  const auto numbers = refineNumbers(steps_[index]);
  QHBoxLayout* line = nullptr;
  const auto change = [this, index, name](std::size_t which, double value) {
    std::vector<refine::Step> steps = steps_;
    steps[index] = withRefineNumber(steps[index], which, value);
    emit changed(steps, tr("Adjust: %1").arg(name), QStringLiteral("refine%1.%2").arg(index).arg(which));
  };
  for (std::size_t which = 0; which < numbers.size(); ++which) {
    if (which % 2 == 0) {
      line = new QHBoxLayout;
      line->setContentsMargins(10, 0, 0, 0);
      rows->addLayout(line);
    }
    const RefineNumber& number = numbers[which];
    auto* label = new QLabel(number.name);
    line->addWidget(label);
    const QString spoken = name + ", " + number.name;
    if (number.length) {
      auto* field = new LengthField;
      field->setRange(number.low, number.high);
      field->show(number.value, unit_);
      field->setAccessibleName(spoken);
      field->setFixedWidth(66);
      line->addWidget(field);
      connect(field, &LengthField::entered, this, [change, which](double mm) { change(which, mm); });
      connect(field, &LengthField::refused, this, &RefineList::refused);
    } else {
      auto* field = new QDoubleSpinBox;
      field->setRange(number.low, number.high);
      const bool whole = number.unit.isEmpty() && number.low >= 1;
      field->setDecimals(whole ? 0 : 2);
      field->setValue(number.value);
      field->setSuffix(number.unit);
      field->setKeyboardTracking(false);
      field->setAccessibleName(spoken);
      line->addWidget(field);
      connect(field, &QDoubleSpinBox::valueChanged, this, [change, which](double value) { change(which, value); });
    }
    line->addStretch(1);
  }
  const RefineChoice choice = refineChoice(steps_[index]);
  if (choice.words.isEmpty()) return;
  line = new QHBoxLayout;
  line->setContentsMargins(10, 0, 0, 0);
  rows->addLayout(line);
  auto* box = new QComboBox;
  box->addItems(choice.words);
  box->setCurrentIndex(choice.chosen);
  box->setAccessibleName(name + ", " + choice.name);
  box->setToolTip(choice.name);
  line->addWidget(box, 1);
  connect(box, &QComboBox::activated, this, [this, index, name](int chosen) {
    std::vector<refine::Step> steps = steps_;
    steps[index] = withRefineChoice(steps[index], chosen);
    emit changed(steps, tr("Adjust: %1").arg(name), {});
  });
}

}  // namespace rim::app
