#include "app/bench/speck_layer.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/look.h"

namespace rim::app {
namespace {

QPointF placeOf(const Speck& speck, const Viewport& viewport, double mmPerPixel) {
  return viewport.toScreen(speck.at * (1 / mmPerPixel));
}

/// Large enough to be seen and hit, however small the speck.
double radiusOf(const Speck& speck, const Viewport& viewport, double mmPerPixel) {
  constexpr double kLeastPx = 9;
  constexpr double kRoomPx = 4;
  return std::max(kLeastPx, speck.sizeMm / mmPerPixel * viewport.scale + kRoomPx);
}

}  // namespace

void SpeckLayer::paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, double mmPerPixel) const {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  QColor lit = look().warning;
  constexpr int kSoft = 110;
  lit.setAlpha(kSoft);
  for (const Speck& speck : specks_) {
    const QPointF place = placeOf(speck, viewport, mmPerPixel);
    const double radius = radiusOf(speck, viewport, mmPerPixel);
    if (!visible.adjusted(-radius, -radius, radius, radius).contains(place)) continue;
    painter.setPen(QPen(speck.kept ? look().good : look().warning, speck.kept ? 2.5 : 1));
    painter.setBrush(speck.kept ? QBrush(Qt::NoBrush) : QBrush(lit));
    painter.drawEllipse(place, radius, radius);
  }
  painter.restore();
}

std::optional<Speck> SpeckLayer::at(QPointF screen, const Viewport& viewport, double mmPerPixel) const {
  std::optional<Speck> found;
  double least = 0;
  for (const Speck& speck : specks_) {
    const QPointF off = placeOf(speck, viewport, mmPerPixel) - screen;
    const double away = std::hypot(off.x(), off.y());
    if (away > radiusOf(speck, viewport, mmPerPixel) || (found && away >= least)) continue;
    found = speck;
    least = away;
  }
  return found;
}

}  // namespace rim::app
