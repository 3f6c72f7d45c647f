#include "core/io/arrange.h"

#include <algorithm>

#include "core/error.h"

namespace rim {
namespace {

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

}  // namespace

Drawing withOrigin(const Drawing& drawing, OriginAt origin) {
  const Box box = boxOf(pathsOf(drawing));
  if (origin == OriginAt::Drawing || box.empty()) return drawing;
  return moved(drawing, -(origin == OriginAt::Centre ? lerp(box.low, box.high, 0.5) : box.low));
}

Drawing onArtworkPage(const Drawing& drawing, double marginMm) {
  const Box box = boxOf(pathsOf(drawing));
  if (box.empty()) return drawing;
  Drawing out = moved(drawing, Point{marginMm, marginMm} - box.low);
  out.pageWidth = box.width() + 2 * marginMm;
  out.pageHeight = box.height() + 2 * marginMm;
  return out;
}

Drawing onlyLayer(const Drawing& drawing, const std::string& name) {
  std::string names;
  for (std::size_t i = 0; i < drawing.layers.size(); ++i) {
    if (drawing.layers[i].name == name) return layerAlone(drawing, i);
    names += (names.empty() ? "" : ", ") + drawing.layers[i].name;
  }
  throw InputError("there is no layer \"" + name + "\"" +
                   (names.empty() ? "; the drawing has no layers." : "; there are: " + names + "."));
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

}  // namespace rim
