#include "core/mend/tidy.h"

#include <algorithm>
#include <set>

#include "core/geometry/nesting.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/mend/small_faults.h"

namespace rim {
namespace {

/// The closed path begun at the start of segment i.
Path begunAt(Path path, std::size_t i) {
  path.start = segmentStart(path, i);
  std::rotate(path.segments.begin(), path.segments.begin() + static_cast<std::ptrdiff_t>(i), path.segments.end());
  return path;
}

}  // namespace

Path withoutSegment(Path path, std::size_t i) {
  const std::size_t n = path.segments.size();
  if (i == 0) {
    // The first goes: the path begins at its end instead, and a closed one ends there, too.
    path.start = path.segments.front().end;
    if (path.closed) {
      Path last{segmentStart(path, n - 1), {path.segments.back()}, false};
      path.segments.back() = withEnds(last, last.start, path.start).segments.front();
    }
  } else if (i + 1 < n) {
    Path next{path.segments[i].end, {path.segments[i + 1]}, false};
    path.segments[i + 1] = withEnds(next, segmentStart(path, i), next.segments.front().end).segments.front();
  } else if (path.closed) {
    Path before{segmentStart(path, i - 1), {path.segments[i - 1]}, false};
    path.segments[i - 1] = withEnds(before, before.start, path.start).segments.front();
  }
  path.segments.erase(path.segments.begin() + static_cast<std::ptrdiff_t>(i));
  return path;
}

Path withoutSpike(Path path, std::size_t i) {
  if (path.closed) {
    path = begunAt(std::move(path), i);
    i = 0;
  }
  const Piece out = pieceOf(path, i);
  const Piece back = pieceOf(path, i + 1);
  const auto at = path.segments.begin() + static_cast<std::ptrdiff_t>(i);
  if (lengthOf(out) > lengthOf(back)) {
    const double t = nearestOn(out, back.segment.end);
    Path kept{out.start, {partOf(out.start, out.segment, 0, std::max(t, 1e-9))}, false};
    *at = withEnds(kept, kept.start, back.segment.end).segments.front();
    path.segments.erase(at + 1);
  } else {
    const double t = nearestOn(back, out.start);
    Path kept{pointAt(back, t), {partOf(back.start, back.segment, std::min(t, 1 - 1e-9), 1)}, false};
    *(at + 1) = withEnds(kept, out.start, back.segment.end).segments.front();
    path.segments.erase(at);
  }
  return path;
}

Repaired withoutZeroLengths(const Drawing& drawing) {
  std::vector<std::size_t> none;
  for (std::size_t p = 0; p < drawing.paths.size(); ++p) {
    if (isZeroLength(drawing.paths[p])) none.push_back(p);
  }
  return {withoutPaths(drawing, none), none.size()};
}

Repaired withoutCoincidentNodes(const Drawing& drawing, const MendSettings& settings) {
  Repaired result{drawing, 0};
  const std::vector<SegmentFault> faults = coincidentNodes(drawing.paths, settings.coincidentMm);
  // From the last on, so that the places of the others stay.
  for (auto f = faults.rbegin(); f != faults.rend(); ++f) {
    Path& path = result.drawing.paths[f->path];
    if (path.segments.size() < 2) continue;
    path = withoutSegment(std::move(path), f->segment);
    ++result.count;
  }
  return result;
}

Repaired withoutSpikes(const Drawing& drawing, const MendSettings& settings, double longestMm) {
  Repaired result{drawing, 0};
  for (Path& path : result.drawing.paths) {
    while (path.segments.size() >= 2) {
      const std::vector<SegmentFault> faults = spikes({path}, settings.doubleMm);
      const auto found = std::find_if(faults.begin(), faults.end(),
                                      [longestMm](const SegmentFault& f) { return f.sizeMm <= longestMm; });
      if (found == faults.end()) break;
      path = withoutSpike(std::move(path), found->segment);
      ++result.count;
    }
  }
  return result;
}

Drawing withoutPaths(const Drawing& drawing, const std::vector<std::size_t>& paths) {
  if (paths.empty()) return drawing;
  const std::set<std::size_t> gone(paths.begin(), paths.end());
  Drawing out = emptyLike(drawing);
  for (std::size_t p = 0; p < drawing.paths.size(); ++p) {
    if (gone.count(p) == 0) addLike(out, drawing.paths[p], drawing, p);
  }
  return out;
}

Drawing oriented(const Drawing& drawing) {
  Drawing out = drawing;
  const Nesting nesting = nestingOf(drawing.paths);
  for (std::size_t p = 0; p < out.paths.size(); ++p) {
    Path& path = out.paths[p];
    if (!path.closed) continue;
    const bool hole = nesting.depth[p] % 2 == 1;
    if ((signedArea(path) < 0) != hole) path = reversed(path);
  }
  return out;
}

}  // namespace rim
