#pragma once

#include <map>

#include "app/steps/refine/hand/hand_tool.h"
#include "core/refine/edit/trim.h"

namespace rim::app {

/// Takes out what runs on between two crossings: the piece under the pointer is lit, a click takes it.
class TrimTool : public HandTool {
  Q_OBJECT

 public:
  using HandTool::HandTool;

  void setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) override;
  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point, const ToolView&) override {}
  QString hint() const override;
  Qt::CursorShape cursor() const override { return Qt::CrossCursor; }
  bool leave() override;

 private:
  /// What a click would take.
  struct Lit {
    std::size_t outline = 0;  ///< by its place
    refine::Trimmed trimmed;
  };
  std::optional<Lit> litAt(Point place, double reach);

  std::optional<Lit> lit_;
  std::map<std::size_t, std::vector<PathPlace>> meetings_;  ///< of the outlines that were pointed at
};

}  // namespace rim::app
