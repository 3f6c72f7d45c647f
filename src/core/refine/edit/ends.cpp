#include "core/refine/edit/ends.h"

#include <algorithm>
#include <utility>

#include "core/geometry/segment.h"
#include "core/mend/repair/meet.h"
#include "core/refine/edit/nodes.h"

namespace rim::refine {
namespace {

Path part(const Path& path, std::size_t from, std::size_t to) {
  Path some{segmentStart(path, from), {}, false};
  some.segments.assign(path.segments.begin() + static_cast<std::ptrdiff_t>(from),
                       path.segments.begin() + static_cast<std::ptrdiff_t>(to));
  return some;
}

/// A closed path open at a node.
Path openedAt(const Path& path, std::size_t node) {
  Path open = begunAt(path, node);
  open.closed = false;
  return open;
}

Path towardsEnd(const Path& path, PathEnd end) { return end == PathEnd::End ? path : reversed(path); }
Path fromEnd(const Path& path, PathEnd end) { return end == PathEnd::Start ? path : reversed(path); }

/// `first` goes on with `second`.
Path inOne(Path first, Path second, double closeBy) {
  const Point end = first.segments.back().end;
  if (distance(end, second.start) > closeBy) {
    first.segments.push_back(Segment::line(second.start));
  } else if (end != second.start) {
    const Point middle = lerp(end, second.start, 0.5);
    first = withEnds(std::move(first), first.start, middle);
    second = withEnds(std::move(second), middle, second.segments.back().end);
  }
  append(first, second);
  return first;
}

/// How two ends meet, however far apart: each is led on by a few times their distance at most.
mend::Joint jointOf(const Piece& before, const Piece& after) {
  constexpr double kTimes = 4;
  mend::MendSettings far;
  far.gapMm = kTimes * distance(before.segment.end, after.start);
  far.doubleMm = 0;
  return mend::joint(before, after, far);
}

}  // namespace

std::vector<Path> partedAt(const Path& path, std::size_t node) {
  if (path.closed) return {openedAt(path, node)};
  if (!segmentBefore(path, node) || !segmentAfter(path, node)) return {path};
  return {part(path, 0, node), part(path, node, path.segments.size())};
}

std::vector<Path> withoutSegments(const Path& path, const std::set<std::size_t>& segments) {
  if (segments.empty()) return {path};
  const std::size_t n = path.segments.size();
  nodeAt(path, *segments.rbegin());
  // A closed path is begun behind the last one that goes.
  const std::size_t begin = path.closed ? (*segments.rbegin() + 1) % n : 0;
  const Path open = path.closed ? openedAt(path, begin) : path;
  std::vector<Path> left;
  bool going = false;
  for (std::size_t i = 0; i < n; ++i) {
    if (segments.count((begin + i) % n) != 0) {
      going = false;
      continue;
    }
    if (!going) left.push_back({segmentStart(open, i), {}, false});
    left.back().segments.push_back(open.segments[i]);
    going = true;
  }
  return left;
}

Point placeOf(const Path& path, PathEnd end) { return end == PathEnd::Start ? path.start : path.segments.back().end; }

Path joined(const Path& first, PathEnd ofFirst, const Path& second, PathEnd ofSecond, double closeBy) {
  const Path one = inOne(towardsEnd(first, ofFirst), fromEnd(second, ofSecond), closeBy);
  return ofFirst == PathEnd::End ? one : reversed(one);
}

Path closedUp(const Path& path, double closeBy) {
  Path closed = path;
  const Point end = path.segments.back().end;
  if (distance(end, path.start) > closeBy) {
    closed.segments.push_back(Segment::line(path.start));
  } else if (end != path.start) {
    const Point middle = lerp(end, path.start, 0.5);
    closed = withEnds(path, middle, middle);
  }
  closed.closed = true;
  return closed;
}

Path met(const Path& first, PathEnd ofFirst, const Path& second, PathEnd ofSecond) {
  Path one = towardsEnd(first, ofFirst);
  const Path other = fromEnd(second, ofSecond);
  const mend::Joint joint = jointOf(pieceOf(one, one.segments.size() - 1), pieceOf(other, 0));
  one.segments.back() = joint.before;
  one.segments.insert(one.segments.end(), joint.between.begin(), joint.between.end());
  one.segments.push_back(joint.after);
  one.segments.insert(one.segments.end(), other.segments.begin() + 1, other.segments.end());
  return ofFirst == PathEnd::End ? one : reversed(one);
}

Path metItself(const Path& path) {
  // A path of one segment is parted in its middle, so that both of its ends can change.
  Path one = path.segments.size() > 1 ? path : withNodeAt(path, {0, 0.5, {}, 0});
  const mend::Joint joint = jointOf(pieceOf(one, one.segments.size() - 1), pieceOf(one, 0));
  one.segments.back() = joint.before;
  one.segments.insert(one.segments.end(), joint.between.begin(), joint.between.end());
  one.start = one.segments.back().end;
  one.segments.front() = joint.after;
  one.closed = true;
  return one;
}

Path startingAt(const Path& path, std::size_t node) { return path.closed ? begunAt(path, node) : path; }

}  // namespace rim::refine
