#pragma once

#include <vector>

#include "app/steps/trace/log_chart.h"
#include "core/trace/smoothness.h"

namespace rim::app {

/// The number of nodes along the smoothness, as a small curve, with a mark at the one that is set: where the curve
/// bends, more smoothness costs shape and saves little. A click sets the smoothness.
class SmoothnessCurve : public LogChart {
  Q_OBJECT

 public:
  explicit SmoothnessCurve(QWidget* parent = nullptr);

  /// Ascending by tolerance; empty: not known.
  void setNodes(std::vector<trace::NodesAt> along);
  const std::vector<trace::NodesAt>& nodes() const { return along_; }
  void setTolerance(double px);

 signals:
  void chosen(double tolerancePx);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;

 private:
  double yOf(double nodes) const;

  std::vector<trace::NodesAt> along_;
  double tolerance_ = 0;
};

}  // namespace rim::app
