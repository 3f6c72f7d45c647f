#pragma once

#include "app/steps/refine/hand/hand_tool.h"
#include "app/steps/refine/hand/snapping.h"

namespace rim::app {

/// A tool that goes from one place to another, dragged or by two clicks. Both places are brought to what lies nearby.
class SpanTool : public HandTool {
  Q_OBJECT

 public:
  SpanTool(const Snapping& snapping, QObject* parent) : HandTool(parent), snapping_(snapping) {}

  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  Qt::CursorShape cursor() const override { return Qt::CrossCursor; }
  bool leave() override;

 protected:
  /// The way turned to the nearest of eight directions.
  static Point toEighth(Point way);
  /// The first place is there.
  virtual void begun() {}
  /// Where the tool itself wants the second place, which then is not brought to anything; none: where the pointer is.
  virtual std::optional<Point> ruled(Point /*place*/) const { return std::nullopt; }
  /// The second place is there; lets go of the first when it takes both.
  virtual void finish() = 0;

  std::optional<Point> from_;
  Point now_;
  std::optional<refine::Snapped> snap_;  ///< what `now_` was brought to

 private:
  const Snapping& snapping_;
  Point pressed_;  ///< where it was begun, as the pointer had it
  bool down_ = false;
  bool again_ = false;  ///< the first place was there when it was pressed
};

}  // namespace rim::app
