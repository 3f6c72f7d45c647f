#include "core/mend/find/neighbours.h"

#include <algorithm>

#include "core/geometry/box_index.h"
#include "core/geometry/segment.h"
#include "core/mend/find/open_ends.h"
#include "core/mend/find/piece_index.h"

namespace rim::mend {
namespace {

double touchOf(const MendSettings& settings) {
  return std::max({settings.doubleMm, settings.coincidentMm, settings.touchMm});
}

void sortOnce(std::vector<std::size_t>& list) {
  std::sort(list.begin(), list.end());
  list.erase(std::unique(list.begin(), list.end()), list.end());
}

bool hasEnds(const Path& path) { return !path.closed && !path.segments.empty(); }

std::vector<Point> endsOf(const Path& path) {
  if (!hasEnds(path)) return {};
  return {path.start, path.segments.back().end};
}

/// Whether a segment of the path comes within `reach` of one of the pieces.
bool touches(const PieceIndex& pieces, const Path& path, double reach) {
  bool found = false;
  for (std::size_t i = 0; i < path.segments.size() && !found; ++i)
    pieces.near(boxOf(pieceOf(path, i)), reach, [&found](std::size_t) { found = true; });
  return found;
}

}  // namespace

double reachOfEnds(const MendSettings& settings) {
  return std::max(kOvershootReach * settings.gapMm, settings.coincidentMm);
}

std::vector<Neighbours> neighboursOf(const Drawing& drawing, const MendSettings& settings,
                                     const std::stop_token& stop) {
  const Paths paths = pathsOf(drawing);
  std::vector<Neighbours> all(paths.size());
  const PieceIndex index(paths);
  index.pairs(
      touchOf(settings),
      [&](std::size_t i, std::size_t j) {
        const std::size_t a = index.pieces()[i].path;
        const std::size_t b = index.pieces()[j].path;
        if (a == b || (!all[a].touching.empty() && all[a].touching.back() == b)) return;
        all[a].touching.push_back(b);
        all[b].touching.push_back(a);
      },
      stop);
  std::vector<Box> ends;
  std::vector<std::size_t> whose;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    for (const Point end : endsOf(paths[p])) {
      ends.push_back({end, end});
      whose.push_back(p);
    }
  }
  const BoxIndex byPlace(ends);
  for (std::size_t e = 0; e < ends.size(); ++e) {
    byPlace.near(ends[e], reachOfEnds(settings), [&](std::size_t other) {
      const bool meets = distance(ends[e].low, ends[other].low) <= reachOfEnds(settings);
      if (meets && whose[other] != whose[e]) all[whose[e]].ending.push_back(whose[other]);
    });
  }
  for (Neighbours& one : all) {
    sortOnce(one.touching);
    sortOnce(one.ending);
  }
  return all;
}

Neighbours neighboursOf(const Drawing& drawing, std::size_t outline, const MendSettings& settings) {
  const Path& own = drawing.path(outline);
  const PieceIndex pieces{Paths(own)};
  const Box& box = drawing.outlines[outline].box();
  const double touch = touchOf(settings);
  const std::vector<Point> ends = endsOf(own);
  Neighbours found;
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    const Box& there = drawing.outlines[p].box();
    if (p == outline || apart(box, there, std::max(touch, reachOfEnds(settings)))) continue;
    bool near = false;
    if (!apart(box, there, touch)) pieces.near(there, touch, [&near](std::size_t) { near = true; });
    if (near && touches(pieces, drawing.path(p), touch)) found.touching.push_back(p);
    for (const Point end : endsOf(drawing.path(p))) {
      const bool meets =
          std::any_of(ends.begin(), ends.end(), [&](Point e) { return distance(e, end) <= reachOfEnds(settings); });
      if (meets && (found.ending.empty() || found.ending.back() != p)) found.ending.push_back(p);
    }
  }
  return found;
}

}  // namespace rim::mend
