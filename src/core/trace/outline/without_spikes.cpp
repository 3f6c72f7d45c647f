#include "core/trace/outline/without_spikes.h"

#include <algorithm>
#include <optional>

#include "core/geometry/overlap.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"

namespace rim::trace::outline {
namespace {

constexpr double kAtEnd = 1e-6;

/// What two pieces that meet share from their tip on, one of them wholly.
std::optional<Overlap> outAndBack(const Piece& out, const Piece& back, double widthPx, double mostPx) {
  constexpr double kBack = -0.9;  // cosine
  if (dot(tangentAt(out, 1), tangentAt(back, 0)) > kBack) return {};
  if (std::min(lengthOf(out), lengthOf(back)) > mostPx) return {};
  for (const Overlap& o : overlapsOf(out, back, widthPx)) {
    const bool fromTheTip = o.to > 1 - kAtEnd && o.otherTo < kAtEnd && o.otherFrom > o.otherTo;
    if (fromTheTip && (o.from < kAtEnd || o.otherFrom > 1 - kAtEnd)) return o;
  }
  return {};
}

/// A stretch of one piece with other ends.
Segment stretchOf(const Piece& piece, double from, double to, Point start, Point end) {
  const Path one{piece.start, {piece.segment}, false};
  const Path part = rim::stretchOf(one, {0, from, pointAt(piece, from), 0}, {0, to, pointAt(piece, to), 0});
  if (part.segments.empty()) return Segment::line(end);
  return withEnds(part, start, end).segments.front();
}

}  // namespace

Path withoutSpikes(Path path, double widthPx, double mostPx) {
  for (std::size_t i = 0; i + 1 < path.segments.size();) {
    const Piece out = pieceOf(path, i);
    const Piece back = pieceOf(path, i + 1);
    const auto shared = outAndBack(out, back, widthPx, mostPx);
    if (!shared) {
      ++i;
      continue;
    }
    const bool outGoes = shared->from < kAtEnd;
    path.segments[i] = outGoes ? stretchOf(back, shared->otherFrom, 1, out.start, back.segment.end)
                               : stretchOf(out, 0, shared->from, out.start, back.segment.end);
    path.segments.erase(path.segments.begin() + static_cast<std::ptrdiff_t>(i) + 1);
    i -= std::min<std::size_t>(i, 1);
  }
  return path;
}

}  // namespace rim::trace::outline
