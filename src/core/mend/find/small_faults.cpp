#include "core/mend/find/small_faults.h"

#include <algorithm>
#include <iterator>

#include "core/geometry/nesting.h"
#include "core/geometry/overlap.h"
#include "core/geometry/segment.h"

namespace rim {
namespace {

constexpr double kNoLengthMm = 1e-6;

/// The value below which the share of the total weight lies.
double quantile(std::vector<std::pair<double, double>> valueAndWeight, double share) {
  std::sort(valueAndWeight.begin(), valueAndWeight.end());
  double total = 0;
  for (const auto& [value, weight] : valueAndWeight) total += weight;
  double sum = 0;
  for (const auto& [value, weight] : valueAndWeight) {
    sum += weight;
    if (sum >= share * total) return value;
  }
  return valueAndWeight.empty() ? 0 : valueAndWeight.back().first;
}

/// The box that holds all but 2 % of the line to each side.
Box mainPlace(const Paths& paths) {
  std::vector<std::pair<double, double>> xs;
  std::vector<std::pair<double, double>> ys;
  for (const Path& path : paths) {
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const Piece piece = pieceOf(path, i);
      const double weight = lengthOf(piece);
      for (const double t : {0.0, 0.5, 1.0}) {
        const Point p = pointAt(piece, t);
        xs.emplace_back(p.x, weight);
        ys.emplace_back(p.y, weight);
      }
    }
  }
  constexpr double kAside = 0.02;
  Box box;
  box.include(Point{quantile(xs, kAside), quantile(ys, kAside)});
  box.include(Point{quantile(xs, 1 - kAside), quantile(ys, 1 - kAside)});
  return box;
}

double diagonal(const Box& box) { return length({box.width(), box.height()}); }

double apartBy(const Box& a, const Box& b) {
  return length({std::max({a.low.x - b.high.x, b.low.x - a.high.x, 0.0}),
                 std::max({a.low.y - b.high.y, b.low.y - a.high.y, 0.0})});
}

/// The paths farther from the place than `reach` of its diagonals.
std::vector<std::size_t> beyond(const Paths& paths, const Box& place, double reach) {
  std::vector<std::size_t> found;
  if (!(diagonal(place) > 0)) return found;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    if (apartBy(place, boxOf(paths[p])) > reach * diagonal(place)) found.push_back(p);
  }
  return found;
}

/// The box that grows from the largest path by all that lies within `reach` of its diagonals, round by round. What one
/// round passed over lay at least that far off, so that the box grows fast and rounds are few.
Box largestGroup(const Paths& paths, double reach) {
  std::vector<Box> boxes;
  for (const Path& path : paths) boxes.push_back(boxOf(path));
  Box group = *std::max_element(boxes.begin(), boxes.end(),
                                [](const Box& a, const Box& b) { return diagonal(a) < diagonal(b); });
  for (bool grows = true; grows;) {
    grows = false;
    for (const Box& box : boxes) {
      const bool held = group.contains(box.low) && group.contains(box.high);
      if (held || apartBy(group, box) > reach * diagonal(group)) continue;
      group.include(box);
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

std::vector<std::size_t> strays(const Paths& paths) {
  if (paths.size() < 2) return {};
  constexpr double kReach = 0.75;
  const std::vector<std::size_t> aside = beyond(paths, mainPlace(paths), kReach);
  // Leftovers of more line stretch the place that holds nearly all of it; they show from the largest group of paths.
  constexpr double kMostLine = 0.05;
  constexpr double kFarReach = 1;
  std::vector<std::size_t> far = beyond(paths, largestGroup(paths, kFarReach), kFarReach);
  double line = 0;
  for (const std::size_t p : far) line += pathLength(paths[p]);
  if (line > kMostLine * totalLength(paths)) return aside;
  std::vector<std::size_t> all;
  std::set_union(aside.begin(), aside.end(), far.begin(), far.end(), std::back_inserter(all));
  return all;
}

std::vector<std::size_t> frames(const Paths& paths, bool onlyOfParts) {
  Box all = boxOf(paths);
  std::size_t frame = paths.size();
  std::size_t others = 0;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    const Box own = boxOf(paths[p]);
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
  if (onlyOfParts) {
    const Nesting nesting = nestingOf(paths);
    if (std::none_of(nesting.depth.begin(), nesting.depth.end(), [](int depth) { return depth >= 2; })) return {};
  }
  return {frame};
}

}  // namespace rim
