#pragma once

#include <optional>
#include <vector>

#include "app/bench/viewport.h"
#include "core/drawing/outline.h"

class QPainter;

namespace rim::app {

/// A speck that goes when specks are dropped, or one that is kept.
struct Speck {
  Point at;           ///< a place on it, mm
  double sizeMm = 0;  ///< its larger side
  bool kept = false;
  OutlineId outline = OutlineId::None;

  friend bool operator==(const Speck&, const Speck&) = default;
};

/// Specks on the bench: lit discs round those that would go, rings round those that are kept.
class SpeckLayer {
 public:
  void set(std::vector<Speck> specks) { specks_ = std::move(specks); }
  void paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, double mmPerPixel) const;

  /// The speck under a place on the screen.
  std::optional<Speck> at(QPointF screen, const Viewport& viewport, double mmPerPixel) const;

 private:
  std::vector<Speck> specks_;
};

}  // namespace rim::app
