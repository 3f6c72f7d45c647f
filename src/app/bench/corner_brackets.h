#pragma once

#include <QPointF>

class QPainter;
class QColor;

namespace rim::app {

/// Four corner brackets round a place on the screen, `halfPx` from it.
void paintBrackets(QPainter& painter, QPointF place, double halfPx, const QColor& colour);

}  // namespace rim::app
