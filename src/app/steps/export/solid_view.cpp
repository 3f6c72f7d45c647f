#include "app/steps/export/solid_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <numbers>

#include "app/look.h"

namespace rim::app {

SolidView::SolidView(QWidget* parent) : QWidget(parent) {
  setMinimumSize(320, 220);
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::SizeAllCursor);
  setAccessibleName(tr("The solid"));
  setToolTip(tr("Drag it, or use the arrow keys, to turn it"));
}

void SolidView::setSolid(sketch::Solid solid) {
  solid_ = std::move(solid);
  update();
}

void SolidView::turn(double right, double down) {
  sight_.turn += right;
  sight_.tilt = std::clamp(sight_.tilt + down, 0.0, std::numbers::pi);
  update();
}

void SolidView::mousePressEvent(QMouseEvent* event) { pressed_ = event->position(); }

void SolidView::mouseMoveEvent(QMouseEvent* event) {
  if ((event->buttons() & Qt::LeftButton) == 0) return;
  constexpr double kPerPixel = 0.012;
  const QPointF by = event->position() - pressed_;
  pressed_ = event->position();
  turn(by.x() * kPerPixel, by.y() * kPerPixel);
}

void SolidView::keyPressEvent(QKeyEvent* event) {
  constexpr double kStep = 0.1;
  switch (event->key()) {
    case Qt::Key_Left:
      return turn(-kStep, 0);
    case Qt::Key_Right:
      return turn(kStep, 0);
    case Qt::Key_Up:
      return turn(0, -kStep);
    case Qt::Key_Down:
      return turn(0, kStep);
    default:
      QWidget::keyPressEvent(event);
  }
}

void SolidView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), look().sheet);
  painter.setPen(look().sheetEdge);
  painter.drawRect(rect().adjusted(0, 0, -1, -1));
  if (solid_.triangles.empty()) {
    painter.setPen(look().quiet);
    painter.drawText(rect(), Qt::AlignCenter, tr("Nothing here can be extruded."));
    return;
  }
  const QSize pixels = (QSizeF(size()) * devicePixelRatioF()).toSize();
  const cv::Mat1b light = sketch::shaded(solid_, sight_, {pixels.width(), pixels.height()});
  QImage image(pixels, QImage::Format_ARGB32);
  const QColor full = look().accent.lighter(190);
  for (int row = 0; row < light.rows; ++row) {
    auto* line = reinterpret_cast<QRgb*>(image.scanLine(row));
    for (int column = 0; column < light.cols; ++column) {
      const int value = light(row, column);
      line[column] = value == 0 ? qRgba(0, 0, 0, 0)
                                : qRgb(full.red() * value / 255, full.green() * value / 255, full.blue() * value / 255);
    }
  }
  image.setDevicePixelRatio(devicePixelRatioF());
  painter.drawImage(0, 0, image);
}

}  // namespace rim::app
