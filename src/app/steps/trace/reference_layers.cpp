#include "app/steps/trace/reference_layers.h"

#include <QPainter>
#include <algorithm>

#include "app/bench/corner_brackets.h"
#include "app/bench/furniture.h"
#include "app/look.h"

namespace rim::app {

void ReferenceLayer::set(const std::vector<std::shared_ptr<const Drawing>>& references) {
  if (references == references_) return;
  references_ = references;
  Paths all;
  for (const auto& reference : references_) {
    for (const Outline& outline : reference->outlines) all.push_back(outline.path());
  }
  outlines_ = OutlineLayer(all);
  emit changed();
}

void ReferenceLayer::paint(QPainter& painter, const LayerView& view, std::size_t part) const {
  outlines_.paintAsReference(painter, view.at, view.visible, part);
}

void MarkLayer::set(std::vector<std::pair<Point, QString>> marks) {
  marks_ = std::move(marks);
  emit changed();
}

void MarkLayer::paint(QPainter& painter, const LayerView& view, std::size_t /*part*/) const {
  constexpr double kHalf = 11;
  painter.setRenderHint(QPainter::Antialiasing);
  std::vector<QRectF> used;
  for (const auto& [place, words] : marks_) {
    const QPointF at = view.at.toScreen(place);
    paintBrackets(painter, at, kHalf, look().node);
    // Where words would lie on each other the first ones, which say most, are enough.
    const QRectF plate = plateFor(painter, at + QPointF(kHalf + 4, -10), words);
    if (words.isEmpty() || std::any_of(used.begin(), used.end(), [&](const QRectF& u) { return u.intersects(plate); }))
      continue;
    used.push_back(paintWords(painter, plate.topLeft(), words));
  }
}

}  // namespace rim::app
