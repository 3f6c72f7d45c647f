#pragma once

#include <QWidget>
#include <functional>

#include "app/preferences.h"
#include "core/refine/edit/chosen.h"
#include "core/refine/step.h"

class QCheckBox;
class QComboBox;
class QDoubleSpinBox;
class QMenu;

namespace rim::app {

class LengthField;

/// Where the chosen outlines lie and how large they are, to be typed, and what is done to them as one: lined up,
/// spaced, turned, mirrored, combined, copied. Works on outlines in mm.
class ArrangeBar : public QWidget {
  Q_OBJECT

 public:
  explicit ArrangeBar(QWidget* parent = nullptr);

  /// The outlines that are chosen, in a drawing of their own, mm.
  void show(Drawing chosen, Unit unit);

 signals:
  /// What becomes of them, mm: each is known by who it is, what is new stands behind the one it came of.
  void arranged(const QString& name, const rim::Drawing& became);
  void refused(const QString& sentence);

 private:
  void buildFields();
  void buildTurn();
  void buildMenu();
  void offerCombining();
  void offerLiningUp();
  /// A line of the menu that does one thing to all.
  void offer(const QString& name, const std::function<Drawing(const Drawing&)>& what);
  /// Copies in the way that a dialog asks for, at first that of `step`.
  void makeCopies(refine::Step step);
  std::optional<double> kept(double extent) const;
  refine::Hold hold() const;
  /// Does one thing to all; what goes wrong is told.
  void doAll(const QString& name, const std::function<Drawing(const Drawing&)>& what);

  Drawing chosen_;
  Unit unit_ = Unit::Millimetre;
  QComboBox* hold_;
  LengthField* x_;
  LengthField* y_;
  LengthField* width_;
  LengthField* height_;
  QDoubleSpinBox* turn_;
  QCheckBox* inProportion_;
  QMenu* menu_;
};

}  // namespace rim::app
