#include "core/mend/repair/untangle.h"

#include <algorithm>
#include <optional>
#include <set>

#include "core/error.h"
#include "core/mend/find/crossings.h"
#include "core/mend/find/small_faults.h"
#include "core/mend/repair/smoothing.h"
#include "core/mend/repair/tidy.h"

namespace rim::mend {
namespace {

std::vector<TrueCrossing> crossingsOf(const Path& path, const MendSettings& settings) {
  const Drawing alone = makeDrawing({path});
  const PieceIndex index(pathsOf(alone));
  return trueCrossings(alone, index, coveredStretches(alone, index, settings), settings);
}

/// Where a crossing lies at a node, cutting there leaves a second node in its place.
Path tidy(Path path, const MendSettings& settings) {
  if (path.segments.size() < 2) return path;
  return withoutCoincidentNodes(makeDrawing({std::move(path)}), settings).drawing.path(0);
}

/// Tells which crossings of a path only enclose a loop.
class Loops {
 public:
  Loops(const Path& path, double loopMm) : path_(path), loopMm_(loopMm) {
    ways_.push_back(0);
    for (std::size_t i = 0; i < path.segments.size(); ++i) ways_.push_back(ways_.back() + lengthOf(pieceOf(path, i)));
  }

  bool hasOne(const TrueCrossing& c) const { return isLoop(c.a, c.b) || (path_.closed && isLoop(c.b, c.a)); }

 private:
  /// A line longer than this many times the size of what it encloses is a tangle of many crossings, no loop.
  static constexpr double kMostRoundabout = 8;

  double wayTo(const OnPath& at) const {
    return ways_[at.segment] + at.t * (ways_[at.segment + 1] - ways_[at.segment]);
  }
  bool isLoop(const OnPath& from, const OnPath& to) const {
    const double way = wayTo(to) - wayTo(from);
    const double length = way > 0 ? way : way + ways_.back();
    return length < kMostRoundabout * loopMm_ && sizeOf(between(path_, from, to)) < loopMm_;
  }

  const Path& path_;
  double loopMm_;
  std::vector<double> ways_;  ///< to the start of each segment, and the whole
};

/// Of the parts of a path those that are no loops; at least the largest.
std::vector<Path> withoutLoops(std::vector<Path> parts, const MendSettings& settings) {
  const auto largest = std::max_element(parts.begin(), parts.end(), [](const Path& a, const Path& b) {
    return std::pair(!a.closed, sizeOf(a)) < std::pair(!b.closed, sizeOf(b));
  });
  std::iter_swap(parts.begin(), largest);
  const auto isLoop = [&settings](const Path& part) { return part.closed && sizeOf(part) < settings.loopMm; };
  parts.erase(std::remove_if(parts.begin() + 1, parts.end(), isLoop), parts.end());
  for (Path& part : parts) part = tidy(std::move(part), settings);
  std::erase_if(parts, isZeroLength);
  return parts;
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

/// The path with nodes put in order as long as that takes crossings away.
Path ordered(Path path, const MendSettings& settings, std::size_t& count) {
  constexpr int kMostRounds = 100;
  std::vector<TrueCrossing> crossings = crossingsOf(path, settings);
  for (int round = 0; round < kMostRounds; ++round) {
    const Loops loops(path, settings.loopMm);
    bool done = false;
    for (const TrueCrossing& c : crossings) {
      if (loops.hasOne(c)) continue;
      auto tried = inOrder(path, c);
      if (!tried) continue;
      std::vector<TrueCrossing> left = crossingsOf(*tried, settings);
      if (left.size() >= crossings.size()) continue;
      path = std::move(*tried);
      crossings = std::move(left);
      ++count;
      done = true;
      break;
    }
    if (!done) break;
  }
  return path;
}

std::vector<Path> untangledPath(const Path& tangled, const MendSettings& settings, BowTieRule rule,
                                std::size_t& count) {
  const Path path = rule == BowTieRule::Untangle ? ordered(tangled, settings, count) : tangled;
  std::vector<TrueCrossing> crossings = crossingsOf(path, settings);
  if (rule == BowTieRule::Leave) {
    const Loops loops(path, settings.loopMm);
    std::erase_if(crossings, [&loops](const TrueCrossing& c) { return !loops.hasOne(c); });
  }
  if (crossings.empty()) return {path};
  count += crossings.size();
  return withoutLoops(smoothed(path, crossings), settings);
}

}  // namespace

Repaired untangled(const Drawing& drawing, const MendSettings& settings, BowTieRule rule, const std::stop_token& stop) {
  const PieceIndex index(pathsOf(drawing));
  std::set<std::size_t> tangled;
  for (const TrueCrossing& c :
       trueCrossings(drawing, index, coveredStretches(drawing, index, settings, stop), settings, stop)) {
    if (c.a.path == c.b.path) tangled.insert(c.a.path);
  }
  if (tangled.empty()) return {drawing, 0};
  Repaired result{emptyLike(drawing), 0};
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    if (stop.stop_requested()) throw Cancelled();
    const bool isTangled = tangled.count(p) != 0;
    const Outline& outline = drawing.outlines[p];
    if (!isTangled) result.drawing.outlines.push_back(outline);
    if (isTangled) addParts(result.drawing, outline, untangledPath(outline.path(), settings, rule, result.count));
  }
  return result;
}

Drawing untangledAt(const Drawing& drawing, std::size_t path, Point at, const MendSettings& settings, BowTieRule rule) {
  const Path& tangled = drawing.path(path);
  const std::vector<TrueCrossing> crossings = crossingsOf(tangled, settings);
  const auto nearest = std::min_element(
      crossings.begin(), crossings.end(),
      [at](const TrueCrossing& a, const TrueCrossing& b) { return distance(a.place, at) < distance(b.place, at); });
  if (nearest == crossings.end()) return drawing;
  const bool loop = Loops(tangled, settings.loopMm).hasOne(*nearest);
  if (!loop && rule == BowTieRule::Leave) return drawing;
  std::vector<Path> made;
  auto inTurn = loop || rule != BowTieRule::Untangle ? std::nullopt : inOrder(tangled, *nearest);
  if (inTurn && crossingsOf(*inTurn, settings).size() < crossings.size()) {
    made = {std::move(*inTurn)};
  } else if (loop) {
    made = withoutLoops(smoothed(tangled, {*nearest}), settings);
  } else {
    const auto which = static_cast<std::size_t>(nearest - crossings.begin());
    made = withoutLoops(smoothed(tangled, interlacedWith(crossings, which)), settings);
  }
  if (made.empty()) return withoutPaths(drawing, {path});
  Drawing out = emptyLike(drawing);
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    if (p != path) out.outlines.push_back(drawing.outlines[p]);
    if (p == path) addParts(out, drawing.outlines[p], std::move(made));
  }
  return out;
}

}  // namespace rim::mend
