#pragma once

#include <optional>
#include <vector>

#include "app/bench/bench_layer.h"
#include "core/drawing/guide.h"

namespace rim::app {

/// A rule along the upper and the left side of the bench, in the unit of lengths, and the guides that are pulled out of
/// them: a level one downwards, an upright one to the right. A guide's notch in the rule is its handle; what is
/// brought back into a rule is gone. Guides are upright px here.
class Rulers : public BenchLayer {
  Q_OBJECT

 public:
  static constexpr double kWidth = 20;  ///< screen pixels

  Rulers() : BenchLayer(Level::InFront) {}

  bool shown() const { return shown_; }
  /// Hidden, they take no press; a guide that is held is let go.
  void setShown(bool shown);
  const std::vector<Guide>& guides() const { return guides_; }
  /// Other guides than those that are there let go what is held.
  void setGuides(std::vector<Guide> guides);

  /// Whether a place of the bench belongs to a rule.
  bool covers(QPointF place) const;
  /// The guide whose notch is at a place.
  std::optional<std::size_t> notchAt(QPointF place, const Viewport& viewport) const;

  /// Takes hold of the guide at the place, or pulls a new one.
  bool press(QPointF place, const LayerView& view) override;
  /// The notch of a guide: its place shall be typed.
  bool doublePress(QPointF place, const LayerView& view) override;
  /// Moves what is held to the nearest round length; over its rule it would be gone.
  void drag(QPointF place, const LayerView& view) override;
  void release() override;
  bool holds() const { return held_.has_value(); }
  void letGo() override { held_.reset(); }
  std::optional<Qt::CursorShape> cursorAt(QPointF place, const LayerView& view) const override;

  /// The pointer is marked on both rules.
  void paint(QPainter& painter, const LayerView& view, std::size_t part) const override;
  double border() const override { return shown_ ? kWidth : 0; }

 signals:
  /// By hand, upright px.
  void guidesChanged(const std::vector<rim::Guide>& guides);
  void guideToBeTyped(std::size_t guide);

 private:
  struct Held {
    Guide guide;
    std::optional<std::size_t> was;  ///< none: it is new
    bool dropped = false;            ///< over a rule: it goes
  };
  QPointF onScreen(const Guide& guide, const Viewport& viewport) const;
  /// What the guides are when what is held is let go; none: as they were.
  std::optional<std::vector<Guide>> letGoAs() const;
  void paintNotches(QPainter& painter, const Viewport& viewport) const;
  void paintGuides(QPainter& painter, const LayerView& view) const;

  bool shown_ = false;
  std::vector<Guide> guides_;
  std::optional<Held> held_;
};

/// The distance between the ticks of a rule that have numbers, in its unit: 1, 2 or 5 times a power of ten, at least
/// `leastPx` screen pixels of `screenPerUnit` a unit.
double tickStep(double screenPerUnit, double leastPx);

}  // namespace rim::app
