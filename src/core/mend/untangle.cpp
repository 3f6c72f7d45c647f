#include "core/mend/untangle.h"

#include <algorithm>
#include <limits>
#include <optional>
#include <set>

#include "core/geometry/path_place.h"
#include "core/mend/crossings.h"
#include "core/mend/small_faults.h"
#include "core/mend/tidy.h"

namespace rim {
namespace {

Drawing drawingOfPaths(std::vector<Path> paths) {
  Drawing drawing;
  drawing.paths = std::move(paths);
  return drawing;
}

std::vector<TrueCrossing> crossingsOf(const Path& path, const MendSettings& settings) {
  const Drawing alone = drawingOfPaths({path});
  const PieceIndex index(alone.paths);
  return trueCrossings(alone, index, coveredStretches(alone, index, settings), settings);
}

Path closedAt(Path open, Point place) {
  open = withEnds(std::move(open), place, place);
  open.closed = true;
  return open;
}

/// Where a crossing lies at a node, cutting there leaves a second node in its place.
Path tidy(Path path, const MendSettings& settings) {
  if (path.segments.empty()) return path;
  return withoutCoincidentNodes(drawingOfPaths({std::move(path)}), settings).drawing.paths.front();
}

/// Both sides of a crossing: what lies between its two visits, and the rest.
struct Sides {
  Path inner;  // closed
  Path rest;
  double innerSize;
  double restSize;  // of an open path without bound: its rest is never a loop
};

Sides sidesOf(const Path& path, const TrueCrossing& c, const MendSettings& settings) {
  Sides sides{tidy(closedAt(between(path, c.a, c.b), c.place), settings),
              tidy(without(path, c.a, c.b, c.place), settings), 0, 0};
  sides.innerSize = sizeOf(sides.inner);
  sides.restSize = path.closed ? sizeOf(sides.rest) : std::numeric_limits<double>::infinity();
  return sides;
}

/// Two lines that cross with one line between them, with its nodes in the right order.
std::optional<Path> inOrder(const Path& path, const TrueCrossing& c) {
  const std::size_t n = path.segments.size();
  const auto isLine = [&](std::size_t i) { return path.segments[i].kind == SegmentKind::Line; };
  for (const auto& [first, last] : {std::pair(c.a.segment, c.b.segment), std::pair(c.b.segment, c.a.segment)}) {
    const std::size_t middle = (first + 1) % n;
    if (n < 4 || (first + 2) % n != last || (!path.closed && last < first)) continue;
    if (!isLine(first) || !isLine(middle) || !isLine(last)) continue;
    Path ordered = path;
    std::swap(ordered.segments[first].end, ordered.segments[middle].end);
    // The start of a closed path is its last node.
    if (path.closed) ordered.start = ordered.segments.back().end;
    return ordered;
  }
  return {};
}

class Untangling {
 public:
  Untangling(const MendSettings& settings, BowTieRule rule) : settings_(settings), rule_(rule) {}

  std::vector<Path> run(const Path& tangled) {
    std::vector<Path> open{tangled};
    std::vector<Path> done;
    int rounds = 0;
    while (!open.empty()) {
      Path path = std::move(open.back());
      open.pop_back();
      constexpr int kMostRounds = 1000;
      if (++rounds > kMostRounds || !step(path, open)) done.push_back(std::move(path));
    }
    return done;
  }
  std::size_t count() const { return count_; }

  /// Mends this crossing of the path, one of so many.
  bool mend(const Path& path, const TrueCrossing& c, std::size_t crossings, std::vector<Path>& open) {
    const Sides sides = sidesOf(path, c, settings_);
    if (std::min(sides.innerSize, sides.restSize) < settings_.loopMm) {
      open.push_back(sides.innerSize <= sides.restSize ? sides.rest : sides.inner);
      ++count_;
      return true;
    }
    return rule_ != BowTieRule::Leave && mendBowTie(path, c, sides, crossings, open);
  }

 private:
  /// Mends one crossing; what comes of it goes onto `open`. False when nothing is to be done.
  bool step(const Path& path, std::vector<Path>& open) {
    if (path.segments.empty()) return false;
    const std::vector<TrueCrossing> crossings = crossingsOf(path, settings_);
    const TrueCrossing* best = nullptr;
    double least = std::numeric_limits<double>::infinity();
    for (const TrueCrossing& c : crossings) {
      const Sides sides = sidesOf(path, c, settings_);
      const double size = std::min(sides.innerSize, sides.restSize);
      if (size >= least) continue;
      least = size;
      best = &c;
    }
    if (best == nullptr) return false;
    return mend(path, *best, crossings.size(), open);
  }

  bool mendBowTie(const Path& path, const TrueCrossing& c, const Sides& sides, std::size_t crossings,
                  std::vector<Path>& open) {
    ++count_;
    if (rule_ == BowTieRule::Mend) {
      auto ordered = inOrder(path, c);
      if (ordered && crossingsOf(*ordered, settings_).size() < crossings) {
        open.push_back(std::move(*ordered));
        return true;
      }
    }
    for (Path& part : apart(sides)) open.push_back(std::move(part));
    return true;
  }

  /// Both sides of a split crossing. Where they still cross each other, they are joined there again, each running on
  /// along the other, so that they turn away from each other instead of crossing: the oriented smoothing of knot
  /// diagrams (H. Seifert, 1935; from memory), which keeps what the outline winds round.
  std::vector<Path> apart(const Sides& sides) const {
    const Drawing both = drawingOfPaths({sides.inner, sides.rest});
    const PieceIndex index(both.paths);
    for (TrueCrossing c : trueCrossings(both, index, coveredStretches(both, index, settings_), settings_)) {
      if (c.a.path == c.b.path) continue;
      if (c.a.path != 0) std::swap(c.a, c.b);
      return {tidy(withLoop(sides.rest, c.b, between(sides.inner, c.a, c.a), c.place), settings_)};
    }
    return both.paths;
  }

  /// The path that runs round the loop when it comes to a place.
  static Path withLoop(const Path& path, const OnPath& at, Path loop, Point place) {
    loop = withEnds(std::move(loop), place, place);
    if (path.closed) {
      Path whole = withEnds(between(path, at, at), place, place);
      append(whole, loop);
      whole.closed = true;
      return whole;
    }
    Path whole = upTo(path, at, place);
    append(whole, loop);
    append(whole, from(path, at, place));
    return whole;
  }

  const MendSettings& settings_;
  BowTieRule rule_;
  std::size_t count_ = 0;
};

}  // namespace

Repaired untangled(const Drawing& drawing, const MendSettings& settings, BowTieRule rule, const std::stop_token& stop) {
  const PieceIndex index(drawing.paths);
  std::set<std::size_t> tangled;
  for (const TrueCrossing& c :
       trueCrossings(drawing, index, coveredStretches(drawing, index, settings, stop), settings, stop)) {
    if (c.a.path == c.b.path) tangled.insert(c.a.path);
  }
  if (tangled.empty()) return {drawing, 0};
  Repaired result{emptyLike(drawing), 0};
  Untangling work(settings, rule);
  for (std::size_t p = 0; p < drawing.paths.size(); ++p) {
    const bool isTangled = tangled.count(p) != 0;
    for (Path& path : isTangled ? work.run(drawing.paths[p]) : std::vector{drawing.paths[p]}) {
      addLike(result.drawing, std::move(path), drawing, p);
    }
  }
  result.count = work.count();
  return result;
}

Drawing untangledAt(const Drawing& drawing, std::size_t path, Point at, const MendSettings& settings, BowTieRule rule) {
  const std::vector<TrueCrossing> crossings = crossingsOf(drawing.paths[path], settings);
  const auto nearest = std::min_element(
      crossings.begin(), crossings.end(),
      [at](const TrueCrossing& a, const TrueCrossing& b) { return distance(a.place, at) < distance(b.place, at); });
  std::vector<Path> made;
  if (nearest == crossings.end() ||
      !Untangling(settings, rule).mend(drawing.paths[path], *nearest, crossings.size(), made)) {
    return drawing;
  }
  std::erase_if(made, isZeroLength);
  if (made.empty()) return withoutPaths(drawing, {path});
  Drawing out = drawing;
  out.paths[path] = made.front();
  for (std::size_t i = 1; i < made.size(); ++i) addLike(out, made[i], drawing, path);
  return out;
}

}  // namespace rim
