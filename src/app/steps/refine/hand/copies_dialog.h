#pragma once

#include <QDialog>

#include "app/preferences.h"
#include "core/refine/step.h"

namespace rim::app {

/// Asks how copies of the chosen outlines are to stand: in columns and rows, or on a circle.
class CopiesDialog : public QDialog {
  Q_OBJECT

 public:
  /// `step`: an Array or an ArrayRound as it is asked for at first.
  CopiesDialog(refine::Step step, Unit unit, QWidget* parent);

  const refine::Step& step() const { return step_; }

 private:
  refine::Step step_;
};

}  // namespace rim::app
