#pragma once

#include <optional>
#include <vector>

#include "app/bench/bench_layer.h"
#include "core/drawing/outline.h"

namespace rim::app {

/// A speck that goes when specks are dropped, or one that is kept.
struct Speck {
  Point at;           ///< a place on it, mm
  double sizeMm = 0;  ///< its larger side
  bool kept = false;
  OutlineId outline = OutlineId::None;

  friend bool operator==(const Speck&, const Speck&) = default;
};

/// Specks on the bench: lit discs round those that would go, rings round those that are kept.
class SpeckLayer : public BenchLayer {
  Q_OBJECT

 public:
  SpeckLayer() : BenchLayer(Level::OverOutlines) {}

  void set(std::vector<Speck> specks);
  void paint(QPainter& painter, const LayerView& view, std::size_t part) const override;
  /// A speck is taken hold of.
  bool press(QPointF screen, const LayerView& view) override;
  std::optional<Qt::CursorShape> cursorAt(QPointF screen, const LayerView& view) const override;

 signals:
  void pressed(const rim::app::Speck& speck);

 private:
  /// The speck under a place on the screen.
  std::optional<Speck> at(QPointF screen, const LayerView& view) const;

  std::vector<Speck> specks_;
};

}  // namespace rim::app
