#pragma once

#include <QWidget>

#include "core/sketch/shade.h"

namespace rim::app {

/// A solid that is turned by dragging it or by the arrow keys.
class SolidView : public QWidget {
  Q_OBJECT

 public:
  explicit SolidView(QWidget* parent = nullptr);
  void setSolid(sketch::Solid solid);
  const sketch::Sight& sight() const { return sight_; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  QSize sizeHint() const override { return {460, 320}; }

 private:
  void turn(double right, double down);

  sketch::Solid solid_;
  sketch::Sight sight_;
  QPointF pressed_;
};

}  // namespace rim::app
