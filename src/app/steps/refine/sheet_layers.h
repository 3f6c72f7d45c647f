#pragma once

#include "app/bench/bench_layer.h"

namespace rim::app {

/// The sheet that is cut from.
class StockLayer : public BenchLayer {
  Q_OBJECT

 public:
  StockLayer() : BenchLayer(Level::OnSheet) {}

  /// Upright px; empty: none is shown.
  void set(const Box& stock);
  void paint(QPainter& painter, const LayerView& view, std::size_t part) const override;
  Box extent() const override { return stock_; }

 private:
  Box stock_;
};

/// Lines at a distance that places come to.
class GridLayer : public BenchLayer {
  Q_OBJECT

 public:
  GridLayer() : BenchLayer(Level::OnSheet) {}

  /// From line to line, upright px; 0: no grid.
  void set(double step);
  void paint(QPainter& painter, const LayerView& view, std::size_t part) const override;

 private:
  double step_ = 0;
};

}  // namespace rim::app
