#pragma once

#include "app/steps/refine/hand/span_tool.h"

namespace rim::app {

/// Mirrors what is chosen across a line that is drawn: a copy comes at the other side, or with Ctrl the outlines go
/// there themselves. With Shift the line runs level, upright or at 45 degrees.
class MirrorTool : public SpanTool {
  Q_OBJECT

 public:
  using SpanTool::SpanTool;

  void setChosen(std::set<OutlineId> chosen) { chosen_ = std::move(chosen); }

  void paint(QPainter& painter, const ToolView& view) const override;
  QString chosenText() const override;
  QString hint() const override;

 signals:
  /// New outlines, upright px, each with its layer.
  void copied(const std::vector<rim::refine::ByHand::One>& copies);

 protected:
  std::optional<Point> ruled(Point place) const override;
  void finish() override;

 private:
  /// Those that are chosen, with what they become.
  std::vector<std::pair<Outline, Path>> mirrored() const;

  std::set<OutlineId> chosen_;
};

}  // namespace rim::app
