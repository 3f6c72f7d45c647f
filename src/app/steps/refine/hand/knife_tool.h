#pragma once

#include "app/steps/refine/hand/hand_tool.h"
#include "app/steps/refine/hand/snapping.h"

namespace rim::app {

/// Cuts outlines in two along a straight line that is drawn over them; with Shift it runs level, upright or at 45
/// degrees.
class KnifeTool : public HandTool {
  Q_OBJECT

 public:
  explicit KnifeTool(const Snapping& snapping, QObject* parent) : HandTool(parent), snapping_(snapping) {}

  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  QString chosenText() const override;
  QString hint() const override;
  Qt::CursorShape cursor() const override { return Qt::CrossCursor; }
  bool leave() override;

 private:
  void finish();

  const Snapping& snapping_;
  std::optional<Point> from_;
  Point now_;
  std::optional<refine::Snapped> snap_;
  Point pressed_;
  bool down_ = false;
  QString said_;
};

}  // namespace rim::app
