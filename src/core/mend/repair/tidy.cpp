#include "core/mend/repair/tidy.h"

#include <algorithm>
#include <set>

#include "core/geometry/nesting.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/mend/find/small_faults.h"

namespace rim::mend {
namespace {

/// What is left of a piece that runs out and the one that runs back on it: from the start of the one to the end of the
/// other, along the longer of both.
struct OutAndBack {
  Piece kept;
  Path doubled;  ///< the rest of the longer one, from the node where the kept piece ends or begins to the tip
};

OutAndBack leftOfSpike(const Piece& out, const Piece& back) {
  constexpr double kLeastShare = 1e-9;
  const auto part = [](const Piece& piece, double from, double to) {
    return Path{pointAt(piece, from), {partOf(piece.start, piece.segment, from, to)}, false};
  };
  const Point begin = out.start;
  const Point end = back.segment.end;
  if (lengthOf(out) > lengthOf(back)) {
    const double t = std::max(nearestOn(out, end), kLeastShare);
    const Path kept = part(out, 0, t);
    const Path rest = part(out, std::min(t, 1 - kLeastShare), 1);
    return {{begin, withEnds(kept, begin, end).segments.front()}, withEnds(rest, end, out.segment.end)};
  }
  const double t = std::min(nearestOn(back, begin), 1 - kLeastShare);
  const Path kept = part(back, t, 1);
  const Path rest = reversed(part(back, 0, std::max(t, kLeastShare)));
  return {{begin, withEnds(kept, begin, end).segments.front()}, withEnds(rest, begin, back.start)};
}

/// Cuts off what runs out and back, piece by piece as the path is gone along: what is left of two is compared with the
/// one before.
class SpikeCutter {
 public:
  SpikeCutter(const MendSettings& settings, double longestMm, LongSpikes longer)
      : settings_(settings), longestMm_(longestMm), longer_(longer) {}

  std::size_t count() const { return count_; }
  std::vector<Path> lines() { return std::move(lines_); }

  Path cut(const Path& path) {
    Path result{path.start, {}, path.closed};
    for (const Segment& segment : path.segments) {
      result.segments.push_back(segment);
      while (result.segments.size() >= 2 && cutLast(result)) {
      }
    }
    if (path.closed) cutAtStart(result);
    return result;
  }

 private:
  bool cutLast(Path& path) {
    const std::size_t n = path.segments.size();
    const Piece out = pieceOf(path, n - 2);
    const Piece back = pieceOf(path, n - 1);
    if (!takes(out, back)) return false;
    const Segment left = leftOfSpike(out, back).kept.segment;
    path.segments.pop_back();
    path.segments.back() = left;
    if (distance(out.start, left.end) <= settings_.coincidentMm && path.segments.size() >= 2) {
      path.segments.pop_back();
      path.segments.back() =
          withEnds(Path{segmentStart(path, n - 3), {path.segments.back()}, false}, segmentStart(path, n - 3), left.end)
              .segments.front();
    }
    return true;
  }

  /// The first piece of a closed path may run back on the last one.
  void cutAtStart(Path& path) {
    for (std::size_t n = path.segments.size(); n >= 3 && takes(pieceOf(path, n - 1), pieceOf(path, 0));
         n = path.segments.size()) {
      path = withoutSpike(std::move(path), n - 1);
    }
  }

  /// Whether the two run out and back and are to be cut off; counted then.
  bool takes(const Piece& out, const Piece& back) {
    const double size = spikeOf(out, back, settings_.doubleMm);
    if (size <= 0) return false;
    if (size > longestMm_ && longer_ == LongSpikes::Stay) return false;
    if (size > longestMm_) keepLine(leftOfSpike(out, back).doubled);
    ++count_;
    return true;
  }

  /// Who goes back and forth many times has drawn one line.
  void keepLine(Path line) {
    const auto same = [&](const Path& kept) {
      const Point a = kept.start;
      const Point b = kept.segments.back().end;
      const Point end = line.segments.back().end;
      const double off = std::min(std::max(distance(a, line.start), distance(b, end)),
                                  std::max(distance(a, end), distance(b, line.start)));
      return off <= settings_.doubleMm && kept.segments.front().kind == SegmentKind::Line &&
             line.segments.front().kind == SegmentKind::Line;
    };
    if (lines_.empty() || !same(lines_.back())) lines_.push_back(std::move(line));
  }

  const MendSettings& settings_;
  double longestMm_;
  LongSpikes longer_;
  std::size_t count_ = 0;
  std::vector<Path> lines_;
};

/// The path with the first of every row of nodes that lie in one place.
Path withFirstNodes(const Path& path, double coincidentMm) {
  Path result{path.start, {}, path.closed};
  Point at = path.start;  // where the segment began
  for (const Segment& segment : path.segments) {
    const Piece piece{at, segment};
    at = segment.end;
    const Point kept = endOf(result);
    if (distance(kept, segment.end) <= coincidentMm && lengthOf(piece) <= coincidentMm) continue;
    result.segments.push_back(piece.start == kept
                                  ? segment
                                  : withEnds(Path{piece.start, {segment}, false}, kept, segment.end).segments.front());
  }
  if (result.segments.empty()) return path;
  const Point end = path.segments.back().end;
  if (!(result.segments.back().end == end)) {
    const Piece last = pieceOf(result, result.segments.size() - 1);
    result.segments.back() = withEnds(Path{last.start, {last.segment}, false}, last.start, end).segments.front();
  }
  return result;
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

Path lineOfSpike(const Piece& out, const Piece& back) { return leftOfSpike(out, back).doubled; }

Path withoutSpike(Path path, std::size_t i) {
  if (path.closed) {
    path = begunAt(std::move(path), i);
    i = 0;
  }
  const Piece left = leftOfSpike(pieceOf(path, i), pieceOf(path, i + 1)).kept;
  const auto at = path.segments.begin() + static_cast<std::ptrdiff_t>(i);
  *at = left.segment;
  path.segments.erase(at + 1);
  return path;
}

Repaired withoutZeroLengths(const Drawing& drawing) {
  std::vector<std::size_t> none;
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    if (isZeroLength(drawing.path(p))) none.push_back(p);
  }
  return {withoutPaths(drawing, none), none.size()};
}

Repaired withoutCoincidentNodes(const Drawing& drawing, const MendSettings& settings) {
  Repaired result{drawing, 0};
  for (Outline& outline : result.drawing.outlines) {
    const Path& path = outline.path();
    if (path.segments.size() < 2 || isZeroLength(path)) continue;
    Path merged = withFirstNodes(path, settings.coincidentMm);
    if (merged.segments.size() == path.segments.size()) continue;
    result.count += path.segments.size() - merged.segments.size();
    outline = outline.with(std::move(merged));
  }
  return result;
}

Repaired withoutSpikes(const Drawing& drawing, const MendSettings& settings, double longestMm, LongSpikes longer) {
  SpikeCutter cutter(settings, longestMm, longer);
  Repaired result{emptyLike(drawing), 0};
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    std::vector<Path> parts{cutter.cut(drawing.path(p))};
    for (Path& line : cutter.lines()) parts.push_back(std::move(line));
    addParts(result.drawing, drawing.outlines[p], std::move(parts));
  }
  result.count = cutter.count();
  return result;
}

Drawing withoutOutlines(const Drawing& drawing, const std::set<OutlineId>& outlines) {
  if (outlines.empty()) return drawing;
  Drawing out = emptyLike(drawing);
  for (const Outline& outline : drawing.outlines) {
    if (outlines.count(outline.id) == 0) out.outlines.push_back(outline);
  }
  return out;
}

Drawing withoutPaths(const Drawing& drawing, const std::vector<std::size_t>& paths) {
  if (paths.empty()) return drawing;
  const std::set<std::size_t> gone(paths.begin(), paths.end());
  Drawing out = emptyLike(drawing);
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    if (gone.count(p) == 0) out.outlines.push_back(drawing.outlines[p]);
  }
  return out;
}

Drawing oriented(const Drawing& drawing) {
  Drawing out = drawing;
  const Nesting nesting = nestingOf(pathsOf(drawing));
  for (std::size_t p = 0; p < out.outlines.size(); ++p) {
    const Path& path = out.path(p);
    if (!path.closed) continue;
    const bool hole = nesting.depth[p] % 2 == 1;
    if ((signedArea(path) < 0) != hole) out.setPath(p, reversed(path));
  }
  return out;
}

}  // namespace rim::mend
