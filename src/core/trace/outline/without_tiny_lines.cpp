#include "core/trace/outline/without_tiny_lines.h"

#include "core/geometry/segment.h"

namespace rim::trace::outline {
namespace {

/// The end of a segment moved, and its last handle with it.
void endAt(Segment& segment, Point end) {
  segment.handle2 = segment.handle2 + (end - segment.end);
  segment.end = end;
}

/// Whether a line is shorter than that and turns back from a direction.
bool turnsBack(const Piece& piece, Point direction, double shortPx) {
  constexpr double kNearlyBack = -0.7;  // cosine
  const Point way = piece.segment.end - piece.start;
  const double size = length(way);
  return piece.segment.kind == SegmentKind::Line && size > 0 && size < shortPx &&
         dot(way, direction) < kNearlyBack * size;
}

}  // namespace

Path withoutTinyLines(const Path& path, double tinyPx) {
  constexpr std::size_t kFewestOfClosed = 4;
  if (path.closed && path.segments.size() < kFewestOfClosed) return path;
  Path few{path.start, {}, path.closed};
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    const bool mayGo = s.kind == SegmentKind::Line || !path.closed;
    const bool tiny = mayGo && lengthOf(pieceOf(path, i)) < tinyPx;
    if (tiny && !few.segments.empty()) {
      endAt(few.segments.back(), s.end);
    } else if (!tiny || path.closed || i + 1 == path.segments.size()) {
      few.segments.push_back(s);
    }
  }
  return few;
}

Path withoutHooks(const Path& path, double shortPx) {
  Path without = path;
  std::vector<Segment>& segments = without.segments;
  if (segments.size() > 1) {
    const Piece last = pieceOf(without, segments.size() - 1);
    if (turnsBack(last, tangentAt(pieceOf(without, segments.size() - 2), 1), shortPx)) {
      segments.pop_back();
      endAt(segments.back(), last.segment.end);
    }
  }
  if (segments.size() > 1 && turnsBack(pieceOf(without, 0), tangentAt(pieceOf(without, 1), 0), shortPx))
    segments.erase(segments.begin());
  return without;
}

}  // namespace rim::trace::outline
