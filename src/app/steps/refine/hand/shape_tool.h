#pragma once

#include "app/steps/refine/hand/hand_tool.h"
#include "app/steps/refine/hand/snapping.h"
#include "core/refine/edit/shapes.h"

namespace rim::app {

/// Draws a shape between two places that are dragged or clicked. What is typed meanwhile is its size: one number for a
/// circle's radius, a polygon's or a line's length; two, with a blank or an x between, for width and height.
class ShapeTool : public HandTool {
  Q_OBJECT

 public:
  explicit ShapeTool(const Snapping& snapping, QObject* parent) : HandTool(parent), snapping_(snapping) {}

  /// Its lengths are in mm.
  void setWish(const refine::ShapeWish& wish);

  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  bool takesTyping() const override { return from_.has_value(); }
  bool type(const QString& text, int key) override;
  QString chosenText() const override;
  QString hint() const override;
  Qt::CursorShape cursor() const override { return Qt::CrossCursor; }
  bool leave() override;

 signals:
  /// A new outline, upright px.
  void drawn(const rim::Path& path);

 private:
  /// Whether one length says how large the shape is, else width and height do.
  bool hasOneSize() const;
  /// The second place: the pointer's, or what was typed.
  Point second() const;
  std::optional<Path> shape() const;
  void finish();

  const Snapping& snapping_;
  refine::ShapeWish wish_;
  std::optional<Point> from_;
  Point now_;
  std::optional<refine::Snapped> snap_;
  Point pressed_;  ///< where the shape was begun, as the pointer had it
  bool down_ = false;
  QString typed_;
};

}  // namespace rim::app
