#pragma once

#include <memory>
#include <optional>
#include <set>

#include "app/steps/refine/hand/hand_tool.h"
#include "core/drawing/drawing.h"

namespace rim::app {

/// Chooses outlines on the bench: a click chooses the outline there (its border first, else the smallest closed one
/// round the place), with Shift it adds or takes away; a drag from an empty place chooses what lies wholly in its box,
/// or in the line drawn as a lasso, and with Ctrl also what that touches; a drag of what is chosen moves it. A group is
/// chosen as a whole, with Alt one of it; a double click chooses all of a letter.
class SelectTool : public HandTool {
  Q_OBJECT

 public:
  using HandTool::HandTool;

  /// The outlines that can be chosen, upright px; what is gone of those that were chosen is so no more.
  void setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) override;
  const std::set<OutlineId>& chosen() const { return chosen_; }
  void choose(std::set<OutlineId> outlines);
  void chooseAll();
  /// A drag draws a line round what is chosen, in place of a box.
  void setLasso(bool lasso) { lasso_ = lasso; }

  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  /// All of the letter that lies there.
  void doublePress(Point place, const ToolView& view) override;
  void pressForMenu(Point place, const ToolView& view) override;
  bool nudge(Point step) override;
  bool chooseNext() override;
  QString chosenText() const override;
  bool leave() override;

 signals:
  void chosenChanged();
  /// What is chosen shall move by this, upright px.
  void moved(rim::Point by);

 private:
  /// Whether Alt is held: one outline is taken of its group.
  static bool alone();
  /// What is drawn round what shall be chosen.
  Path drawnRound() const;

  std::set<OutlineId> chosen_;
  std::optional<Point> pressed_;  ///< upright px
  Point now_;
  std::vector<Point> way_;  ///< that the pointer has gone since it was pressed, upright px
  bool lasso_ = false;
  bool moving_ = false;
  bool dragged_ = false;
};

}  // namespace rim::app
