#pragma once

#include <QObject>
#include <QPen>
#include <QRectF>
#include <optional>
#include <utility>
#include <vector>

#include "app/bench/viewport.h"
#include "app/preferences.h"

class QPainter;

namespace rim::app {

/// What a layer is painted for.
struct LayerView {
  Viewport at;
  QRectF visible;  ///< screen pixels; may reach beyond the bench
  double mmPerPixel = 1;
  Unit unit = Unit::Millimetre;
  std::optional<QPointF> pointer;  ///< where it is on the bench
};

/// Something that lies on the bench with the picture and its outlines: a room of the window owns it, says what it
/// shows, and hears from it what is pressed. Places are upright px.
class BenchLayer : public QObject {
  Q_OBJECT

 public:
  /// Where it lies, from below to above; those of one level lie in the order in which they came to the bench.
  enum class Level {
    UnderOutlines,
    OverOutlines,
    OnSheet,  ///< over the sheet's edge; there also while the picture is looked at alone
    InFront,  ///< over the tool; painted whenever the pointer moves
  };

  explicit BenchLayer(Level level, QObject* parent = nullptr) : QObject(parent), level_(level) {}

  Level level() const { return level_; }

  /// One of its parts, none of which takes long.
  virtual void paint(QPainter& painter, const LayerView& view, std::size_t part) const = 0;
  virtual std::size_t parts() const { return 1; }
  /// Lines and curves in all, as a measure of what painting costs.
  virtual std::size_t elements() const { return 0; }

  /// What shall be in sight when all is shown; empty: nothing.
  virtual Box extent() const { return {}; }
  /// The pens with what they stand for, in place of the outlines' own legend; empty: that stays.
  virtual std::vector<std::pair<QPen, QString>> legend() const { return {}; }
  /// Screen pixels that it covers along the left and the upper side.
  virtual double border() const { return 0; }

  /// Whether the layer takes the press; what follows until the release is its own then. Layers in front are asked
  /// before the tool, the others where there is none.
  virtual bool press(QPointF /*screen*/, const LayerView& /*view*/) { return false; }
  virtual bool doublePress(QPointF /*screen*/, const LayerView& /*view*/) { return false; }
  virtual void drag(QPointF /*screen*/, const LayerView& /*view*/) {}
  virtual void release() {}
  /// What is held stays where it was.
  virtual void letGo() {}
  /// The pointer over it; none: nothing of it is there.
  virtual std::optional<Qt::CursorShape> cursorAt(QPointF /*screen*/, const LayerView& /*view*/) const { return {}; }

 signals:
  void changed();  ///< it is to be painted anew

 private:
  Level level_;
};

}  // namespace rim::app
