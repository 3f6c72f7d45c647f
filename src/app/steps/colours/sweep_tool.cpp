#include "app/steps/colours/sweep_tool.h"

#include <QPainter>
#include <cmath>

#include "app/look.h"

namespace rim::app {
namespace {

colour::SweepInks::Place pixelAt(Point p) {
  return {static_cast<int>(std::floor(p.x)), static_cast<int>(std::floor(p.y))};
}

Point middleOf(const colour::SweepInks::Place& p) { return {p.x + 0.5, p.y + 0.5}; }

}  // namespace

void SweepTool::set(int radiusPx, bool connected) {
  sweep_.radiusPx = radiusPx;
  sweep_.connected = connected;
  emit changed();
}

void SweepTool::paint(QPainter& painter, const ToolView& view) const {
  const double width = (2 * sweep_.radiusPx + 1) * view.viewport.scale;
  if (!sweep_.way.empty()) {
    QPolygonF way;
    for (const auto& place : sweep_.way) way << view.toScreen(middleOf(place));
    if (byKeys_) way << view.toScreen(cross_);
    if (way.size() == 1) way << way.first();
    QColor colour = look().accent;
    colour.setAlpha(110);
    QPen pen(colour, std::max(3.0, width));
    pen.setCapStyle(Qt::RoundCap);
    pen.setJoinStyle(Qt::RoundJoin);
    painter.setPen(pen);
    painter.drawPolyline(way);
  }
  const QPointF at = view.toScreen(pointer_.value_or(cross_));
  painter.setBrush(Qt::NoBrush);
  for (const auto& [colour, pen] : {std::pair(QColor(Qt::white), 3.0), std::pair(look().accent, 1.5)}) {
    painter.setPen(QPen(colour, pen));
    painter.drawEllipse(at, std::max(4.0, width / 2), std::max(4.0, width / 2));
    painter.drawLine(at - QPointF(3, 0), at + QPointF(3, 0));
    painter.drawLine(at - QPointF(0, 3), at + QPointF(0, 3));
  }
}

void SweepTool::press(Point place, const ToolView&) {
  down_ = true;
  byKeys_ = false;
  sweep_.way = {pixelAt(place)};
  emit changed();
}

void SweepTool::move(Point place, const ToolView&) {
  pointer_ = place;
  if (down_ && (sweep_.way.empty() || !(sweep_.way.back() == pixelAt(place)))) sweep_.way.push_back(pixelAt(place));
  emit changed();
}

void SweepTool::release(Point, const ToolView&) {
  if (!down_) return;
  down_ = false;
  finish();
}

bool SweepTool::nudge(Point step) {
  if (down_) return true;
  pointer_.reset();
  cross_ = cross_ + step;
  emit changed();
  return true;
}

bool SweepTool::chooseNext() {
  if (down_) return true;  // the pointer is sweeping
  sweep_.way.push_back(pixelAt(cross_));
  byKeys_ = !byKeys_;
  if (byKeys_) {
    emit changed();
  } else {
    finish();
  }
  return true;
}

QString SweepTool::chosenText() const {
  const colour::SweepInks::Place at = pixelAt(cross_);
  if (byKeys_) return tr("Sweep to %1, %2 (Space ends it)").arg(at.x).arg(at.y);
  return pointer_ ? QString() : tr("Sweep from %1, %2 (Space begins it)").arg(at.x).arg(at.y);
}

void SweepTool::finish() {
  const colour::SweepInks done = sweep_;
  sweep_.way.clear();
  emit swept(done);
}

}  // namespace rim::app
