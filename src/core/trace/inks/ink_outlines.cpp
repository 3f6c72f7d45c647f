#include "core/trace/inks/ink_outlines.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/segment.h"

namespace rim::trace::inks {
namespace {

/// A border run so that an ink of the set lies at its left.
struct Side {
  const FittedBorder* border = nullptr;
  bool turned = false;

  int start() const { return turned ? border->end : border->start; }
  int end() const { return turned ? border->start : border->end; }
  Path path() const { return turned ? reversed(border->path) : border->path; }
  Point leaves() const {
    const Path& p = border->path;
    if (!turned) return startTangent(p.start, p.segments.front());
    return -arrivesAt(p);
  }
  Point arrives() const {
    const Path& p = border->path;
    return turned ? -startTangent(p.start, p.segments.front()) : arrivesAt(p);
  }

 private:
  static Point arrivesAt(const Path& p) {
    const std::size_t last = p.segments.size() - 1;
    return endTangent(segmentStart(p, last), p.segments[last]);
  }
};

/// What is left of an ink between two borders that came to lie on each other.
constexpr double kNoAreaPx2 = 1e-3;
constexpr double kNothingPx = 1e-9;

bool isIn(const std::vector<bool>& inside, std::uint8_t ink) { return ink < inside.size() && inside[ink]; }

/// Of the sides that leave the junction the one that turns most to the left: the set's areas that only touch there
/// stay apart.
std::size_t nextOf(const Side& side, const std::vector<Side>& sides, const std::vector<std::size_t>& leaving,
                   const std::vector<bool>& used) {
  std::size_t best = sides.size();
  double most = -10;
  for (const std::size_t i : leaving) {
    if (used[i]) continue;
    const double turn = angleBetween(side.arrives(), sides[i].leaves());
    if (turn <= most) continue;
    most = turn;
    best = i;
  }
  return best;
}

/// A line that grows at both ends by borders of one way.
struct Line {
  Path path;
  int start = -1;
  int end = -1;

  /// Whether the border goes on from one of the ends, and is part of the line now.
  bool takes(const FittedBorder& next) {
    if (next.start == end || next.end == end) {
      const bool turned = next.start != end;
      append(path, turned ? reversed(next.path) : next.path);
      end = turned ? next.start : next.end;
      return true;
    }
    if (next.end != start && next.start != start) return false;
    const bool turned = next.end != start;
    Path before = turned ? reversed(next.path) : next.path;
    append(before, path);
    path = std::move(before);
    start = turned ? next.end : next.start;
    return true;
  }
};

/// Whether a closed path turns back on the same line where segment i ends: both borders that end in a junction may lead
/// to it by the same short line, and nothing of the ink lies between.
bool turnsBack(const Path& path, std::size_t i) {
  constexpr double kSameLine = 0.999;  // cosine
  const Segment& in = path.segments[i];
  const Segment& out = path.segments[(i + 1) % path.segments.size()];
  if (in.kind != SegmentKind::Line || out.kind != SegmentKind::Line) return false;
  const Point before = segmentStart(path, i) - in.end;
  const Point after = out.end - in.end;
  return before != Point{} && after != Point{} && dot(unit(before), unit(after)) > kSameLine;
}

/// A closed outline without segments of no length, and without what it runs out and back.
Path withoutSpikes(Path path) {
  constexpr std::size_t kFewest = 3;
  for (std::size_t i = 0; i < path.segments.size() && path.segments.size() > kFewest;) {
    const bool nothing = lengthOf(pieceOf(path, i)) < kNothingPx;
    if (!nothing && !turnsBack(path, i)) {
      ++i;
      continue;
    }
    // The next segment, a line when this one is not nothing, begins where this one began.
    const bool last = i + 1 == path.segments.size();
    if (last) path.start = segmentStart(path, i);
    path.segments.erase(path.segments.begin() + static_cast<std::ptrdiff_t>(i));
    i = last || i == 0 ? 0 : i - 1;
  }
  return path;
}

}  // namespace

std::vector<Path> outlinesRound(const InkBorders& borders, const std::vector<bool>& inside) {
  std::vector<Path> outlines;
  std::vector<Side> sides;
  std::vector<std::vector<std::size_t>> leaving(borders.junctions.size());
  for (const FittedBorder& border : borders.borders) {
    const bool left = isIn(inside, border.left);
    if (left == isIn(inside, border.right) || border.path.segments.empty()) continue;
    const Side side{&border, !left};
    if (border.start < 0) {
      outlines.push_back(side.path());
      continue;
    }
    leaving[static_cast<std::size_t>(side.start())].push_back(sides.size());
    sides.push_back(side);
  }
  std::vector<bool> used(sides.size(), false);
  for (std::size_t i = 0; i < sides.size(); ++i) {
    if (used[i]) continue;
    Path path{sides[i].path().start, {}, true};
    for (std::size_t k = i; k < sides.size();) {
      used[k] = true;
      append(path, sides[k].path());
      const int at = sides[k].end();
      if (at == sides[i].start()) break;
      k = nextOf(sides[k], sides, leaving[static_cast<std::size_t>(at)], used);
    }
    path.segments.back().end = path.start;
    path = withoutSpikes(std::move(path));
    if (std::abs(signedArea(path)) > kNoAreaPx2) outlines.push_back(std::move(path));
  }
  return outlines;
}

std::vector<Path> bordersWithin(const InkBorders& borders, const std::vector<bool>& inside) {
  std::vector<const FittedBorder*> own;
  for (const FittedBorder& border : borders.borders) {
    if (isIn(inside, border.left) && isIn(inside, border.right) && !border.path.segments.empty())
      own.push_back(&border);
  }
  std::stable_sort(own.begin(), own.end(),
                   [](const FittedBorder* a, const FittedBorder* b) { return a->way < b->way; });
  std::vector<Path> lines;
  std::vector<bool> used(own.size(), false);
  for (std::size_t i = 0; i < own.size(); ++i) {
    if (used[i]) continue;
    Line line{own[i]->path, own[i]->start, own[i]->end};
    for (std::size_t k = i + 1; line.start >= 0 && k < own.size() && own[k]->way == own[i]->way;) {
      const bool taken = !used[k] && line.takes(*own[k]);
      if (taken) used[k] = true;
      // What did not fit before may fit now.
      k = taken ? i + 1 : k + 1;
    }
    line.path.closed = line.start < 0 || line.start == line.end;
    if (line.path.closed) line.path.segments.back().end = line.path.start;
    lines.push_back(std::move(line.path));
  }
  return lines;
}

}  // namespace rim::trace::inks
