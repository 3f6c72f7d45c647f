#include "app/steps/refine/hand/outline_brush.h"

#include <QPainter>

#include "app/look.h"

namespace rim::app {
namespace {

constexpr double kRadiusOnScreen = 14;

}  // namespace

void OutlineBrush::press(Point place, const ToolView& view) {
  down_ = true;
  said_.clear();
  sweep_ = {{upright(place, view)}, kRadiusOnScreen / view.viewport.scale};
  emit changed();
}

void OutlineBrush::move(Point place, const ToolView& view) {
  pointer_ = upright(place, view);
  constexpr double kShare = 0.25;
  if (down_ && distance(sweep_.places.back(), *pointer_) > kShare * sweep_.radius) sweep_.places.push_back(*pointer_);
  emit changed();
}

void OutlineBrush::release(Point place, const ToolView& view) {
  if (!down_) return;
  move(place, view);
  down_ = false;
  finish();
  sweep_.places.clear();
  emit changed();
}

/// The outline that the sweep came to first.
std::optional<OutlineId> OutlineBrush::outlineUnder() const {
  for (const Point place : sweep_.places) {
    if (const auto outline = outlineAt(*outlines_, place, sweep_.radius, false)) return outline;
  }
  return std::nullopt;
}

void OutlineBrush::finish() {
  const auto outline = outlines_ ? outlineUnder() : std::nullopt;
  if (!outline) {
    said_ = tr("No outline was under the brush.");
    return;
  }
  const Outline& was = outlines_->outlines[*placeOf(*outlines_, *outline)];
  const bool corner = does_ == Does::Corner;
  const auto changed = corner ? refine::corneredUnder(was.path(), sweep_) : refine::smoothedUnder(was.path(), sweep_);
  if (!changed) {
    said_ = tr("The brush left no sides to build from: sweep over less, or zoom in.");
    return;
  }
  said_ = tr("Done; the outline moved by up to %1 mm.").arg(changed->off * mmPerPixel_, 0, 'f', 3);
  make(corner ? tr("Corner brush") : tr("Smooth brush"), {refine::madeByHand(markOf(was), {changed->path})});
}

void OutlineBrush::paint(QPainter& painter, const ToolView& view) const {
  painter.setBrush(Qt::NoBrush);
  if (!sweep_.places.empty()) {
    QPolygonF way;
    for (const Point place : sweep_.places) way << view.viewport.toScreen(place);
    if (way.size() == 1) way << way.first() + QPointF(0.01, 0);
    QColor colour = look().accent;
    colour.setAlpha(80);
    painter.setPen(QPen(colour, 2 * kRadiusOnScreen, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    painter.drawPolyline(way);
  }
  if (!pointer_) return;
  for (const auto& [colour, width] : {std::pair(QColor(Qt::white), 3.5), std::pair(look().accent, 1.5)}) {
    painter.setPen(QPen(colour, width));
    painter.drawEllipse(view.viewport.toScreen(*pointer_), kRadiusOnScreen, kRadiusOnScreen);
  }
}

QString OutlineBrush::hint() const {
  if (!said_.isEmpty() && !down_) return said_;
  return does_ == Does::Corner ? tr("Sweep over a rounded or ragged corner: its sides are led on until they meet.")
                               : tr("Sweep along a shaky stretch: it becomes smooth.");
}

bool OutlineBrush::leave() {
  said_.clear();
  if (!down_) return false;
  down_ = false;
  sweep_.places.clear();
  emit changed();
  return true;
}

}  // namespace rim::app
