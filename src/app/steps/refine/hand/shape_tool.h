#pragma once

#include "app/steps/refine/hand/span_tool.h"
#include "core/refine/edit/shapes.h"

namespace rim::app {

/// Draws a shape between two places that are dragged or clicked. What is typed meanwhile is its size: one number for a
/// circle's radius, a polygon's or a line's length; two, with a blank or an x between, for width and height.
class ShapeTool : public SpanTool {
  Q_OBJECT

 public:
  using SpanTool::SpanTool;

  /// Its lengths are in mm.
  void setWish(const refine::ShapeWish& wish);

  void paint(QPainter& painter, const ToolView& view) const override;
  bool takesTyping() const override { return from_.has_value(); }
  bool type(const QString& text, int key) override;
  QString chosenText() const override;
  QString hint() const override;

 signals:
  /// A new outline, upright px.
  void drawn(const rim::Path& path);

 protected:
  void begun() override { typed_.clear(); }
  void finish() override;

 private:
  /// Whether one length says how large the shape is, else width and height do.
  bool hasOneSize() const;
  /// The second place: the pointer's, or what was typed.
  Point second() const;
  std::optional<Path> shape() const;

  refine::ShapeWish wish_;
  QString typed_;
};

}  // namespace rim::app
