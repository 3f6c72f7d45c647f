#include "core/trace/outline/without_tiny_lines.h"

#include "core/geometry/segment.h"

namespace rim::trace::outline {

Path withoutTinyLines(const Path& path, double tinyPx) {
  constexpr std::size_t kFewestOfClosed = 4;
  if (path.closed && path.segments.size() < kFewestOfClosed) return path;
  Path few{path.start, {}, path.closed};
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    const bool mayGo = s.kind == SegmentKind::Line || !path.closed;
    const bool tiny = mayGo && lengthOf(pieceOf(path, i)) < tinyPx;
    if (tiny && !few.segments.empty()) {
      Segment& before = few.segments.back();
      before.handle2 = before.handle2 + (s.end - before.end);
      before.end = s.end;
    } else if (!tiny || path.closed || i + 1 == path.segments.size()) {
      few.segments.push_back(s);
    }
  }
  return few;
}

}  // namespace rim::trace::outline
