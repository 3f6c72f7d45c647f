#include "core/io/arrange.h"

#include <algorithm>

#include "core/error.h"

namespace rim {
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

}  // namespace rim
