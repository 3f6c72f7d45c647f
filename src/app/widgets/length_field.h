#pragma once

#include <QLineEdit>

#include "app/preferences.h"

namespace rim::app {

/// A line to type a length into, with a unit or without. It holds millimetres.
class LengthField : public QLineEdit {
  Q_OBJECT

 public:
  explicit LengthField(QWidget* parent = nullptr);

  /// What may be entered, mm; at first what a drawing's size may be. Below 0 it takes lengths with a minus sign.
  void setRange(double leastMm, double mostMm);

  /// Shows a length; what is being typed at this moment is left alone. `millimetres` < 0: none,
  /// unless such may be entered.
  void show(double millimetres, Unit unit);

 signals:
  /// A length was typed and finished with Return or by leaving the field.
  void entered(double millimetres);
  /// What was typed is no length; the field shows the old one again.
  void refused(const QString& sentence);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void finish();
  void restore();

  double millimetres_ = -1;
  double least_;
  double most_;
  Unit unit_ = Unit::Millimetre;
};

}  // namespace rim::app
