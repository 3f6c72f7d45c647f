#include "core/mend/find/small_faults.h"

#include <algorithm>

#include "core/geometry/overlap.h"
#include "core/geometry/segment.h"

namespace rim::mend {
namespace {

constexpr double kNoLengthMm = 1e-6;

}  // namespace

bool isZeroLength(const Path& path) { return path.segments.empty() || pathLength(path) <= kNoLengthMm; }

std::vector<SegmentFault> coincidentNodes(const Paths& paths, double coincidentMm) {
  std::vector<SegmentFault> found;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    if (paths[p].segments.size() < 2 || isZeroLength(paths[p])) continue;
    for (std::size_t i = 0; i < paths[p].segments.size(); ++i) {
      const Piece piece = pieceOf(paths[p], i);
      if (distance(piece.start, piece.segment.end) > coincidentMm) continue;
      const double size = lengthOf(piece);
      if (size <= coincidentMm) found.push_back({p, i, piece.start, size});
    }
  }
  return found;
}

double spikeOf(const Piece& out, const Piece& back, double doubleMm) {
  if (dot(tangentAt(out, 1), tangentAt(back, 0)) > -0.9) return 0;
  // A long needle whose sides part is a needle; what runs back on its own line does so far more nearly.
  constexpr double kLongTolerances = 10;
  constexpr double kShareWhenLong = 0.2;
  const bool isLong = std::min(lengthOf(out), lengthOf(back)) > kLongTolerances * doubleMm;
  for (const Overlap& o : overlapsOf(out, back, isLong ? kShareWhenLong * doubleMm : doubleMm)) {
    const bool fromTheTip = o.to >= 1 - 1e-6 && o.otherFrom > o.otherTo;
    if (fromTheTip) return std::min(lengthOf(out), lengthOf(back));
  }
  return 0;
}

std::vector<SegmentFault> spikes(const Paths& paths, double doubleMm) {
  std::vector<SegmentFault> found;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    const std::size_t n = paths[p].segments.size();
    if (n < 2) continue;
    for (std::size_t i = 0; i + (paths[p].closed ? 0 : 1) < n; ++i) {
      const Piece out = pieceOf(paths[p], i);
      const Piece back = pieceOf(paths[p], (i + 1) % n);
      const double size = spikeOf(out, back, doubleMm);
      if (size > 0) found.push_back({p, i, out.segment.end, size});
    }
  }
  return found;
}

double sizeOf(const Path& path) {
  const Box box = boxOf(path);
  return std::max(box.width(), box.height());
}

std::vector<std::size_t> closedBelow(const Paths& paths, double mm) {
  std::vector<std::size_t> found;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    if (paths[p].closed && sizeOf(paths[p]) < mm) found.push_back(p);
  }
  return found;
}

}  // namespace rim::mend
