#pragma once

#include <QString>

class QAction;
class QDialog;
class QDoubleSpinBox;
class QHBoxLayout;
class QLabel;
class QLayout;
class QPushButton;
class QToolButton;
class QVBoxLayout;
class QWidget;

namespace rim::app {

/// The pieces that the step panels at the right are put together from.
QVBoxLayout* panelLayout(QWidget* panel, const QString& title);
/// The layout of a part of a panel, that a widget holds so that it can be hidden; with so much room above and below.
QVBoxLayout* partLayout(QWidget* part, int roomPx = 0);
QLabel* addHeading(QVBoxLayout* layout, const QString& text);
QLabel* addText(QVBoxLayout* layout, const QString& text = {});
/// A button that does what the action does, and follows its name, tooltip and state.
QPushButton* buttonFor(QAction* action);
/// A button of its own, at the end of a row.
QPushButton* addButton(QHBoxLayout* row, const char* objectName, const QString& text, const QString& tip);
/// The last row of a dialog that asks for something: a button that takes it, and Cancel.
QPushButton* addAnswers(QDialog* dialog, QLayout* layout, const QString& text);
/// A narrow button with a sign on it; its name is its tooltip.
QToolButton* signButton(const QString& sign, const QString& name);
/// A field for a number with a unit behind it, which is taken when it is whole.
QDoubleSpinBox* numberField(double low, double high, double step, int decimals, const QString& unit);
/// A name at the left and a control at the right; the name's mnemonic moves to the control. `behind` may stand behind
/// it, with a unit or a value.
void addRow(QVBoxLayout* layout, const QString& name, QWidget* control, const QString& tip, QLabel* behind = nullptr);

}  // namespace rim::app
