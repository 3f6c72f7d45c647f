#pragma once

#include "app/steps/refine/hand/hand_tool.h"
#include "core/refine/edit/ends.h"

namespace rim::app {

/// Brings two open ends together: a click on the one, then the pointer over the other shows how both would be led on
/// until they meet, and a click takes it. With Ctrl a straight line goes between them instead.
class MeetTool : public HandTool {
  Q_OBJECT

 public:
  using HandTool::HandTool;

  void setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) override;
  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point /*place*/, const ToolView& /*view*/) override {}
  bool chooseNext() override;
  QString chosenText() const override;
  QString hint() const override;
  Qt::CursorShape cursor() const override { return Qt::CrossCursor; }
  bool leave() override;

 private:
  struct OpenEnd {
    OutlineId outline = OutlineId::None;
    refine::PathEnd end = refine::PathEnd::Start;
    Point place;
    friend bool operator==(const OpenEnd& a, const OpenEnd& b) { return a.outline == b.outline && a.end == b.end; }
  };
  std::vector<OpenEnd> ends() const;
  std::optional<OpenEnd> endAt(Point place, double reach) const;
  /// What becomes of both; none when one of them is gone.
  std::optional<Path> together(const OpenEnd& a, const OpenEnd& b) const;
  void take(const OpenEnd& a, const OpenEnd& b);

  std::optional<OpenEnd> first_;
  std::optional<OpenEnd> over_;
};

}  // namespace rim::app
