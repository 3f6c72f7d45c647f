#pragma once

#include "app/steps/refine/hand/span_tool.h"

namespace rim::app {

/// Cuts outlines in two along a straight line that is drawn over them; with Shift it runs level, upright or at 45
/// degrees.
class KnifeTool : public SpanTool {
  Q_OBJECT

 public:
  using SpanTool::SpanTool;

  void paint(QPainter& painter, const ToolView& view) const override;
  QString chosenText() const override;
  QString hint() const override;
  bool leave() override;

 protected:
  void begun() override { said_.clear(); }
  std::optional<Point> ruled(Point place) const override;
  void finish() override;

 private:
  QString said_;
};

}  // namespace rim::app
