#include "core/io/arrange.h"

#include <algorithm>
#include <array>

#include "core/drawing/nested.h"
#include "core/error.h"

namespace rim::io {
namespace {

Point placeIn(const Box& box, job::OriginAt origin) {
  switch (origin) {
    case job::OriginAt::Centre:
      return lerp(box.low, box.high, 0.5);
    case job::OriginAt::LowerRight:
      return {box.high.x, box.low.y};
    case job::OriginAt::UpperLeft:
      return {box.low.x, box.high.y};
    case job::OriginAt::UpperRight:
      return box.high;
    case job::OriginAt::Drawing:
    case job::OriginAt::LowerLeft:
      break;
  }
  return box.low;
}

}  // namespace

Drawing withOrigin(const Drawing& drawing, job::OriginAt origin, const Box& box) {
  if (origin == job::OriginAt::Drawing || box.empty()) return drawing;
  return moved(drawing, -placeIn(box, origin));
}

Drawing onPage(const Drawing& drawing, const Box& page) {
  Drawing out = moved(drawing, -page.low);
  out.pageWidth = page.width();
  out.pageHeight = page.height();
  return out;
}

Drawing onArtworkPage(const Drawing& drawing, double marginMm) {
  const Box box = boxOf(drawing);
  if (box.empty()) return drawing;
  Drawing out = moved(drawing, Point{marginMm, marginMm} - box.low);
  out.pageWidth = box.width() + 2 * marginMm;
  out.pageHeight = box.height() + 2 * marginMm;
  return out;
}

Drawing layeredByRole(const Drawing& drawing) {
  static const std::vector<Layer> kRoles{{"outside", 0, 0, 0}, {"inside", 0, 102, 128}, {"line", 176, 84, 0}};
  enum Role : std::size_t { kOutside, kInside, kLine };
  const std::vector<int> depths = depthsOf(drawing);
  Drawing out = drawing;
  std::array<bool, 3> used{};
  for (std::size_t i = 0; i < out.outlines.size(); ++i) {
    Outline& outline = out.outlines[i];
    const bool isLine = !outline.path().closed || outline.stroke.usual > 0;
    outline.layer = isLine ? kLine : depths[i] % 2 == 0 ? kOutside : kInside;
    used[outline.layer] = true;
  }
  out.layers.clear();
  std::array<std::size_t, 3> place{};
  for (std::size_t role = 0; role < used.size(); ++role) {
    place[role] = out.layers.size();
    if (used[role]) out.layers.push_back(kRoles[role]);
  }
  for (Outline& outline : out.outlines) outline.layer = place[outline.layer];
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

}  // namespace rim::io
