#pragma once

#include <optional>

#include "app/bench/bench_tool.h"
#include "core/picture/preparation.h"

namespace rim::app {

/// A frame that is drawn, moved, and pulled at its corners and sides.
class FrameTool : public BenchTool {
  Q_OBJECT

 public:
  FrameTool(int pictureWidth, int pictureHeight, QObject* parent);
  /// In whole pixels, within the picture.
  picture::Crop frame() const;
  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  bool nudge(Point step) override;
  bool chooseNext() override;
  QString chosenText() const override;

 private:
  /// What the arrow keys move.
  enum class Part { Whole, UpperLeft, LowerRight };
  void clamp();

  Point size_;
  Point low_;
  Point high_;
  // Which sides follow the pointer; all of them: the frame is moved.
  bool left_ = false, right_ = false, top_ = false, bottom_ = false;
  Point last_;
  Part part_ = Part::Whole;
};

/// The four corners of a sheet, each draggable.
class CornersTool : public BenchTool {
  Q_OBJECT

 public:
  CornersTool(const picture::Quad& corners, QObject* parent) : BenchTool(parent), corners_(corners) {}
  const picture::Quad& corners() const { return corners_; }
  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  bool nudge(Point step) override;
  bool chooseNext() override;
  QString chosenText() const override;

 private:
  picture::Quad corners_;
  std::optional<std::size_t> held_;
  std::size_t chosen_ = 0;  ///< the corner that the arrow keys move
};

/// A line drawn along what ought to be level (or upright, whichever it is nearer to).
class LevelTool : public BenchTool {
  Q_OBJECT

 public:
  using BenchTool::BenchTool;
  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;

 signals:
  /// Counter-clockwise, -45 to 45 degrees.
  void drawn(double turnDegrees);

 private:
  std::optional<Point> from_;
  Point to_;
};

/// A round brush.
class BrushTool : public BenchTool {
  Q_OBJECT

 public:
  using BenchTool::BenchTool;
  void set(double diameterPx, bool ink);
  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;

 signals:
  void swept(const rim::picture::BrushStroke& stroke);

 private:
  picture::BrushStroke stroke_;
  bool down_ = false;
  std::optional<Point> pointer_;
};

/// A place whose colour is meant.
class PickTool : public BenchTool {
  Q_OBJECT

 public:
  using BenchTool::BenchTool;
  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;

 signals:
  void picked(rim::Point place);

 private:
  std::optional<Point> pointer_;
};

}  // namespace rim::app
