#pragma once

#include <QPointF>
#include <QRectF>
#include <QTransform>

#include "core/geometry/point.h"

namespace rim::app {

/// Which part of the picture is seen, and how large.
///
/// It maps *upright pixels* (core/geometry/point.h: origin at the picture's lower left corner, y
/// up) to *screen* places in the bench (origin at its upper left corner, y down). With scale 2 and
/// origin (100, 500), the upright pixel place (10, 20) is at (120, 460) on the screen.
struct Viewport {
  double scale = 1;  ///< screen pixels per picture pixel, kSmallestScale..kLargestScale
  QPointF origin;    ///< screen place of the picture's lower left corner

  static constexpr double kSmallestScale = 0.005;
  static constexpr double kLargestScale = 200;

  QPointF toScreen(Point p) const { return {origin.x() + p.x * scale, origin.y() - p.y * scale}; }
  Point toPicture(QPointF screen) const {
    return {(screen.x() - origin.x()) / scale, (origin.y() - screen.y()) / scale};
  }
  QTransform transform() const { return {scale, 0, 0, -scale, origin.x(), origin.y()}; }

  /// Larger by `factor`, the picture place under `fixed` staying where it is.
  Viewport zoomedAt(QPointF fixed, double factor) const;
  Viewport movedBy(QPointF screen) const { return {scale, origin + screen}; }

  /// The whole of the box (upright pixels) in the middle of `area`.
  static Viewport fitting(const Box& box, const QRectF& area);
};

}  // namespace rim::app
