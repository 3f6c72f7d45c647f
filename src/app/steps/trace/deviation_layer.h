#pragma once

#include <memory>

#include "app/bench/bench_layer.h"
#include "core/trace/deviation.h"

namespace rim::app {

/// Outlines drawn by their distance from the measured border: near places thin, far ones broad and in
/// another colour, so that hue and width both tell them apart; the largest with corner brackets.
class DeviationLayer : public BenchLayer {
  Q_OBJECT

 public:
  DeviationLayer() : BenchLayer(Level::OverOutlines) {}

  /// Null: none are shown.
  void set(std::shared_ptr<const trace::Deviation> deviation, double tolerancePx);
  void paint(QPainter& painter, const LayerView& view, std::size_t part) const override;
  std::vector<std::pair<QPen, QString>> legend() const override;

 private:
  std::size_t classOf(double off) const;

  std::shared_ptr<const trace::Deviation> deviation_;
  double tolerance_ = 0.35;
};

}  // namespace rim::app
