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
  /// What is drawn: a shape between two places, lines from click to click, or an arc through three.
  enum class Way { Shape, Lines, Arc };
  Way way() const { return way_; }

 signals:
  /// Lengths are in mm.
  void wished(const rim::refine::ShapeWish& wish);
  void wayChanged(rim::app::ShapeBar::Way way);

 private:
  void take();

  refine::ShapeWish wish_;
  Way way_ = Way::Shape;
  QComboBox* kind_;
  QWidget* cornersRow_;
  QSpinBox* corners_;
  QWidget* roundingRow_;
  QDoubleSpinBox* rounding_;
};

}  // namespace rim::app
