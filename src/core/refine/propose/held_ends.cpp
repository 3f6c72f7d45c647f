#include "core/refine/propose/held_ends.h"

#include <algorithm>

#include "core/geometry/grown_box.h"
#include "core/geometry/path_place.h"
#include "core/refine/edit/nodes.h"

namespace rim::refine {
namespace {

constexpr double kOnMm = 0.002;

/// The one of a list for an outline; its end when there is none.
auto pathFor(std::vector<ProposedPath>& list, OutlineId outline) {
  return std::find_if(list.begin(), list.end(), [outline](const ProposedPath& p) { return p.outline == outline; });
}

}  // namespace

std::vector<HeldEnd> endsIn(const Drawing& drawing) {
  std::vector<HeldEnd> ends;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const Path& path = drawing.path(i);
    if (path.closed || path.segments.empty()) continue;
    ends.push_back({i, true, path.start});
    ends.push_back({i, false, endOf(path)});
  }
  return ends;
}

std::vector<HeldEnd> endsOn(const std::vector<HeldEnd>& ends, const Drawing& drawing, std::size_t outline) {
  std::vector<HeldEnd> on;
  if (ends.empty()) return on;
  const Path& path = drawing.path(outline);
  const Box box = grown(boxOf(path), kOnMm);
  for (const HeldEnd& end : ends) {
    if (end.outline != outline && box.contains(end.place) && nearestOn(path, end.place).off <= kOnMm) on.push_back(end);
  }
  return on;
}

Proposal withHeldEnds(Proposal proposal, const Drawing& drawing, const std::vector<HeldEnd>& ends) {
  for (ProposedPath& holder : proposal.paths) {
    const auto outline = placeOf(drawing, holder.outline);
    if (!outline) continue;
    for (const HeldEnd& end : endsOn(ends, drawing, *outline)) {
      const OutlineId id = drawing.outlines[end.outline].id;
      if (pathFor(proposal.paths, id) != proposal.paths.end()) continue;
      auto line = pathFor(proposal.along, id);
      if (line == proposal.along.end()) line = proposal.along.insert(line, {id, drawing.path(end.outline)});
      const PathPlace there = nearestOn(holder.path, end.place);
      holder.path = withNodeAt(holder.path, there);
      line->path = withEnds(line->path, end.atStart ? there.place : line->path.start,
                            end.atStart ? endOf(line->path) : there.place);
    }
  }
  return proposal;
}

}  // namespace rim::refine
