#include "core/refine/edit/layers.h"

#include <algorithm>

namespace rim::refine {

std::optional<std::size_t> layerNamed(const Drawing& drawing, const std::string& name) {
  for (std::size_t i = 0; i < drawing.layers.size(); ++i) {
    if (drawing.layers[i].name == name) return i;
  }
  return std::nullopt;
}

Drawing withLayerAs(const Drawing& drawing, const std::string& name, const Layer& as) {
  const auto which = layerNamed(drawing, name);
  if (!which) return drawing;
  Drawing changed = drawing;
  const auto other = as.name == name ? std::nullopt : layerNamed(drawing, as.name);
  if (!other) {
    changed.layers[*which] = as;
    return changed;
  }
  changed.layers.erase(changed.layers.begin() + static_cast<std::ptrdiff_t>(*which));
  for (Outline& outline : changed.outlines) {
    if (outline.layer == *which) outline.layer = *other;
    if (outline.layer > *which) --outline.layer;
  }
  changed.layers[*other > *which ? *other - 1 : *other] = as;
  return changed;
}

Drawing withLayerAt(const Drawing& drawing, const std::string& name, std::size_t place) {
  const auto which = layerNamed(drawing, name);
  if (!which) return drawing;
  std::vector<std::size_t> order;  // the old place of each
  for (std::size_t i = 0; i < drawing.layers.size(); ++i) {
    if (i != *which) order.push_back(i);
  }
  order.insert(order.begin() + static_cast<std::ptrdiff_t>(std::min(place, order.size())), *which);
  Drawing changed = drawing;
  std::vector<std::size_t> now(order.size());
  for (std::size_t i = 0; i < order.size(); ++i) {
    changed.layers[i] = drawing.layers[order[i]];
    now[order[i]] = i;
  }
  for (Outline& outline : changed.outlines) outline.layer = now[outline.layer];
  std::stable_sort(changed.outlines.begin(), changed.outlines.end(),
                   [](const Outline& a, const Outline& b) { return a.layer < b.layer; });
  return changed;
}

Drawing withoutLayers(const Drawing& drawing, const std::set<std::string>& names) {
  Drawing changed = drawing;
  std::erase_if(changed.outlines, [&](const Outline& outline) {
    return !drawing.layers.empty() && names.contains(drawing.layers[outline.layer].name);
  });
  return changed;
}

Drawing onLayer(const Drawing& drawing, const std::set<OutlineId>& outlines, const Layer& layer) {
  Drawing changed = drawing;
  if (changed.layers.empty()) changed.layers.push_back({"outlines", 0, 0, 0});
  auto which = layerNamed(changed, layer.name);
  if (!which) {
    which = changed.layers.size();
    changed.layers.push_back(layer);
  }
  for (Outline& outline : changed.outlines) {
    if (outlines.count(outline.id) != 0) outline.layer = *which;
  }
  return changed;
}

}  // namespace rim::refine
