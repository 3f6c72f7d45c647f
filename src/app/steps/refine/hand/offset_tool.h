#pragma once

#include "app/errand.h"
#include "app/steps/refine/hand/hand_tool.h"
#include "core/refine/combine/offset.h"

namespace rim::app {

/// Draws another outline beside one, as far from it as the pointer is, or as a number says that is typed meanwhile:
/// outside it or inside. An open line becomes an outline round it. What is chosen is taken together.
class OffsetTool : public HandTool {
  Q_OBJECT

 public:
  using HandTool::HandTool;

  void setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) override;
  /// What is chosen; pressed at one of these, all are taken.
  void setChosen(std::set<OutlineId> chosen) { chosen_ = std::move(chosen); }
  void setJoins(refine::Joins joins);
  /// Whether the new outlines take the place of the old ones.
  void setInstead(bool instead) { instead_ = instead; }

  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  bool takesTyping() const override { return !of_.empty(); }
  bool type(const QString& text, int key) override;
  QString chosenText() const override;
  QString hint() const override;
  bool leave() override;

 private:
  /// Outside positive.
  double distanceMm() const;
  void takeHold(OutlineId outline);
  void work();
  void take(Outcome<Drawing> outcome);
  void finish();

  std::set<OutlineId> chosen_;
  refine::Joins joins_ = refine::Joins::Round;
  bool instead_ = false;
  std::vector<Outline> of_;  ///< what is taken hold of, the one that was pressed first
  Point now_;
  Point pressed_;
  bool down_ = false;
  bool finishing_ = false;  ///< it is taken as soon as it is worked out
  QString typed_;
  double workedMm_ = 0;  ///< what `beside_` was worked out for
  std::vector<Path> beside_;
  QString trouble_;
  Errand errand_;
};

}  // namespace rim::app
