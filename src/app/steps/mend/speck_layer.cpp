#include "app/steps/mend/speck_layer.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/look.h"

namespace rim::app {
namespace {

QPointF placeOf(const Speck& speck, const LayerView& view) {
  return view.at.toScreen(speck.at * (1 / view.mmPerPixel));
}

/// Large enough to be seen and hit, however small the speck.
double radiusOf(const Speck& speck, const LayerView& view) {
  constexpr double kLeastPx = 9;
  constexpr double kRoomPx = 4;
  return std::max(kLeastPx, speck.sizeMm / view.mmPerPixel * view.at.scale + kRoomPx);
}

}  // namespace

void SpeckLayer::set(std::vector<Speck> specks) {
  if (specks == specks_) return;
  specks_ = std::move(specks);
  emit changed();
}

void SpeckLayer::paint(QPainter& painter, const LayerView& view, std::size_t /*part*/) const {
  painter.setRenderHint(QPainter::Antialiasing);
  QColor lit = look().warning;
  constexpr int kSoft = 110;
  lit.setAlpha(kSoft);
  for (const Speck& speck : specks_) {
    const QPointF place = placeOf(speck, view);
    const double radius = radiusOf(speck, view);
    if (!view.visible.adjusted(-radius, -radius, radius, radius).contains(place)) continue;
    painter.setPen(QPen(speck.kept ? look().good : look().warning, speck.kept ? 2.5 : 1));
    painter.setBrush(speck.kept ? QBrush(Qt::NoBrush) : QBrush(lit));
    painter.drawEllipse(place, radius, radius);
  }
}

bool SpeckLayer::press(QPointF screen, const LayerView& view) {
  const auto speck = at(screen, view);
  if (speck) emit pressed(*speck);
  return speck.has_value();
}

std::optional<Qt::CursorShape> SpeckLayer::cursorAt(QPointF screen, const LayerView& view) const {
  return at(screen, view) ? std::optional(Qt::PointingHandCursor) : std::nullopt;
}

std::optional<Speck> SpeckLayer::at(QPointF screen, const LayerView& view) const {
  std::optional<Speck> found;
  double least = 0;
  for (const Speck& speck : specks_) {
    const QPointF off = placeOf(speck, view) - screen;
    const double away = std::hypot(off.x(), off.y());
    if (away > radiusOf(speck, view) || (found && away >= least)) continue;
    found = speck;
    least = away;
  }
  return found;
}

}  // namespace rim::app
