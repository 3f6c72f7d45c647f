#pragma once

#include <QPen>
#include <memory>
#include <utility>
#include <vector>

#include "app/bench/viewport.h"
#include "core/trace/deviation.h"

class QPainter;

namespace rim::app {

/// Outlines drawn by their distance from the measured border: near places thin, far ones broad and in
/// another colour, so that hue and width both tell them apart; the largest with corner brackets.
class DeviationLayer {
 public:
  void set(std::shared_ptr<const Deviation> deviation, double tolerancePx);
  bool shown() const { return deviation_ != nullptr; }
  void paint(QPainter& painter, const Viewport& viewport, const QRectF& visible) const;

  /// The pens with what they stand for, for the legend.
  std::vector<std::pair<QPen, QString>> legend() const;

 private:
  std::size_t classOf(double off) const;

  std::shared_ptr<const Deviation> deviation_;
  double tolerance_ = 0.35;
};

}  // namespace rim::app
