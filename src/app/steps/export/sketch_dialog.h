#pragma once

#include <QDialog>

#include "app/errand.h"
#include "app/preferences.h"
#include "core/sketch/solid.h"

class QLabel;
class QPushButton;

namespace rim::app {

class LengthField;
class SolidView;

/// What a CAD program would make of the outlines: which can be extruded, and the solid of a thickness.
class SketchDialog : public QDialog {
  Q_OBJECT

 public:
  /// `drawing` in mm; `name` is that of the file to begin with.
  SketchDialog(Drawing drawing, const QString& name, Unit unit, QWidget* parent = nullptr);
  ~SketchDialog() override;

  /// Whether the solid of the thickness is there.
  bool ready() const { return ready_; }
  /// Writes the solid that is shown; false: it could not be, and the reason shows.
  bool save(const QString& file);

 private:
  void work();
  void tell();
  void askAndSave();

  Drawing drawing_;
  QString name_;
  Unit unit_;
  double thicknessMm_ = 3;
  bool ready_ = false;
  sketch::Sketch sketch_;
  sketch::Solid solid_;
  SolidView* view_;
  LengthField* thickness_;
  QLabel* text_;
  QPushButton* save_;
  Errand working_;
};

}  // namespace rim::app
