#include "core/geometry/drawing.h"

#include <algorithm>
#include <map>

namespace rim {

bool onOneLayer(const Drawing& drawing, std::size_t pathA, std::size_t pathB) {
  return drawing.layers.empty() || drawing.layerOf[pathA] == drawing.layerOf[pathB];
}

Drawing emptyLike(const Drawing& drawing) {
  return {{}, drawing.layers, {}, drawing.pageWidth, drawing.pageHeight, drawing.unit};
}

void addLike(Drawing& drawing, Path path, const Drawing& from, std::size_t i) {
  drawing.paths.push_back(std::move(path));
  if (!from.layers.empty()) drawing.layerOf.push_back(from.layerOf[i]);
}

Counts countsOf(const std::vector<Path>& paths) {
  Counts counts;
  counts.outlines = paths.size();
  for (const Path& path : paths) {
    (path.closed ? counts.closed : counts.open)++;
    counts.nodes += nodeCount(path);
    for (const Segment& s : path.segments) {
      if (s.kind == SegmentKind::Line) ++counts.lines;
      if (s.kind == SegmentKind::Arc) ++counts.arcs;
      if (s.kind == SegmentKind::Cubic) ++counts.curves;
    }
  }
  return counts;
}

Box boxOf(const std::vector<Path>& paths) {
  Box box;
  for (const Path& path : paths) box.include(boxOf(path));
  return box;
}

double totalLength(const std::vector<Path>& paths) {
  double sum = 0;
  for (const Path& path : paths) sum += pathLength(path);
  return sum;
}

std::vector<Path> newPaths(const Drawing& before, const Drawing& after) {
  std::multimap<std::pair<double, double>, const Path*> known;
  for (const Path& path : before.paths) known.emplace(std::pair(path.start.x, path.start.y), &path);
  std::vector<Path> found;
  for (const Path& path : after.paths) {
    const auto [first, last] = known.equal_range({path.start.x, path.start.y});
    if (std::none_of(first, last, [&path](const auto& entry) { return *entry.second == path; })) found.push_back(path);
  }
  return found;
}

}  // namespace rim
