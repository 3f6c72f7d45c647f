#pragma once

#include <QPen>
#include <QString>
#include <utility>
#include <vector>

#include "app/bench/viewport.h"
#include "app/preferences.h"

class QPainter;

namespace rim::app {

/// A length on the scale bar: round in the unit, and as long on the screen as fits.
struct ScaleBar {
  double screenPx = 0;
  QString text;
};

/// The longest round length (1, 2 or 5 times a power of ten) of at most `mostPx` screen pixels.
ScaleBar scaleBarFor(double screenPxPerMm, double mostPx, Unit unit);

/// The largest of 1, 2 and 5 times a power of ten that is at most `most` (> 0).
double roundAtMost(double most);

/// A few words on a plate whose upper left corner is at a place of the screen. Returns where it lies.
QRectF paintWords(QPainter& painter, QPointF corner, const QString& words);
/// Where that plate would lie.
QRectF plateFor(const QPainter& painter, QPointF corner, const QString& words);

/// The legend of strokes and what they stand for, at the lower left of the bench.
void paintLegend(QPainter& painter, const QRectF& bench, const std::vector<std::pair<QPen, QString>>& rows);

/// One line in the legend's place.
void paintHint(QPainter& painter, const QRectF& bench, const QString& text);

/// The rows for outer borders, holes and open outlines, and for lines of a pen where there are any.
std::vector<std::pair<QPen, QString>> outlineLegend(bool withPenLines);

/// The scale bar and, above it, where the pointer is; at the lower right of the bench.
void paintScale(QPainter& painter, const QRectF& bench, const ScaleBar& bar, const QString& pointer);

/// A sentence in the middle of the bench.
void paintSentence(QPainter& painter, const QRectF& bench, const QString& title, const QString& text);

}  // namespace rim::app
