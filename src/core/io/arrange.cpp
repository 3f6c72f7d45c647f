#include "core/io/arrange.h"

#include <algorithm>

#include "core/error.h"

namespace rim {
namespace {

Point placeIn(const Box& box, OriginAt origin) {
  switch (origin) {
    case OriginAt::Centre:
      return lerp(box.low, box.high, 0.5);
    case OriginAt::LowerRight:
      return {box.high.x, box.low.y};
    case OriginAt::UpperLeft:
      return {box.low.x, box.high.y};
    case OriginAt::UpperRight:
      return box.high;
    case OriginAt::Drawing:
    case OriginAt::LowerLeft:
      break;
  }
  return box.low;
}

}  // namespace

Drawing withOrigin(const Drawing& drawing, OriginAt origin, const Box& box) {
  if (origin == OriginAt::Drawing || box.empty()) return drawing;
  return moved(drawing, -placeIn(box, origin));
}

Drawing onPage(const Drawing& drawing, const Box& page) {
  Drawing out = moved(drawing, -page.low);
  out.pageWidth = page.width();
  out.pageHeight = page.height();
  return out;
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
