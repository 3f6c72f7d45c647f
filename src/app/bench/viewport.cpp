#include "app/bench/viewport.h"

#include <algorithm>

namespace rim::app {

Viewport Viewport::zoomedAt(QPointF fixed, double factor) const {
  const double wanted = std::clamp(scale * factor, kSmallestScale, kLargestScale);
  return {wanted, fixed + (origin - fixed) * (wanted / scale)};
}

Viewport Viewport::fitting(const Box& box, const QRectF& area) {
  if (box.empty() || area.isEmpty()) return {};
  const double across = area.width() / std::max(box.width(), 1e-6);
  const double up = area.height() / std::max(box.height(), 1e-6);
  const double scale = std::clamp(std::min(across, up), kSmallestScale, kLargestScale);
  const Point middle = lerp(box.low, box.high, 0.5);
  return {scale, area.center() + QPointF(-middle.x * scale, middle.y * scale)};
}

}  // namespace rim::app
