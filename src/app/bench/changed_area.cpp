#include "app/bench/changed_area.h"

#include <unordered_map>

namespace rim::app {
namespace {

bool looksTheSame(const Outline& a, const Outline& b) {
  return a.stroke == b.stroke && (a.sharesPath(b) || a.path() == b.path());
}

/// With the stroke of the pen round it.
Box seenBoxOf(const Outline& outline) {
  Box box = outline.box();
  const Point half{outline.stroke.usual / 2, outline.stroke.usual / 2};
  if (!box.empty()) box = {box.low - half, box.high + half};
  return box;
}

}  // namespace

std::optional<Box> changedArea(const Drawing& before, const Drawing& after) {
  std::unordered_map<OutlineId, std::size_t> places;
  for (std::size_t i = 0; i < before.outlines.size(); ++i) places.emplace(before.outlines[i].id, i);
  Box area;
  std::vector<bool> stays(before.outlines.size(), false);
  std::size_t next = 0;
  for (const Outline& outline : after.outlines) {
    const auto known = places.find(outline.id);
    if (known == places.end()) {
      area.include(seenBoxOf(outline));
      continue;
    }
    if (known->second < next) return {};
    next = known->second + 1;
    const Outline& was = before.outlines[known->second];
    stays[known->second] = true;
    if (looksTheSame(was, outline)) continue;
    area.include(seenBoxOf(was));
    area.include(seenBoxOf(outline));
  }
  for (std::size_t i = 0; i < stays.size(); ++i) {
    if (!stays[i]) area.include(seenBoxOf(before.outlines[i]));
  }
  return area;
}

}  // namespace rim::app
