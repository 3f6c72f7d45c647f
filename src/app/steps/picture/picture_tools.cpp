#include "app/steps/picture/picture_tools.h"

#include <QPainter>
#include <QPainterPath>
#include <cmath>
#include <numbers>

#include "app/look.h"

namespace rim::app {
namespace {

QPen ringPen() { return {look().accent, 2}; }

/// A handle looks like the ring of the job card: it can be closed on.
/// The one that the keys move is filled.
void paintHandle(QPainter& painter, QPointF place, bool chosen = false) {
  painter.setPen(QPen(Qt::white, 5));
  painter.setBrush(chosen ? QBrush(look().accent) : QBrush(Qt::NoBrush));
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

picture::Crop FrameTool::frame() const {
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
  paintHandle(painter, frame.topLeft(), part_ != Part::LowerRight);
  paintHandle(painter, frame.topRight(), part_ == Part::Whole);
  paintHandle(painter, frame.bottomLeft(), part_ == Part::Whole);
  paintHandle(painter, frame.bottomRight(), part_ != Part::UpperLeft);
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

bool FrameTool::nudge(Point step) {
  if (part_ == Part::Whole) {
    // A frame that meets the picture's edge stops there and keeps its size.
    step.x = std::clamp(step.x, -low_.x, size_.x - high_.x);
    step.y = std::clamp(step.y, -low_.y, size_.y - high_.y);
  }
  if (part_ != Part::LowerRight) low_ = low_ + step;
  if (part_ != Part::UpperLeft) high_ = high_ + step;
  if (part_ == Part::UpperLeft) low_ = {std::min(low_.x, high_.x - 1), std::min(low_.y, high_.y - 1)};
  clamp();
  emit changed();
  return true;
}

bool FrameTool::chooseNext() {
  part_ = static_cast<Part>((static_cast<int>(part_) + 1) % 3);
  emit changed();
  return true;
}

QString FrameTool::chosenText() const {
  const picture::Crop f = frame();
  const QString where = tr("left %1, top %2, %3 × %4 px").arg(f.x).arg(f.y).arg(f.width).arg(f.height);
  if (part_ == Part::UpperLeft) return tr("Upper left corner of the frame: %1").arg(where);
  if (part_ == Part::LowerRight) return tr("Lower right corner of the frame: %1").arg(where);
  return tr("Frame: %1").arg(where);
}

void CornersTool::paint(QPainter& painter, const ToolView& view) const {
  QPolygonF sides;
  for (const Point p : corners_) sides << view.toScreen(p);
  painter.setPen(ringPen());
  painter.setBrush(Qt::NoBrush);
  painter.drawPolygon(sides);
  for (std::size_t i = 0; i < corners_.size(); ++i) paintHandle(painter, view.toScreen(corners_[i]), i == chosen_);
}

void CornersTool::press(Point place, const ToolView& view) {
  const auto nearest = std::min_element(corners_.begin(), corners_.end(),
                                        [place](Point a, Point b) { return distance(a, place) < distance(b, place); });
  if (distance(*nearest, place) >= 2 * view.reach()) return;
  held_ = chosen_ = static_cast<std::size_t>(nearest - corners_.begin());
}

void CornersTool::move(Point place, const ToolView&) {
  if (!held_) return;
  corners_[*held_] = place;
  emit changed();
}

void CornersTool::release(Point, const ToolView&) { held_.reset(); }

bool CornersTool::nudge(Point step) {
  corners_[chosen_] = corners_[chosen_] + step;
  emit changed();
  return true;
}

bool CornersTool::chooseNext() {
  chosen_ = (chosen_ + 1) % corners_.size();
  emit changed();
  return true;
}

QString CornersTool::chosenText() const {
  const QString names[] = {tr("Upper left corner"), tr("Upper right corner"), tr("Lower right corner"),
                           tr("Lower left corner")};
  return tr("%1: x %2, y %3 px")
      .arg(names[chosen_])
      .arg(corners_[chosen_].x, 0, 'f', 1)
      .arg(corners_[chosen_].y, 0, 'f', 1);
}

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
  const picture::BrushStroke done = stroke_;
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
