#include "core/geometry/paths.h"

#include <algorithm>

namespace rim {

bool operator==(const Paths& a, const Paths& b) { return std::equal(a.begin(), a.end(), b.begin(), b.end()); }

Counts countsOf(const Paths& paths) {
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

Box boxOf(const Paths& paths) {
  Box box;
  for (const Path& path : paths) box.include(boxOf(path));
  return box;
}

double totalLength(const Paths& paths) {
  double sum = 0;
  for (const Path& path : paths) sum += pathLength(path);
  return sum;
}

}  // namespace rim
