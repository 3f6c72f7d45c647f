#pragma once

#include <optional>
#include <vector>

#include "app/bench/bench_tool.h"

namespace rim::app {

/// Points at single parts of the ink, which become the other thing: an area of a line, a line of an area. By keyboard:
/// arrow keys lead a cross, Space points.
class PartTool : public BenchTool {
  Q_OBJECT

 public:
  explicit PartTool(QObject* parent) : BenchTool(parent) {}
  /// The places that were pointed at so far, which it marks (picture px, y down).
  void set(std::vector<Point> places);
  /// Where the keyboard's cross begins.
  void startAt(Point place) { cross_ = place; }

  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point, const ToolView&) override {}
  void release(Point, const ToolView&) override {}
  bool overOutlines() const override { return true; }
  bool nudge(Point step) override;
  bool chooseNext() override;
  QString chosenText() const override;
  QString hint() const override;
  Qt::CursorShape cursor() const override { return Qt::PointingHandCursor; }

 signals:
  /// With Shift held: all ink that hangs together there.
  void pointedAt(rim::Point place, bool whole);

 private:
  std::vector<Point> places_;
  Point cross_;
  bool byKeys_ = false;
};

}  // namespace rim::app
