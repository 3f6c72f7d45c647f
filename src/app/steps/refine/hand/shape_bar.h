#pragma once

#include <QWidget>

#include "core/refine/edit/shapes.h"

class QComboBox;
class QDoubleSpinBox;
class QSpinBox;

namespace rim::app {

/// Which shape is drawn, and what it needs to know.
class ShapeBar : public QWidget {
  Q_OBJECT

 public:
  explicit ShapeBar(QWidget* parent = nullptr);
  const refine::ShapeWish& wish() const { return wish_; }

 signals:
  /// Lengths are in mm.
  void wished(const rim::refine::ShapeWish& wish);

 private:
  void take();

  refine::ShapeWish wish_;
  QComboBox* kind_;
  QWidget* cornersRow_;
  QSpinBox* corners_;
  QWidget* roundingRow_;
  QDoubleSpinBox* rounding_;
};

}  // namespace rim::app
