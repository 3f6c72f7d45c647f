#pragma once

#include <QString>
#include <memory>

#include "app/bench/bench_layer.h"
#include "app/bench/outline_layer.h"

namespace rim::app {

/// Outlines that are frozen to compare with, grey under the others.
class ReferenceLayer : public BenchLayer {
  Q_OBJECT

 public:
  ReferenceLayer() : BenchLayer(Level::UnderOutlines) {}

  void set(const std::vector<std::shared_ptr<const Drawing>>& references);
  void paint(QPainter& painter, const LayerView& view, std::size_t part) const override;
  std::size_t parts() const override { return outlines_.parts(); }
  std::size_t elements() const override { return outlines_.elements(); }

 private:
  std::vector<std::shared_ptr<const Drawing>> references_;
  OutlineLayer outlines_;
};

/// Places that are marked, with words.
class MarkLayer : public BenchLayer {
  Q_OBJECT

 public:
  MarkLayer() : BenchLayer(Level::InFront) {}

  void set(std::vector<std::pair<Point, QString>> marks);
  void paint(QPainter& painter, const LayerView& view, std::size_t part) const override;

 private:
  std::vector<std::pair<Point, QString>> marks_;
};

}  // namespace rim::app
