#include "core/mend/repair/one_line.h"

#include <algorithm>
#include <map>
#include <optional>

#include "core/geometry/path_place.h"
#include "core/mend/find/double_lines.h"

namespace rim::mend {
namespace {

struct Interval {
  double from;
  double to;
  Point fromPlace;  // where the path that stays passes there
  Point toPlace;
};

/// What lies open between covered intervals of a segment.
class Remnants {
 public:
  Remnants(const Path& path, double leastMm) : path_(path), leastMm_(leastMm) {}

  void add(std::size_t segment, std::vector<Interval> covered) {
    std::sort(covered.begin(), covered.end(), [](const Interval& a, const Interval& b) { return a.from < b.from; });
    const Piece piece = pieceOf(path_, segment);
    const double size = std::max(lengthOf(piece), 1e-12);
    double at = 0;
    std::optional<Point> moved;  // where the stretch begins instead of at the segment's own place
    for (const Interval& c : covered) {
      if (c.from > at && (c.from - at) * size > leastMm_) stretch(piece, at, c.from, moved, c.fromPlace);
      end();
      if (c.to < at) continue;
      at = c.to;
      moved = c.toPlace;
    }
    if (at < 1 && (1 - at) * size > leastMm_) stretch(piece, at, 1, moved, {});
    if (at >= 1 || (1 - at) * size <= leastMm_) end();
  }

  std::vector<Path> take() {
    end();
    return std::move(paths_);
  }

 private:
  void stretch(const Piece& piece, double from, double to, std::optional<Point> start, std::optional<Point> stop) {
    const Point begin = pointAt(piece, from);
    Path part{begin, {partOf(piece.start, piece.segment, from, to)}, false};
    part = withEnds(part, start.value_or(begin), stop.value_or(part.segments.back().end));
    if (!current_) {
      current_ = part;
    } else {
      current_->segments.push_back(part.segments.front());
    }
  }
  void end() {
    if (current_) paths_.push_back(std::move(*current_));
    current_.reset();
  }

  const Path& path_;
  double leastMm_;
  std::optional<Path> current_;
  std::vector<Path> paths_;
};

using BySegment = std::map<std::size_t, std::vector<Interval>>;

std::vector<Path> leftOf(const Path& path, const BySegment& covered, double leastMm) {
  Remnants remnants(path, leastMm);
  for (std::size_t s = 0; s < path.segments.size(); ++s) {
    const auto found = covered.find(s);
    remnants.add(s, found == covered.end() ? std::vector<Interval>{} : found->second);
  }
  std::vector<Path> left = remnants.take();
  // A closed path may begin in the middle of what is left.
  const bool goesOn = path.closed && left.size() > 1 && left.front().start == path.start &&
                      left.back().segments.back().end == path.start;
  if (goesOn) {
    append(left.back(), left.front());
    left.front() = std::move(left.back());
    left.pop_back();
  }
  return left;
}

/// Which closed paths lie on another closed one all the way round, so that the other is enough.
std::vector<bool> repeats(const Drawing& drawing, const std::vector<CoveredStretch>& covered, double doubleMm) {
  std::vector<bool> found(drawing.outlines.size(), false);
  for (const CommonTrack& track : commonTracks(pathsOf(drawing), covered, doubleMm)) {
    const bool another = track.path != track.byPath && drawing.path(track.path).closed;
    if (another && track.whole && !found[track.byPath]) found[track.path] = true;
  }
  return found;
}

/// What is to be cut out of the paths that stay. A closed path that runs along its own line there and back is bridged:
/// both ways go, and what is on either side of the bridge closes by itself.
std::map<std::size_t, BySegment> cutsIn(const Drawing& drawing, const std::vector<CoveredStretch>& covered,
                                        const std::vector<bool>& dropped, const MendSettings& settings) {
  std::map<std::size_t, BySegment> cuts;
  for (const CoveredStretch& c : covered) {
    if (isRetraced(c) || dropped[c.path] || dropped[c.byPath]) continue;
    const bool closed = drawing.path(c.path).closed;
    const bool bridge = closed && c.path == c.byPath;
    if (closed && !bridge && settings.borders == BorderRule::Twice) continue;
    if (bridge && !liesOnItself(drawing.path(c.path), c, settings.doubleMm)) continue;
    const Piece by = pieceOf(drawing.path(c.byPath), c.bySegment);
    const Point from = pointAt(by, c.byFrom);
    const Point to = pointAt(by, c.byTo);
    cuts[c.path][c.segment].push_back({c.from, c.to, from, to});
    if (bridge) cuts[c.path][c.bySegment].push_back({c.byTo, c.byFrom, to, from});
  }
  return cuts;
}

Repaired cutOut(const Drawing& drawing, const std::vector<CoveredStretch>& covered, const MendSettings& settings) {
  if (covered.empty()) return {drawing, 0};
  const std::vector<bool> dropped = repeats(drawing, covered, settings.doubleMm);
  const auto cuts = cutsIn(drawing, covered, dropped, settings);
  Repaired result{emptyLike(drawing), 0};
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    result.count += dropped[p] ? 1 : 0;
    if (dropped[p]) continue;
    const auto cut = cuts.find(p);
    std::vector<Path> left{drawing.path(p)};
    if (cut != cuts.end()) {
      left = leftOf(drawing.path(p), cut->second, settings.doubleMm);
      ++result.count;
    }
    addParts(result.drawing, drawing.outlines[p], std::move(left));
  }
  return result;
}

}  // namespace

Repaired oneLineFromTwo(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  return cutOut(drawing, coveredStretches(drawing, PieceIndex(pathsOf(drawing)), settings, stop), settings);
}

Repaired oneLineFromTwo(const Drawing& drawing, std::size_t path, std::size_t other, const MendSettings& settings) {
  std::vector<CoveredStretch> covered = coveredStretches(drawing, PieceIndex(pathsOf(drawing)), settings);
  std::erase_if(covered, [&](const CoveredStretch& c) {
    return !(c.path == path && c.byPath == other) && !(c.path == other && c.byPath == path);
  });
  return cutOut(drawing, covered, settings);
}

}  // namespace rim::mend
