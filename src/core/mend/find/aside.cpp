#include "core/mend/find/aside.h"

#include <algorithm>
#include <iterator>

#include "core/geometry/nesting.h"
#include "core/geometry/segment.h"

namespace rim::mend {
namespace {

/// Each segment's length stands for three places on it: its ends and its middle.
constexpr double kPlaces = 3;

struct Weighed {
  double value = 0;
  double weight = 0;
};

/// The least value up to which they weigh `wanted`; the greatest one where they never do. Weighted selection by halves
/// (C. A. R. Hoare, Algorithm 65: FIND, CACM 4, 1961).
double valueAt(std::vector<Weighed> all, double wanted) {
  if (all.empty()) return 0;
  auto first = all.begin();
  auto last = all.end();
  while (last - first > 1) {
    const auto middle = first + (last - first) / 2;
    std::nth_element(first, middle, last, [](const Weighed& a, const Weighed& b) { return a.value < b.value; });
    double below = 0;
    for (auto w = first; w != middle; ++w) below += w->weight;
    if (below >= wanted) {
      last = middle;
    } else {
      wanted -= below;
      first = middle;
      if (first->weight >= wanted) break;
      if (last - first == 1) break;
      wanted -= first->weight;
      ++first;
    }
  }
  return first->value;
}

/// The value of a coordinate below which a share of all line lies. Between which bounds it is say the boxes alone, so
/// that only the segments of those paths are looked at that reach over them.
double quantile(const Paths& paths, const std::vector<Extent>& extents, double Point::*axis, double share) {
  double wanted = 0;
  std::vector<Weighed> lows;
  std::vector<Weighed> highs;
  for (const Extent& e : extents) {
    const double weight = kPlaces * e.lengthMm;
    wanted += share * weight;
    lows.push_back({e.box.low.*axis, weight});
    highs.push_back({e.box.high.*axis, weight});
  }
  const double least = valueAt(std::move(lows), wanted);
  const double most = valueAt(std::move(highs), wanted);
  std::vector<Weighed> between;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    const Box& box = extents[p].box;
    if (box.high.*axis < least) wanted -= kPlaces * extents[p].lengthMm;
    if (box.high.*axis < least || box.low.*axis > most) continue;
    for (std::size_t i = 0; i < paths[p].segments.size(); ++i) {
      const Piece piece = pieceOf(paths[p], i);
      const double weight = lengthOf(piece);
      for (const double t : {0.0, 0.5, 1.0}) between.push_back({pointAt(piece, t).*axis, weight});
    }
  }
  return valueAt(std::move(between), wanted);
}

/// The box that holds all but 2 % of the line to each side.
Box mainPlace(const Paths& paths, const std::vector<Extent>& extents) {
  constexpr double kAside = 0.02;
  Box box;
  for (const double share : {kAside, 1 - kAside})
    box.include(Point{quantile(paths, extents, &Point::x, share), quantile(paths, extents, &Point::y, share)});
  return box;
}

double diagonal(const Box& box) { return length({box.width(), box.height()}); }

double apartBy(const Box& a, const Box& b) {
  return length({std::max({a.low.x - b.high.x, b.low.x - a.high.x, 0.0}),
                 std::max({a.low.y - b.high.y, b.low.y - a.high.y, 0.0})});
}

/// The paths farther from the place than `reach` of its diagonals.
std::vector<std::size_t> beyond(const std::vector<Extent>& extents, const Box& place, double reach) {
  std::vector<std::size_t> found;
  if (!(diagonal(place) > 0)) return found;
  for (std::size_t p = 0; p < extents.size(); ++p) {
    if (apartBy(place, extents[p].box) > reach * diagonal(place)) found.push_back(p);
  }
  return found;
}

/// The box that grows from the largest path by all that lies within `reach` of its diagonals, round by round. What one
/// round passed over lay at least that far off, so that the box grows fast and rounds are few.
Box largestGroup(const std::vector<Extent>& extents, double reach) {
  Box group = std::max_element(extents.begin(), extents.end(), [](const Extent& a, const Extent& b) {
                return diagonal(a.box) < diagonal(b.box);
              })->box;
  for (bool grows = true; grows;) {
    grows = false;
    for (const Extent& e : extents) {
      const bool held = group.contains(e.box.low) && group.contains(e.box.high);
      if (held || apartBy(group, e.box) > reach * diagonal(group)) continue;
      group.include(e.box);
      grows = true;
    }
  }
  return group;
}

bool isRectangle(const Path& path) {
  if (!path.closed || path.segments.size() != 4) return false;
  for (std::size_t i = 0; i < 4; ++i) {
    const Piece a = pieceOf(path, i);
    const Piece b = pieceOf(path, (i + 1) % 4);
    constexpr double kSquare = 0.01;
    if (isArc(a.segment) || a.segment.kind == SegmentKind::Cubic) return false;
    if (std::abs(dot(tangentAt(a, 1), tangentAt(b, 0))) > kSquare) return false;
  }
  return true;
}

/// Whether a closed path lies in two others, or more.
bool holdsParts(const Paths& paths) {
  Surroundings round(paths);
  for (std::size_t p = 0; p < paths.size(); ++p) {
    if (round.of(p).size() >= 2) return true;
  }
  return false;
}

}  // namespace

std::vector<Extent> extentsOf(const Paths& paths) {
  std::vector<Extent> extents;
  extents.reserve(paths.size());
  for (const Path& path : paths) extents.push_back({boxOf(path), pathLength(path)});
  return extents;
}

std::vector<std::size_t> strays(const Paths& paths, const std::vector<Extent>& extents) {
  if (paths.size() < 2) return {};
  constexpr double kReach = 0.75;
  const std::vector<std::size_t> aside = beyond(extents, mainPlace(paths, extents), kReach);
  // Leftovers of more line stretch the place that holds nearly all of it; they show from the largest group of paths.
  constexpr double kMostLine = 0.05;
  constexpr double kFarReach = 1;
  std::vector<std::size_t> far = beyond(extents, largestGroup(extents, kFarReach), kFarReach);
  double lineMm = 0;
  for (const std::size_t p : far) lineMm += extents[p].lengthMm;
  double allMm = 0;
  for (const Extent& e : extents) allMm += e.lengthMm;
  if (lineMm > kMostLine * allMm) return aside;
  std::vector<std::size_t> all;
  std::set_union(aside.begin(), aside.end(), far.begin(), far.end(), std::back_inserter(all));
  return all;
}

std::vector<std::size_t> strays(const Paths& paths) { return strays(paths, extentsOf(paths)); }

std::vector<std::size_t> frames(const Paths& paths, const std::vector<Extent>& extents, bool onlyOfParts) {
  Box all;
  for (const Extent& e : extents) all.include(e.box);
  std::size_t frame = paths.size();
  std::size_t others = 0;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    const Box& own = extents[p].box;
    constexpr double kRounded = 1e-6;
    const bool whole = own.low.x <= all.low.x + kRounded && own.low.y <= all.low.y + kRounded &&
                       own.high.x >= all.high.x - kRounded && own.high.y >= all.high.y - kRounded;
    if (whole && frame == paths.size() && isRectangle(paths[p])) {
      frame = p;
    } else {
      others += 1;
    }
  }
  if (frame == paths.size() || others < 2) return {};
  if (onlyOfParts && !holdsParts(paths)) return {};
  return {frame};
}

std::vector<std::size_t> frames(const Paths& paths, bool onlyOfParts) {
  return frames(paths, extentsOf(paths), onlyOfParts);
}

}  // namespace rim::mend
