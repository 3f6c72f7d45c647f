#include "app/bench/picture_tools.h"

#include <QPainter>
#include <QPainterPath>
#include <cmath>
#include <numbers>

#include "app/look.h"

namespace rim::app {
namespace {

QPen ringPen() { return {look().accent, 2}; }

/// A handle looks like the ring of the job card: it can be closed on.
void paintHandle(QPainter& painter, QPointF place) {
  painter.setPen(QPen(Qt::white, 5));
  painter.setBrush(Qt::NoBrush);
  painter.drawEllipse(place, 6, 6);
  painter.setPen(QPen(look().accent, 2.5));
  painter.drawEllipse(place, 6, 6);
}

}  // namespace

FrameTool::FrameTool(int pictureWidth, int pictureHeight, QObject* parent)
    : BenchTool(parent),
      size_{static_cast<double>(pictureWidth), static_cast<double>(pictureHeight)},
      low_(size_ * 0.1),
      high_(size_ * 0.9) {}

Crop FrameTool::frame() const {
  const int x = static_cast<int>(std::lround(low_.x));
  const int y = static_cast<int>(std::lround(low_.y));
  return {x, y, std::max(1, static_cast<int>(std::lround(high_.x)) - x),
          std::max(1, static_cast<int>(std::lround(high_.y)) - y)};
}

void FrameTool::paint(QPainter& painter, const ToolView& view) const {
  const QRectF frame(view.toScreen(low_), view.toScreen(high_));
  QPainterPath outside;
  outside.addRect(QRectF(view.toScreen({0, 0}), view.toScreen(size_)));
  outside.addRect(frame);
  painter.fillPath(outside, QColor(0, 0, 0, 90));
  painter.setPen(ringPen());
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(frame);
  for (const QPointF corner : {frame.topLeft(), frame.topRight(), frame.bottomLeft(), frame.bottomRight()})
    paintHandle(painter, corner);
}

void FrameTool::press(Point place, const ToolView& view) {
  const double reach = view.reach();
  const bool within =
      place.x > low_.x - reach && place.x < high_.x + reach && place.y > low_.y - reach && place.y < high_.y + reach;
  left_ = within && std::abs(place.x - low_.x) < reach;
  right_ = within && !left_ && std::abs(place.x - high_.x) < reach;
  top_ = within && std::abs(place.y - low_.y) < reach;
  bottom_ = within && !top_ && std::abs(place.y - high_.y) < reach;
  if (!left_ && !right_ && !top_ && !bottom_) {
    if (within) {
      left_ = right_ = top_ = bottom_ = true;
    } else {
      low_ = high_ = place;
      right_ = bottom_ = true;
    }
  }
  last_ = place;
}

void FrameTool::move(Point place, const ToolView&) {
  const Point step = place - last_;
  last_ = place;
  if (left_) low_.x += step.x;
  if (right_) high_.x += step.x;
  if (top_) low_.y += step.y;
  if (bottom_) high_.y += step.y;
  // Pulled past the other side, the side under the pointer is that one.
  if (low_.x > high_.x) {
    std::swap(low_.x, high_.x);
    std::swap(left_, right_);
  }
  if (low_.y > high_.y) {
    std::swap(low_.y, high_.y);
    std::swap(top_, bottom_);
  }
  if (left_ || right_ || top_ || bottom_) emit changed();
}

void FrameTool::release(Point, const ToolView&) {
  left_ = right_ = top_ = bottom_ = false;
  clamp();
  emit changed();
}

void FrameTool::clamp() {
  low_ = {std::clamp(low_.x, 0.0, size_.x - 1), std::clamp(low_.y, 0.0, size_.y - 1)};
  high_ = {std::clamp(high_.x, low_.x + 1, size_.x), std::clamp(high_.y, low_.y + 1, size_.y)};
}

void CornersTool::paint(QPainter& painter, const ToolView& view) const {
  QPolygonF sides;
  for (const Point p : corners_) sides << view.toScreen(p);
  painter.setPen(ringPen());
  painter.setBrush(Qt::NoBrush);
  painter.drawPolygon(sides);
  for (const QPointF corner : sides) paintHandle(painter, corner);
}

void CornersTool::press(Point place, const ToolView& view) {
  const auto nearest = std::min_element(corners_.begin(), corners_.end(),
                                        [place](Point a, Point b) { return distance(a, place) < distance(b, place); });
  if (distance(*nearest, place) < 2 * view.reach()) held_ = static_cast<std::size_t>(nearest - corners_.begin());
}

void CornersTool::move(Point place, const ToolView&) {
  if (!held_) return;
  corners_[*held_] = place;
  emit changed();
}

void CornersTool::release(Point, const ToolView&) { held_.reset(); }

void LevelTool::paint(QPainter& painter, const ToolView& view) const {
  if (!from_) return;
  painter.setPen(QPen(Qt::white, 5));
  painter.drawLine(view.toScreen(*from_), view.toScreen(to_));
  painter.setPen(ringPen());
  painter.drawLine(view.toScreen(*from_), view.toScreen(to_));
  paintHandle(painter, view.toScreen(*from_));
  paintHandle(painter, view.toScreen(to_));
}

void LevelTool::press(Point place, const ToolView&) { from_ = to_ = place; }

void LevelTool::move(Point place, const ToolView&) {
  if (!from_) return;
  to_ = place;
  emit changed();
}

void LevelTool::release(Point place, const ToolView& view) {
  if (!from_) return;
  const Point along = place - *from_;
  from_.reset();
  emit changed();
  if (length(along) < 2 * view.reach()) return;
  // With y down, a line that sinks to the right is levelled by turning counter-clockwise.
  const double degrees = std::atan2(along.y, along.x) * 180 / std::numbers::pi;
  emit drawn(std::remainder(degrees, 90));
}

void BrushTool::set(double diameterPx, bool ink) {
  stroke_.diameterPx = diameterPx;
  stroke_.ink = ink;
  emit changed();
}

void BrushTool::paint(QPainter& painter, const ToolView& view) const {
  const double width = stroke_.diameterPx * view.viewport.scale;
  if (!stroke_.places.empty()) {
    QPen pen(stroke_.ink ? Qt::black : Qt::white, width);
    pen.setCapStyle(Qt::RoundCap);
    pen.setJoinStyle(Qt::RoundJoin);
    painter.setPen(pen);
    QPolygonF sweep;
    for (const Point p : stroke_.places) sweep << view.toScreen(p);
    if (sweep.size() == 1) sweep << sweep.first();
    painter.drawPolyline(sweep);
  }
  if (!pointer_) return;
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(Qt::white, 3));
  painter.drawEllipse(view.toScreen(*pointer_), width / 2, width / 2);
  painter.setPen(QPen(look().accent, 1.5));
  painter.drawEllipse(view.toScreen(*pointer_), width / 2, width / 2);
}

void BrushTool::press(Point place, const ToolView&) {
  down_ = true;
  stroke_.places = {place};
  emit changed();
}

void BrushTool::move(Point place, const ToolView&) {
  pointer_ = place;
  if (down_) stroke_.places.push_back(place);
  emit changed();
}

void BrushTool::release(Point, const ToolView&) {
  if (!down_) return;
  down_ = false;
  const BrushStroke done = stroke_;
  stroke_.places.clear();
  emit swept(done);
}

void PickTool::paint(QPainter& painter, const ToolView& view) const {
  if (pointer_) paintHandle(painter, view.toScreen(*pointer_));
}

void PickTool::press(Point, const ToolView&) {}

void PickTool::move(Point place, const ToolView&) {
  pointer_ = place;
  emit changed();
}

void PickTool::release(Point place, const ToolView&) { emit picked(place); }

}  // namespace rim::app
