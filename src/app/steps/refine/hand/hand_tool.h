#pragma once

#include <memory>
#include <optional>

#include "app/bench/bench_tool.h"
#include "core/drawing/drawing.h"
#include "core/refine/step.h"

class QRegularExpression;

namespace rim::app {

/// A tool of the Refine step that changes outlines by hand. All its places are upright px.
class HandTool : public BenchTool {
  Q_OBJECT

 public:
  using BenchTool::BenchTool;

  bool overOutlines() const override { return true; }

  /// The outlines as they are now, with `mmPerPixel`; null: none.
  virtual void setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) {
    outlines_ = std::move(outlines);
    mmPerPixel_ = mmPerPixel;
  }
  /// All outlines that places snap to, where there are more than can be taken hold of; null: there are none besides.
  void setAround(std::shared_ptr<const Drawing> around) { around_ = std::move(around); }
  /// How far one step of the arrow keys goes, mm (> 0).
  void setNudge(double mm) { nudgeMm_ = mm; }
  /// Those that can be taken hold of; null: none.
  const std::shared_ptr<const Drawing>& outlines() const { return outlines_; }

 signals:
  /// Outlines were changed; changes of one `mergeKey` that follow each other are one for undo.
  void made(const QString& name, const std::vector<rim::refine::ByHand::One>& changes, const QString& mergeKey);
  void refused(const QString& sentence);

 protected:
  /// Tells what was made. Until the drawing has it there are no outlines: a second change of what the first one
  /// changed would undo that.
  void make(const QString& name, const std::vector<refine::ByHand::One>& changes);

  static constexpr double kTogetherMm = 0.05;  ///< ends nearer than this become one

  /// Lies over the outlines like a marker pen: what is chosen, or would come.
  static void paintOver(QPainter& painter, const ToolView& view, const std::vector<Path>& paths);
  /// The box that is drawn from one place to another.
  static void paintBox(QPainter& painter, const ToolView& view, Point from, Point to);
  /// A line from one place to another that stands out on light and dark.
  static void paintWay(QPainter& painter, const ToolView& view, Point from, Point to,
                       Qt::PenStyle style = Qt::SolidLine);
  /// Whether the pointer has gone so far (upright px) that it drags, and does not only click.
  static bool isDrag(Point from, Point to, const ToolView& view);
  /// Whether Shift is held: what is chosen is added to what was.
  static bool adds();
  /// Takes a letter that is typed into a number, where it is allowed there, or the last one back; false: neither.
  static bool typeInto(QString& typed, const QString& text, int key, const QRegularExpression& allowed);
  static bool isReturn(int key) { return key == Qt::Key_Return || key == Qt::Key_Enter; }
  /// What one step of the arrow keys (px, y down) moves by, upright px.
  Point nudgeBy(Point step) const;

  const std::shared_ptr<const Drawing>& around() const { return around_ ? around_ : outlines_; }

  std::shared_ptr<const Drawing> outlines_;
  std::shared_ptr<const Drawing> around_;
  double mmPerPixel_ = 1;
  double nudgeMm_ = 0.1;
};

/// A place of a tool's view (y down) with y up.
inline Point upright(Point place, const ToolView& view) { return {place.x, view.pictureHeight - place.y}; }

/// The outline whose border comes nearest to a place within `reach`; else, with `inside`, the smallest closed one round
/// it.
std::optional<OutlineId> outlineAt(const Drawing& drawing, Point place, double reach, bool inside);

}  // namespace rim::app
