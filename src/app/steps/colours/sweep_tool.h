#pragma once

#include <optional>

#include "app/bench/bench_tool.h"
#include "core/colour/decisions.h"

namespace rim::app {

/// A stroke across whatever shall become one ink. By keyboard: arrow keys lead a cross, Space sets the stroke's
/// beginning and then its end.
class SweepTool : public BenchTool {
  Q_OBJECT

 public:
  explicit SweepTool(QObject* parent) : BenchTool(parent) {}
  void set(int radiusPx, bool connected);
  /// Where the keyboard's cross begins.
  void startAt(Point place) { cross_ = place; }

  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  bool nudge(Point step) override;
  bool chooseNext() override;
  QString chosenText() const override;

 signals:
  void swept(const rim::colour::SweepInks& sweep);

 private:
  void finish();

  colour::SweepInks sweep_;
  bool down_ = false;
  bool byKeys_ = false;
  std::optional<Point> pointer_;
  Point cross_;
};

}  // namespace rim::app
