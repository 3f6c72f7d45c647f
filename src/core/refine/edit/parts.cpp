#include "core/refine/edit/parts.h"

#include <map>
#include <numeric>
#include <utility>

#include "core/geometry/nesting.h"

namespace rim::refine {
namespace {

using Parts = std::vector<std::vector<std::size_t>>;

/// The outlines together that belong to one group, or to one outline; `owner` says to which each does.
Parts together(const Drawing& drawing, const std::vector<std::size_t>& owner) {
  Parts parts;
  std::map<std::pair<bool, std::size_t>, std::size_t> known;
  for (std::size_t i = 0; i < owner.size(); ++i) {
    const std::size_t group = drawing.outlines[owner[i]].group;
    const auto [at, isNew] = known.try_emplace({group != 0, group != 0 ? group : owner[i]}, parts.size());
    if (isNew) parts.emplace_back();
    parts[at->second].push_back(i);
  }
  return parts;
}

}  // namespace

Parts partsOf(const Drawing& drawing) {
  const Paths paths = pathsOf(drawing);
  const Nesting nesting = nestingOf(paths);
  std::vector<std::size_t> owner(paths.size());
  for (std::size_t i = 0; i < owner.size(); ++i) owner[i] = outermostRound(nesting, i);
  Parts parts = together(drawing, owner);
  if (parts.size() > 1) return parts;
  std::iota(owner.begin(), owner.end(), 0);
  return together(drawing, owner);
}

Drawing copiesBehindTheirs(Drawing drawing, std::size_t originals) {
  std::vector<Outline> inTurn;
  inTurn.reserve(drawing.outlines.size());
  for (std::size_t i = 0; i < originals; ++i) {
    for (std::size_t k = i; k < drawing.outlines.size(); k += originals)
      inTurn.push_back(std::move(drawing.outlines[k]));
  }
  drawing.outlines = std::move(inTurn);
  return drawing;
}

}  // namespace rim::refine
