#include "core/drawing/drawing.h"

#include <algorithm>

#include "core/drawing/in_millimetres.h"

namespace rim {

Drawing makeDrawing(std::vector<Path> paths, std::vector<Layer> layers, const std::vector<std::size_t>& layerOf) {
  Drawing drawing;
  drawing.layers = std::move(layers);
  drawing.outlines.reserve(paths.size());
  for (std::size_t i = 0; i < paths.size(); ++i)
    drawing.outlines.emplace_back(std::move(paths[i]), layerOf.empty() ? 0 : layerOf[i]);
  mintIds(drawing);
  return drawing;
}

Box boxOf(const Drawing& drawing) {
  Box box;
  for (const Outline& outline : drawing.outlines) box.include(outline.box());
  return box;
}

void mintIds(Drawing& drawing) {
  std::unordered_map<OutlineId, std::uint64_t> repeats;
  for (Outline& outline : drawing.outlines) {
    if (outline.id != OutlineId::None) continue;
    const std::uint64_t repeat = repeats[idOf(outline.path(), outline.layer)]++;
    outline.id = idOf(outline.path(), outline.layer, repeat);
  }
}

void add(Drawing& drawing, Path path, std::size_t layer) {
  Outline outline(std::move(path), layer);
  std::uint64_t repeat = 0;
  do {
    outline.id = idOf(outline.path(), layer, repeat++);
  } while (placeOf(drawing, outline.id));
  drawing.outlines.push_back(std::move(outline));
}

void addParts(Drawing& drawing, Outline outline, std::vector<Path> parts) {
  if (parts.empty()) return;
  const std::size_t first = drawing.outlines.size();
  drawing.outlines.emplace_back();
  for (std::size_t i = 1; i < parts.size(); ++i) drawing.outlines.push_back(outline.offspring(std::move(parts[i])));
  drawing.outlines[first] = outline.with(std::move(parts.front()));
}

Drawing onlyOutlines(const Drawing& drawing, const std::set<OutlineId>& ids) {
  Drawing out = drawing;
  std::erase_if(out.outlines, [&ids](const Outline& outline) { return !ids.contains(outline.id); });
  return out;
}

Paths pathsOf(const Drawing& drawing) {
  Paths paths;
  paths.reserve(drawing.outlines.size());
  for (const Outline& outline : drawing.outlines) paths.push_back(outline.path());
  return paths;
}

std::size_t openPenLines(const Drawing& drawing) {
  return static_cast<std::size_t>(std::count_if(drawing.outlines.begin(), drawing.outlines.end(), [](const Outline& o) {
    return o.stroke.usual > 0 && !o.path().closed;
  }));
}

bool onOneLayer(const Drawing& drawing, std::size_t a, std::size_t b) {
  return drawing.layers.empty() || drawing.outlines[a].layer == drawing.outlines[b].layer;
}

Drawing layerAlone(const Drawing& drawing, std::size_t layer) {
  Drawing out = emptyLike(drawing);
  out.layers = {drawing.layers[layer]};
  for (const Outline& outline : drawing.outlines) {
    if (outline.layer != layer) continue;
    out.outlines.push_back(outline);
    out.outlines.back().layer = 0;
  }
  return out;
}

std::vector<std::pair<std::string, Drawing>> byLayer(const Drawing& drawing) {
  if (drawing.layers.empty()) return {{std::string(), drawing}};
  std::vector<std::pair<std::string, Drawing>> all;
  for (std::size_t i = 0; i < drawing.layers.size(); ++i) {
    Drawing alone = layerAlone(drawing, i);
    if (!alone.outlines.empty()) all.emplace_back(drawing.layers[i].name, std::move(alone));
  }
  return all;
}

Drawing withoutStrokes(Drawing drawing) {
  for (Outline& outline : drawing.outlines) outline.stroke = {};
  return drawing;
}

Drawing emptyLike(const Drawing& drawing) {
  return {{}, drawing.layers, drawing.pageWidth, drawing.pageHeight, drawing.frame};
}

Drawing inFrame(const Drawing& drawing, Frame frame, double factor) {
  Drawing other = emptyLike(drawing);
  other.pageWidth *= factor;
  other.pageHeight *= factor;
  other.frame = frame;
  other.outlines.reserve(drawing.outlines.size());
  for (const Outline& outline : drawing.outlines) other.outlines.push_back(scaled(outline, factor));
  return other;
}

Drawing moved(const Drawing& drawing, Point by) {
  Drawing other = drawing;
  for (Outline& outline : other.outlines) outline = outline.with(scaled(outline.path(), 1, by));
  return other;
}

OutlinePlaces placesOf(const Drawing& drawing) {
  OutlinePlaces places;
  places.reserve(drawing.outlines.size());
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) places.emplace(drawing.outlines[i].id, i);
  return places;
}

std::optional<std::size_t> placeOf(const Drawing& drawing, OutlineId id) {
  const auto found = std::find_if(drawing.outlines.begin(), drawing.outlines.end(),
                                  [id](const Outline& outline) { return outline.id == id; });
  if (found == drawing.outlines.end()) return {};
  return static_cast<std::size_t>(found - drawing.outlines.begin());
}

std::vector<Outline> changedOutlines(const Drawing& before, const Drawing& after) {
  const OutlinePlaces places = placesOf(before);
  std::vector<Outline> changed;
  for (const Outline& outline : after.outlines) {
    const auto then = places.find(outline.id);
    if (then == places.end() || !before.outlines[then->second].sharesPath(outline)) changed.push_back(outline);
  }
  return changed;
}

}  // namespace rim
