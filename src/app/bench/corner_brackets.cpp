#include "app/bench/corner_brackets.h"

#include <QPainter>
#include <QPainterPath>

namespace rim::app {

void paintBrackets(QPainter& painter, QPointF place, double halfPx, const QColor& colour) {
  const double arm = halfPx * 0.4;
  QPainterPath brackets;
  for (const double sx : {-1.0, 1.0}) {
    for (const double sy : {-1.0, 1.0}) {
      const QPointF corner = place + QPointF(sx * halfPx, sy * halfPx);
      brackets.moveTo(corner - QPointF(sx * arm, 0));
      brackets.lineTo(corner);
      brackets.lineTo(corner - QPointF(0, sy * arm));
    }
  }
  painter.strokePath(brackets, QPen(QColor(255, 255, 255, 230), 5));
  painter.strokePath(brackets, QPen(colour, 2));
}

}  // namespace rim::app
