#pragma once

#include "app/steps/refine/hand/hand_tool.h"
#include "app/steps/refine/hand/snapping.h"

namespace rim::app {

/// Measures between two places that are clicked, and tells of what is under the pointer: a segment's length and radius,
/// an outline's length and area.
class MeasureTool : public HandTool {
  Q_OBJECT

 public:
  explicit MeasureTool(const Snapping& snapping, QObject* parent) : HandTool(parent), snapping_(snapping) {}

  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point /*place*/, const ToolView& /*view*/) override {}
  QString chosenText() const override;
  QString hint() const override { return text_; }
  Qt::CursorShape cursor() const override { return Qt::CrossCursor; }
  bool takesTyping() const override { return to_.has_value(); }
  /// What the way between the two places is in truth, mm.
  bool type(const QString& text, int key) override;
  bool leave() override;

 signals:
  /// The drawing shall become so many times as large.
  void sizedBy(double factor);

 private:
  QString underPointer(double reach) const;
  QString between() const;

  const Snapping& snapping_;
  std::optional<Point> from_;
  std::optional<Point> to_;  ///< the second place, once it was clicked
  refine::Snapped now_;
  bool snaps_ = false;
  QString text_;
  QString typed_;
};

}  // namespace rim::app
