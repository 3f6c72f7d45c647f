#pragma once

#include <vector>

#include "app/steps/trace/log_chart.h"
#include "core/trace/tracing.h"

namespace rim::app {

/// How much of the ink is how wide, as a chart, with a handle at the widest stroke that becomes a line: what lies left
/// of it does, what lies right keeps its borders. The handle is dragged, or moved by the arrow keys.
class WidthChart : public LogChart {
  Q_OBJECT

 public:
  explicit WidthChart(QWidget* parent = nullptr);

  /// Empty: not known yet. An infinite limit lies at the right end.
  void show(const std::vector<trace::WidthShare>& widths, double limitPx);
  double limit() const { return limit_; }

 signals:
  /// While the handle moves.
  void moved(double limitPx);
  void released();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void moveTo(double limitPx);

  std::vector<trace::WidthShare> widths_;
  double limit_ = 0;
};

}  // namespace rim::app
