#include "app/widgets/panel_parts.h"

#include <QAction>
#include <QDialog>
#include <QDialogButtonBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

namespace rim::app {

QVBoxLayout* panelLayout(QWidget* panel, const QString& title) {
  auto* layout = new QVBoxLayout(panel);
  layout->setContentsMargins(18, 14, 18, 16);
  layout->setSpacing(8);
  auto* label = new QLabel(title);
  label->setProperty("role", "title");
  layout->addWidget(label);
  layout->addSpacing(4);
  return layout;
}

QVBoxLayout* partLayout(QWidget* part, int roomPx) {
  auto* layout = new QVBoxLayout(part);
  layout->setContentsMargins(0, roomPx, 0, roomPx);
  layout->setSpacing(6);
  return layout;
}

QLabel* addHeading(QVBoxLayout* layout, const QString& text) {
  auto* label = new QLabel(text);
  label->setProperty("role", "heading");
  layout->addSpacing(6);
  layout->addWidget(label);
  return label;
}

QLabel* addText(QVBoxLayout* layout, const QString& text) {
  auto* label = new QLabel(text);
  label->setProperty("role", "quiet");
  label->setTextFormat(Qt::PlainText);
  label->setWordWrap(true);
  layout->addWidget(label);
  return label;
}

QPushButton* buttonFor(QAction* action) {
  auto* button = new QPushButton(action->text());
  button->setCheckable(action->isCheckable());
  button->setToolTip(action->toolTip());
  button->setEnabled(action->isEnabled());
  QObject::connect(button, &QPushButton::clicked, action, &QAction::trigger);
  QObject::connect(action, &QAction::changed, button, [button, action] {
    button->setEnabled(action->isEnabled());
    button->setChecked(action->isChecked());
    button->setToolTip(action->toolTip());
  });
  return button;
}

QPushButton* addButton(QHBoxLayout* row, const char* objectName, const QString& text, const QString& tip) {
  auto* button = new QPushButton(text);
  button->setObjectName(objectName);
  button->setToolTip(tip);
  row->addWidget(button);
  return button;
}

QPushButton* addAnswers(QDialog* dialog, QLayout* layout, const QString& text) {
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
  QPushButton* take = buttons->addButton(text, QDialogButtonBox::AcceptRole);
  take->setProperty("role", "main");
  take->setDefault(true);
  QObject::connect(buttons, &QDialogButtonBox::accepted, dialog, &QDialog::accept);
  QObject::connect(buttons, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
  layout->addWidget(buttons);
  return take;
}

QToolButton* signButton(const QString& sign, const QString& name) {
  auto* button = new QToolButton;
  button->setText(sign);
  button->setToolTip(name);
  button->setAccessibleName(name);
  constexpr int kNarrowPx = 26;
  button->setFixedWidth(kNarrowPx);
  return button;
}

QDoubleSpinBox* numberField(double low, double high, double step, int decimals, const QString& unit) {
  auto* field = new QDoubleSpinBox;
  field->setRange(low, high);
  field->setSingleStep(step);
  field->setDecimals(decimals);
  field->setSuffix(" " + unit);
  field->setKeyboardTracking(false);
  field->setFixedWidth(110);
  return field;
}

void addRow(QVBoxLayout* layout, const QString& name, QWidget* control, const QString& tip, QLabel* behind) {
  auto* row = new QHBoxLayout;
  auto* label = new QLabel(name);
  label->setBuddy(control);
  label->setToolTip(tip);
  control->setToolTip(tip);
  control->setAccessibleName(QString(name).remove('&'));
  row->addWidget(label);
  row->addStretch(1);
  row->addWidget(control);
  if (behind != nullptr) row->addWidget(behind);
  layout->addLayout(row);
}

}  // namespace rim::app
