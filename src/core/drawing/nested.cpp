#include "core/drawing/nested.h"

#include <algorithm>
#include <map>

#include "core/geometry/nesting.h"

namespace rim {
namespace {

/// The closed outlines of one layer with what lies round them.
struct NestedLayer {
  std::vector<std::size_t> places;
  Nesting nesting;
};

std::vector<NestedLayer> layersOf(const Drawing& drawing) {
  std::map<std::size_t, std::vector<std::size_t>> byLayer;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const Path& path = drawing.path(i);
    if (path.closed && !path.segments.empty())
      byLayer[drawing.layers.empty() ? 0 : drawing.outlines[i].layer].push_back(i);
  }
  std::vector<NestedLayer> layers;
  for (auto& [layer, places] : byLayer) {
    Paths paths;
    for (const std::size_t place : places) paths.push_back(drawing.path(place));
    Nesting nesting = nestingOf(paths);
    layers.push_back({std::move(places), std::move(nesting)});
  }
  return layers;
}

}  // namespace

std::vector<int> depthsOf(const Drawing& drawing) {
  std::vector<int> depths(drawing.outlines.size(), 0);
  for (const NestedLayer& layer : layersOf(drawing)) {
    for (std::size_t i = 0; i < layer.places.size(); ++i) depths[layer.places[i]] = layer.nesting.depth[i];
  }
  return depths;
}

std::vector<std::vector<std::size_t>> areasOf(const Drawing& drawing) {
  std::vector<std::vector<std::size_t>> all;
  for (const NestedLayer& layer : layersOf(drawing)) {
    std::map<std::size_t, std::vector<std::size_t>> areas;
    for (std::size_t i = 0; i < layer.places.size(); ++i) {
      const bool hole = layer.nesting.depth[i] % 2 != 0;
      std::vector<std::size_t>& area = areas[hole ? *layer.nesting.parent[i] : i];
      area.insert(hole ? area.end() : area.begin(), layer.places[i]);
    }
    for (auto& [border, area] : areas) all.push_back(std::move(area));
  }
  return all;
}

}  // namespace rim
