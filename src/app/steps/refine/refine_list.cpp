#include "app/steps/refine/refine_list.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/steps/refine/refine_text.h"
#include "app/widgets/length_field.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {
RefineList::RefineList(QWidget* parent) : QWidget(parent), column_(new QVBoxLayout(this)) {
  column_->setContentsMargins(0, 0, 0, 0);
  column_->setSpacing(4);
}

void RefineList::show(const std::vector<refine::Step>& steps, Unit unit) {
  // The rows of the steps before the first one that differs stay: undo and redo change the last.
  const auto differs = std::mismatch(
      steps.begin(), steps.end(), steps_.begin(), steps_.end(),
      [](const auto& a, const auto& b) { return a.index() == b.index() && refineName(a) == refineName(b); });
  const auto kept = static_cast<std::size_t>(differs.first - steps.begin());
  steps_ = steps;
  unit_ = unit;
  for (std::size_t i = kept; i < rows_.size(); ++i) rows_[i].widget->deleteLater();
  rows_.resize(std::min(kept, rows_.size()));
  for (std::size_t i = rows_.size(); i < steps_.size(); ++i) makeRow(i);
  // Rows of the same steps stay, so that the field that is typed into does.
  for (std::size_t i = 0; i < steps_.size(); ++i) {
    const auto numbers = refineNumbers(steps_[i]);
    for (std::size_t n = 0; n < numbers.size(); ++n) {
      if (rows_[i].lengths[n] != nullptr) rows_[i].lengths[n]->show(numbers[n].value, unit_);
      if (rows_[i].numbers[n] == nullptr) continue;
      const QSignalBlocker quiet(rows_[i].numbers[n]);
      rows_[i].numbers[n]->setValue(numbers[n].value);
    }
    if (rows_[i].choice != nullptr) rows_[i].choice->setCurrentIndex(refineChoice(steps_[i]).chosen);
  }
}

void RefineList::change(std::size_t index, const refine::Step& step, const QString& mergeKey) {
  std::vector<refine::Step> steps = steps_;
  steps[index] = step;
  emit changed(steps, tr("Adjust: %1").arg(refineName(step)), mergeKey);
}

void RefineList::makeRow(std::size_t index) {
  auto* row = new QWidget;
  rows_.push_back({row, {}, {}, nullptr});
  column_->addWidget(row);
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
  auto* up = signButton(QStringLiteral("↑"), tr("Do this earlier: %1").arg(name));
  up->setEnabled(index > 0);
  line->addWidget(up);
  connect(up, &QToolButton::clicked, this, [this, index, name] {
    std::vector<refine::Step> steps = steps_;
    std::swap(steps[index], steps[index - 1]);
    emit changed(steps, tr("Earlier: %1").arg(name), {});
  });
  auto* remove = signButton(QStringLiteral("×"), tr("Take out: %1").arg(name));
  line->addWidget(remove);
  connect(remove, &QToolButton::clicked, this, [this, index, name] {
    std::vector<refine::Step> steps = steps_;
    steps.erase(steps.begin() + static_cast<std::ptrdiff_t>(index));
    emit changed(steps, tr("Take out: %1").arg(name), {});
  });
  addNumbers(rows, index);
  addChoice(rows, index);
}

void RefineList::addNumbers(QVBoxLayout* rows, std::size_t index) {
  const QString name = refineName(steps_[index]);
  const auto numbers = refineNumbers(steps_[index]);
  QHBoxLayout* line = nullptr;
  const auto set = [this, index](std::size_t which, double value) {
    change(index, withRefineNumber(steps_[index], which, value), QStringLiteral("refine%1.%2").arg(index).arg(which));
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
      field->setAccessibleName(spoken);
      field->setFixedWidth(66);
      line->addWidget(field);
      connect(field, &LengthField::entered, this, [set, which](double mm) { set(which, mm); });
      connect(field, &LengthField::refused, this, &RefineList::refused);
      rows_[index].lengths.push_back(field);
      rows_[index].numbers.push_back(nullptr);
    } else {
      auto* field = new QDoubleSpinBox;
      field->setRange(number.low, number.high);
      const bool whole = number.unit.isEmpty() && number.low >= 1;
      field->setDecimals(whole ? 0 : 2);
      field->setSuffix(number.unit);
      field->setKeyboardTracking(false);
      field->setAccessibleName(spoken);
      field->setValue(number.value);
      line->addWidget(field);
      rows_[index].lengths.push_back(nullptr);
      rows_[index].numbers.push_back(field);
      connect(field, &QDoubleSpinBox::valueChanged, this, [set, which](double value) { set(which, value); });
    }
    line->addStretch(1);
  }
}

void RefineList::addChoice(QVBoxLayout* rows, std::size_t index) {
  const RefineChoice choice = refineChoice(steps_[index]);
  if (choice.words.isEmpty()) return;
  auto* line = new QHBoxLayout;
  line->setContentsMargins(10, 0, 0, 0);
  rows->addLayout(line);
  auto* box = new QComboBox;
  box->addItems(choice.words);
  box->setCurrentIndex(choice.chosen);
  box->setAccessibleName(refineName(steps_[index]) + ", " + choice.name);
  box->setToolTip(choice.name);
  line->addWidget(box, 1);
  rows_[index].choice = box;
  connect(box, &QComboBox::activated, this,
          [this, index](int chosen) { change(index, withRefineChoice(steps_[index], chosen), {}); });
}

}  // namespace rim::app
