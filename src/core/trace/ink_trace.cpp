#include "core/trace/ink_trace.h"

#include "core/colour/decisions.h"
#include "core/trace/inks/ink_outlines.h"
#include "core/trace/outline/within_picture.h"

namespace rim::trace {
namespace {

void add(Tracing& tracing, std::vector<Path> outlines, const std::string& name, colour::Rgb colour) {
  if (outlines.empty()) return;
  for (Path& outline : outlines) {
    tracing.outlines.push_back(std::move(outline));
    tracing.layerOf.push_back(tracing.layers.size());
  }
  tracing.layers.push_back({name, colour.r, colour.g, colour.b});
}

}  // namespace

Tracing traceInks(const picture::Picture& picture, const colour::InkMap& map, InkLayout layout,
                  const TraceSettings& settings, const WorkControl& control) {
  const auto within = [size = picture.grey->size()](std::vector<Path> outlines) {
    for (Path& outline : outlines) outline = outline::withinPicture(std::move(outline), size);
    return outlines;
  };
  const inks::InkBorders borders = inks::fitInkBorders(picture, colour::dissolved(map), settings, control);
  std::vector<bool> kept;
  for (const colour::Ink& ink : map.inks) kept.push_back(ink.role == colour::InkRole::Keep);
  Tracing tracing;
  if (layout == InkLayout::CutOut) {
    for (std::size_t i = 0; i < kept.size(); ++i) {
      if (!kept[i]) continue;
      std::vector<bool> only(kept.size(), false);
      only[i] = true;
      add(tracing, within(inks::outlinesRound(borders, only)), colour::nameOf(map.inks[i]), map.inks[i].colour);
    }
    return tracing;
  }
  add(tracing, within(inks::outlinesRound(borders, kept)), "silhouette", {});
  if (layout == InkLayout::Shared) add(tracing, within(inks::bordersWithin(borders, kept)), "borders", {});
  return tracing;
}

PartsAndHoles partsAndHoles(const Paths& outlines) {
  PartsAndHoles count;
  for (const Path& outline : outlines) {
    if (!outline.closed) continue;
    ++(signedArea(outline) > 0 ? count.parts : count.holes);
  }
  return count;
}

}  // namespace rim::trace
