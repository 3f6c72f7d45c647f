#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "app/bench/viewport.h"
#include "app/preferences.h"
#include "app/repair_preview.h"
#include "core/mend/find/finding.h"

class QPainter;

namespace rim::app {

/// Findings on the bench: numbered tags that point at their place; the one that is looked at has corner brackets, its
/// gap dimensioned, and what its repair would make of the outlines drawn over them.
class FindingLayer {
 public:
  /// `shown`: which of the findings are tagged, in the order of their numbers from 1.
  void set(std::shared_ptr<const std::vector<Finding>> findings, std::vector<std::size_t> shown);
  /// The finding that is looked at, by its place in `shown`; none.
  void setCurrent(std::optional<std::size_t> current);
  void setPreview(RepairPreview preview) { preview_ = std::move(preview); }

  bool empty() const { return shown_.empty(); }
  void paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, double mmPerPixel, Unit unit) const;

  /// The tag under a place on the screen.
  std::optional<std::size_t> at(QPointF screen, const Viewport& viewport, double mmPerPixel) const;

 private:
  QPointF placeOf(std::size_t number, const Viewport& viewport, double mmPerPixel) const;
  void paintCurrent(QPainter& painter, const Viewport& viewport, double mmPerPixel, Unit unit) const;

  std::shared_ptr<const std::vector<Finding>> findings_;
  std::vector<std::size_t> shown_;
  std::optional<std::size_t> current_;
  RepairPreview preview_;
};

}  // namespace rim::app
