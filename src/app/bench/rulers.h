#pragma once

#include <QPointF>
#include <QRectF>
#include <optional>
#include <vector>

#include "app/bench/viewport.h"
#include "app/preferences.h"
#include "core/drawing/guide.h"

class QPainter;

namespace rim::app {

/// A rule along the upper and the left side of the bench, in the unit of lengths, and the guides that are pulled out of
/// them: a level one downwards, an upright one to the right. A guide's notch in the rule is its handle; what is
/// brought back into a rule is gone. Guides are upright px here.
class Rulers {
 public:
  static constexpr double kWidth = 20;  ///< screen pixels

  bool shown() const { return shown_; }
  /// Hidden, they take no press; a guide that is held is let go.
  void setShown(bool shown);
  /// What a pixel of the picture measures (> 0), and the unit of the numbers.
  void setMeasure(double mmPerPixel, Unit unit);
  const std::vector<Guide>& guides() const { return guides_; }
  /// Other guides than those that are there let go what is held.
  void setGuides(std::vector<Guide> guides);

  /// Whether a place of the bench belongs to a rule.
  bool covers(QPointF place) const;
  /// The guide whose notch is at a place.
  std::optional<std::size_t> notchAt(QPointF place, const Viewport& viewport) const;

  /// Takes hold of the guide at the place, or pulls a new one.
  void press(QPointF place, const Viewport& viewport);
  /// Moves what is held to the nearest round length; over its rule it would be gone.
  void drag(QPointF place, const Viewport& viewport);
  /// What the guides are when it is let go; none: as they were.
  std::optional<std::vector<Guide>> release();
  bool holds() const { return held_.has_value(); }
  /// What is held stays where it was.
  void letGo() { held_.reset(); }

  /// `pointer`: marked on both rules.
  void paint(QPainter& painter, const QRectF& bench, const Viewport& viewport,
             const std::optional<QPointF>& pointer) const;

 private:
  struct Held {
    Guide guide;
    std::optional<std::size_t> was;  ///< none: it is new
    bool dropped = false;            ///< over a rule: it goes
  };
  double screenPerUnit(const Viewport& viewport) const;
  QPointF onScreen(const Guide& guide, const Viewport& viewport) const;
  void paintRule(QPainter& painter, const QRectF& bench, const Viewport& viewport, bool upright) const;
  void paintGuides(QPainter& painter, const QRectF& bench, const Viewport& viewport) const;

  bool shown_ = false;
  double mmPerPixel_ = 1;
  Unit unit_ = Unit::Millimetre;
  std::vector<Guide> guides_;
  std::optional<Held> held_;
};

/// The distance between the ticks of a rule that have numbers, in its unit: 1, 2 or 5 times a power of ten, at least
/// `leastPx` screen pixels of `screenPerUnit` a unit.
double tickStep(double screenPerUnit, double leastPx);

}  // namespace rim::app
