#pragma once

#include "app/steps/refine/hand/hand_tool.h"
#include "core/refine/edit/brush.h"

namespace rim::app {

/// A brush that is swept over an outline: what lies under it is rebuilt as a corner, or made smooth. It is as large on
/// the screen at every zoom.
class OutlineBrush : public HandTool {
  Q_OBJECT

 public:
  enum class Does { Corner, Smooth };
  OutlineBrush(Does does, QObject* parent) : HandTool(parent), does_(does) {}

  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  QString hint() const override;
  Qt::CursorShape cursor() const override { return Qt::BlankCursor; }
  bool leave() override;

 private:
  std::optional<OutlineId> outlineUnder() const;
  void finish();

  Does does_;
  refine::Sweep sweep_;
  std::optional<Point> pointer_;
  bool down_ = false;
  QString said_;
};

}  // namespace rim::app
