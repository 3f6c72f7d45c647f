#pragma once

#include <vector>

#include "app/steps/refine/hand/span_tool.h"

namespace rim::app {

/// Draws lines from one click to the next, or an arc through three. A click on the first place closes the lines, Return
/// or a double click leaves them open; what is typed meanwhile is a length in mm, or a length and an angle: 40<30.
class ChainTool : public SpanTool {
  Q_OBJECT

 public:
  using SpanTool::SpanTool;

  /// An arc through three places, else lines.
  void setArc(bool arc);

  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void doublePress(Point place, const ToolView& view) override;
  bool takesTyping() const override { return from_.has_value(); }
  bool type(const QString& text, int key) override;
  QString chosenText() const override;
  QString hint() const override;
  bool leave() override;

 signals:
  /// A new outline, upright px.
  void drawn(const rim::Path& path);

 protected:
  void begun() override;
  std::optional<Point> ruled(Point place) const override;
  void finish() override;

 private:
  /// What would come with one more place.
  Path pathWith(Point last) const;
  /// Makes an outline of it; the place that the pointer is at belongs to it, or does not.
  void end(bool withLast);

  bool arc_ = false;
  double reach_ = 0;  ///< upright px from which the first place is taken for the last
  std::vector<Point> places_;
  QString typed_;
};

}  // namespace rim::app
