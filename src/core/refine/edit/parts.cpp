#include "core/refine/edit/parts.h"

#include <limits>
#include <map>

#include "core/geometry/nesting.h"

namespace rim::refine {
namespace {

using Parts = std::vector<std::vector<std::size_t>>;

/// Places of one key together, in the order of their first; those of key 0 each for itself.
Parts together(const std::vector<std::size_t>& keys) {
  Parts parts;
  std::map<std::size_t, std::size_t> known;
  for (std::size_t i = 0; i < keys.size(); ++i) {
    const auto [at, isNew] = known.emplace(keys[i], parts.size());
    if (keys[i] == 0 || isNew) {
      parts.push_back({i});
    } else {
      parts[at->second].push_back(i);
    }
  }
  return parts;
}

Parts groupsOf(const Drawing& drawing) {
  std::vector<std::size_t> keys;
  for (const Outline& outline : drawing.outlines) keys.push_back(outline.group);
  return together(keys);
}

}  // namespace

Parts partsOf(const Drawing& drawing) {
  const Paths paths = pathsOf(drawing);
  const Nesting nesting = nestingOf(paths);
  // Each outline by the outermost one round it, and that one by its group.
  std::vector<std::size_t> keys;
  for (std::size_t i = 0; i < paths.size(); ++i) {
    std::size_t outermost = i;
    while (nesting.parent[outermost]) outermost = *nesting.parent[outermost];
    const std::size_t group = drawing.outlines[outermost].group;
    keys.push_back(group != 0 ? group : std::size_t{1} + std::numeric_limits<std::uint32_t>::max() + outermost);
  }
  Parts parts = together(keys);
  return parts.size() > 1 ? parts : groupsOf(drawing);
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
