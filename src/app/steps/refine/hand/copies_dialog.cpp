#include "app/steps/refine/hand/copies_dialog.h"

#include <QFormLayout>
#include <QLabel>
#include <QSpinBox>

#include "app/steps/refine/refine_text.h"
#include "app/widgets/length_field.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"

namespace rim::app {

CopiesDialog::CopiesDialog(refine::Step step, Unit unit, QWidget* parent) : QDialog(parent), step_(std::move(step)) {
  setWindowTitle(refineName(step_));
  auto* form = new QFormLayout(this);
  auto* wrong = new QLabel;
  wrong->setObjectName("wrong");
  wrong->setWordWrap(true);
  const auto numbers = refineNumbers(step_);
  for (std::size_t which = 0; which < numbers.size(); ++which) {
    const RefineNumber& number = numbers[which];
    const auto set = [this, which, wrong](double value) {
      step_ = withRefineNumber(step_, which, value);
      wrong->clear();
    };
    if (number.length) {
      auto* field = new LengthField;
      field->setRange(number.low, number.high);
      field->show(number.value, unit);
      connect(field, &LengthField::entered, this, set);
      connect(field, &LengthField::refused, wrong, &QLabel::setText);
      form->addRow(QStringLiteral("%1, %2").arg(number.name, unitName(unit)), field);
    } else {
      auto* field = new QSpinBox;
      field->setRange(static_cast<int>(number.low), static_cast<int>(number.high));
      field->setValue(static_cast<int>(number.value));
      connect(field, &QSpinBox::valueChanged, this, set);
      form->addRow(number.name, field);
    }
  }
  form->addRow(wrong);
  addAnswers(this, form, tr("&Make them"));
}

}  // namespace rim::app
