#pragma once

#include <memory>
#include <optional>

#include "app/bench/bench_tool.h"
#include "core/drawing/drawing.h"
#include "core/refine/step.h"

namespace rim::app {

/// A tool of the Refine step that changes outlines by hand. All its places are upright px.
class HandTool : public BenchTool {
  Q_OBJECT

 public:
  using BenchTool::BenchTool;

  bool overOutlines() const override { return true; }

  /// The outlines as they are now, with `mmPerPixel`.
  virtual void setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) = 0;

 signals:
  /// Outlines were changed; changes of one `mergeKey` that follow each other are one for undo.
  void made(const QString& name, const std::vector<rim::refine::ByHand::One>& changes, const QString& mergeKey);
  void refused(const QString& sentence);
};

/// A place of a tool's view (y down) with y up.
inline Point upright(Point place, const ToolView& view) { return {place.x, view.pictureHeight - place.y}; }

/// The outline whose border comes nearest to a place within `reach`; else, with `inside`, the smallest closed one round
/// it.
std::optional<OutlineId> outlineAt(const Drawing& drawing, Point place, double reach, bool inside);

}  // namespace rim::app
