#include "app/steps/refine/hand/hand_tool.h"

#include <QApplication>
#include <QPainter>
#include <QRegularExpression>
#include <cmath>
#include <limits>

#include "app/bench/outline_layer.h"
#include "app/look.h"
#include "core/geometry/path_place.h"
#include "core/geometry/point_in_polygon.h"

namespace rim::app {

void HandTool::make(const QString& name, const std::vector<refine::ByHand::One>& changes) {
  outlines_.reset();
  emit made(name, changes, {});
}

void HandTool::paintOver(QPainter& painter, const ToolView& view, const std::vector<Path>& paths) {
  const QRectF everything(-1e6, -1e6, 2e6, 2e6);
  if (!paths.empty()) OutlineLayer(paths).paintAsPreview(painter, view.viewport, everything);
}

void HandTool::paintBox(QPainter& painter, const ToolView& view, Point from, Point to) {
  painter.setPen(QPen(look().text, 1, Qt::DashLine));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(QRectF(view.viewport.toScreen(from), view.viewport.toScreen(to)).normalized());
}

bool HandTool::isDrag(Point from, Point to, const ToolView& view) {
  constexpr double kStillPx = 4;
  return distance(from, to) * view.viewport.scale > kStillPx;
}

bool HandTool::adds() { return (QApplication::keyboardModifiers() & Qt::ShiftModifier) != 0; }

bool HandTool::typeInto(QString& typed, const QString& text, int key, const QRegularExpression& allowed) {
  if (key == Qt::Key_Backspace) {
    typed.chop(1);
    return true;
  }
  if (!allowed.match(text).hasMatch()) return false;
  typed += text;
  return true;
}

void HandTool::paintWay(QPainter& painter, const ToolView& view, Point from, Point to, Qt::PenStyle style) {
  for (const auto& [colour, width] : {std::pair(QColor(Qt::white), 4.0), std::pair(look().text, 1.5)}) {
    painter.setPen(QPen(colour, width, style));
    painter.drawLine(view.viewport.toScreen(from), view.viewport.toScreen(to));
  }
}

Point HandTool::nudgeBy(Point step) const { return Point{step.x, -step.y} * (nudgeMm_ / mmPerPixel_); }

std::optional<OutlineId> outlineAt(const Drawing& drawing, Point place, double reach, bool inside) {
  std::optional<OutlineId> best;
  double least = reach;
  for (const Outline& outline : drawing.outlines) {
    Box spot;
    spot.include(place);
    if (outline.path().segments.empty() || apart(boxOf(outline.path()), spot, reach)) continue;
    const double off = nearestOn(outline.path(), place).off;
    if (off > least) continue;
    least = off;
    best = outline.id;
  }
  if (best || !inside) return best;
  double smallest = std::numeric_limits<double>::infinity();
  for (const Outline& outline : drawing.outlines) {
    if (!outline.path().closed || !boxOf(outline.path()).contains(place)) continue;
    const double area = std::abs(signedArea(outline.path()));
    if (area >= smallest || !PointInPolygon(outline.path()).has(place)) continue;
    smallest = area;
    best = outline.id;
  }
  return best;
}

}  // namespace rim::app
