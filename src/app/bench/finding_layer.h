#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "app/bench/bench_layer.h"
#include "app/repair_preview.h"
#include "core/mend/find/finding.h"

namespace rim::app {

/// Findings on the bench: numbered tags that point at their place; the one that is looked at has corner brackets, its
/// gap dimensioned, and what its repair would make of the outlines drawn over them.
class FindingLayer : public BenchLayer {
  Q_OBJECT

 public:
  FindingLayer() : BenchLayer(Level::OverOutlines) {}

  /// `shown`: which of the findings are tagged, in the order of their numbers from 1.
  void set(std::shared_ptr<const std::vector<mend::Finding>> findings, std::vector<std::size_t> shown);
  /// The finding that is looked at, by its place in `shown`; none.
  void setCurrent(std::optional<std::size_t> current);
  void setPreview(RepairPreview preview);

  void paint(QPainter& painter, const LayerView& view, std::size_t part) const override;
  /// A tag is taken hold of.
  bool press(QPointF screen, const LayerView& view) override;

 signals:
  void pressed(std::size_t shown);  ///< its tag was

 private:
  QPointF placeOf(std::size_t number, const LayerView& view) const;
  void paintPreview(QPainter& painter, const LayerView& view) const;
  void paintTags(QPainter& painter, const LayerView& view) const;
  void paintCurrent(QPainter& painter, const LayerView& view) const;

  std::shared_ptr<const std::vector<mend::Finding>> findings_;
  std::vector<std::size_t> shown_;
  std::optional<std::size_t> current_;
  RepairPreview preview_;
};

}  // namespace rim::app
