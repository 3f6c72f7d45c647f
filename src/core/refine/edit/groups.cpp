#include "core/refine/edit/groups.h"

#include <algorithm>

namespace rim::refine {
namespace {

Drawing withGroup(const Drawing& drawing, const std::set<OutlineId>& outlines, std::uint32_t group) {
  Drawing changed = drawing;
  for (Outline& outline : changed.outlines) {
    if (outlines.contains(outline.id)) outline.group = group;
  }
  return changed;
}

}  // namespace

Drawing grouped(const Drawing& drawing, const std::set<OutlineId>& outlines) {
  std::uint32_t last = 0;
  std::size_t count = 0;
  for (const Outline& outline : drawing.outlines) {
    last = std::max(last, outline.group);
    count += outlines.contains(outline.id) ? 1 : 0;
  }
  return count < 2 ? drawing : withGroup(drawing, outlines, last + 1);
}

Drawing ungrouped(const Drawing& drawing, const std::set<OutlineId>& outlines) {
  return withGroup(drawing, outlines, 0);
}

std::set<OutlineId> wholeGroups(const Drawing& drawing, const std::set<OutlineId>& outlines) {
  std::set<std::uint32_t> groups;
  for (const Outline& outline : drawing.outlines) {
    if (outline.group != 0 && outlines.contains(outline.id)) groups.insert(outline.group);
  }
  std::set<OutlineId> all = outlines;
  for (const Outline& outline : drawing.outlines) {
    if (groups.contains(outline.group)) all.insert(outline.id);
  }
  return all;
}

}  // namespace rim::refine
