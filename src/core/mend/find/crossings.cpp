#include "core/mend/find/crossings.h"

#include <algorithm>
#include <array>
#include <cstdint>
#include <deque>
#include <map>
#include <optional>
#include <set>

#include "core/error.h"
#include "core/geometry/intersect.h"
#include "core/geometry/path_place.h"

namespace rim::mend {
namespace {

constexpr std::size_t kMostCrossings = 100'000;
constexpr double kNothing = 1e-9;  // share of a segment that is none

/// The place `mm` (signed) along the path from a place on it; none beyond the end of an open path.
std::optional<Point> stepAlong(const Path& path, const OnPath& from, double mm) {
  const std::size_t n = path.segments.size();
  std::size_t segment = from.segment;
  double t = from.t;
  double left = std::abs(mm);
  for (std::size_t steps = 0; steps <= n + 1; ++steps) {
    const Piece piece = pieceOf(path, segment);
    const double size = lengthOf(piece);
    const double room = (mm > 0 ? 1 - t : t) * size;
    if (left <= room && size > 0) {
      const double way = left / size;
      return pointAt(piece, std::clamp(mm > 0 ? t + way : t - way, 0.0, 1.0));
    }
    left -= room;
    if (!path.closed && segment == (mm > 0 ? n - 1 : 0)) return {};
    segment = mm > 0 ? (segment + 1) % n : (segment + n - 1) % n;
    t = mm > 0 ? 0 : 1;
  }
  return {};
}

/// A path near a place on it, and on which side of it others are.
class Nearby {
 public:
  /// The pieces within `reachMm` along the path from the place, at least the one that it lies on.
  Nearby(const Path& path, const OnPath& on, double reachMm) {
    const std::size_t n = path.segments.size();
    const Piece own = pieceOf(path, on.segment);
    const double size = std::max(lengthOf(own), 1e-12);
    double before = on.t * size;
    double after = (1 - on.t) * size;
    // Of a curve that comes back to the place the other pass is not meant.
    const double from = std::max(0.0, on.t - reachMm / size);
    const double to = std::min(1.0, on.t + reachMm / size);
    const bool whole = own.segment.kind == SegmentKind::Line || (from == 0 && to == 1);
    pieces_.push_back(whole ? own : Piece{pointAt(own, from), partOf(own.start, own.segment, from, to)});
    for (std::size_t i = on.segment; before < reachMm && (path.closed || i > 0) && pieces_.size() < n;) {
      i = (i + n - 1) % n;
      pieces_.push_front(pieceOf(path, i));
      before += lengthOf(pieces_.front());
    }
    for (std::size_t i = on.segment; after < reachMm && (path.closed || i + 1 < n) && pieces_.size() < n;) {
      i = (i + 1) % n;
      pieces_.push_back(pieceOf(path, i));
      after += lengthOf(pieces_.back());
    }
  }

  double distanceTo(Point p) const {
    double least = std::numeric_limits<double>::infinity();
    for (const Piece& piece : pieces_) least = std::min(least, rim::distanceTo(piece, p));
    return least;
  }

  bool hasAtLeft(Point p) const {
    std::size_t nearest = 0;
    for (std::size_t i = 1; i < pieces_.size(); ++i) {
      if (rim::distanceTo(pieces_[i], p) < rim::distanceTo(pieces_[nearest], p)) nearest = i;
    }
    constexpr double kAtEnd = 1e-9;
    const double t = nearestOn(pieces_[nearest], p);
    const Point off = p - pointAt(pieces_[nearest], t);
    if (t <= kAtEnd && nearest > 0) return isAtLeft(off, pieces_[nearest - 1], pieces_[nearest]);
    if (t >= 1 - kAtEnd && nearest + 1 < pieces_.size()) return isAtLeft(off, pieces_[nearest], pieces_[nearest + 1]);
    return cross(tangentAt(pieces_[nearest], t), off) > 0;
  }

 private:
  /// Beside the node between two pieces: in the corner that a left turn makes, or outside of that of a right turn.
  static bool isAtLeft(Point off, const Piece& before, const Piece& after) {
    const Point in = tangentAt(before, 1);
    const Point out = tangentAt(after, 0);
    const bool leftOfIn = cross(in, off) > 0;
    const bool leftOfOut = cross(out, off) > 0;
    return cross(in, out) > 0 ? leftOfIn && leftOfOut : leftOfIn || leftOfOut;
  }

  std::deque<Piece> pieces_;
};

/// Whether b's two sides lie on different sides of a at their common place: each is looked at farther and farther out
/// until it is clear of a. Through it, by it, or (an open end, or never clear) neither.
bool passesThrough(const Path& a, const OnPath& onA, const Path& b, const OnPath& onB, double touchMm) {
  constexpr double kFarthestMm = 2;
  std::array<std::optional<bool>, 2> atLeft;
  for (double r = 4 * touchMm; r <= kFarthestMm && !(atLeft[0] && atLeft[1]); r *= 2) {
    const Nearby line(a, onA, 2 * r);
    for (const std::size_t side : {0U, 1U}) {
      if (atLeft[side]) continue;
      const auto place = stepAlong(b, onB, side == 0 ? -r : r);
      if (!place) return false;
      if (line.distanceTo(*place) > touchMm) atLeft[side] = line.hasAtLeft(*place);
    }
  }
  return atLeft[0] && atLeft[1] && *atLeft[0] != *atLeft[1];
}

bool nearOpenEnd(const Path& path, Point place, double reach) {
  return !path.closed && std::min(distance(path.start, place), distance(path.segments.back().end, place)) <= reach;
}

/// Where two passes cross: in what place, and how far along their paths.
struct Passes {
  Point place;
  double wayA = 0;
  double wayB = 0;
};

/// Crossings that are known, found again within a reach by the cells of a grid. Where three lines meet nearly in one
/// place three of them are known there, of passes that are told apart by how far along they lie.
class KnownPasses {
 public:
  explicit KnownPasses(double reach) : reach_(reach) {}

  void add(const Passes& p) { cells_[{cellOf(p.place.x), cellOf(p.place.y)}].push_back(p); }

  bool has(const Passes& p) const {
    for (std::int64_t dx = -1; dx <= 1; ++dx) {
      for (std::int64_t dy = -1; dy <= 1; ++dy) {
        const auto cell = cells_.find({cellOf(p.place.x) + dx, cellOf(p.place.y) + dy});
        if (cell == cells_.end()) continue;
        const auto near = [&](const Passes& q) {
          return distance(p.place, q.place) <= reach_ && std::abs(p.wayA - q.wayA) <= reach_ &&
                 std::abs(p.wayB - q.wayB) <= reach_;
        };
        if (std::any_of(cell->second.begin(), cell->second.end(), near)) return true;
      }
    }
    return false;
  }

 private:
  std::int64_t cellOf(double v) const { return static_cast<std::int64_t>(std::floor(v / reach_)); }

  double reach_;
  std::map<std::pair<std::int64_t, std::int64_t>, std::vector<Passes>> cells_;
};

/// Where a cubic crosses itself, by the parameters s < t of both passes: from C(s) = C(t) follow two linear equations
/// in s + t and s t (elementary algebra).
std::optional<std::pair<double, double>> ownCrossing(const Piece& piece) {
  const Point p0 = piece.start;
  const Segment& c = piece.segment;
  if (c.kind != SegmentKind::Cubic) return {};
  const Point cubed = c.end - c.handle2 * 3 + c.handle1 * 3 - p0;
  const Point squared = (c.handle2 - c.handle1 * 2 + p0) * 3;
  const Point linear = (c.handle1 - p0) * 3;
  const double bend = cross(cubed, squared);
  const double size = dot(cubed, cubed);
  if (bend == 0 || size == 0) return {};
  const double sum = -cross(cubed, linear) / bend;
  const double product = sum * sum + dot(squared * sum + linear, cubed) / size;
  const double root = sum * sum - 4 * product;
  if (!(root > 0)) return {};
  const double s = (sum - std::sqrt(root)) / 2;
  const double t = (sum + std::sqrt(root)) / 2;
  // The end of a cubic that comes back to its start is a node, no crossing.
  constexpr double kAtNode = 1e-7;
  if (!(s >= 0 && t <= 1) || (s < kAtNode && t > 1 - kAtNode)) return {};
  return std::pair(s, t);
}

/// Neighbours share a node by right.
bool isSharedNode(const Path& path, std::size_t i, double t, std::size_t j, double u) {
  constexpr double kAtNode = 1e-7;
  const std::size_t n = path.segments.size();
  const bool after = (i + 1 == j || (path.closed && (i + 1) % n == j)) && t > 1 - kAtNode && u < kAtNode;
  const bool before = (j + 1 == i || (path.closed && (j + 1) % n == i)) && u > 1 - kAtNode && t < kAtNode;
  return after || before;
}

class CrossingSearch {
 public:
  CrossingSearch(const Drawing& drawing, const PieceIndex& index, const std::vector<CoveredStretch>& covered,
                 const MendSettings& settings)
      : paths_(pathsOf(drawing)), drawing_(drawing), index_(index), settings_(settings) {
    for (const CoveredStretch& c : covered) {
      if (isRetraced(c)) retrace(c);
      oneTrack_.insert({c.path, c.segment, c.byPath, c.bySegment});
      oneTrack_.insert({c.byPath, c.bySegment, c.path, c.segment});
    }
  }

  std::vector<TrueCrossing> run(const std::stop_token& stop) {
    for (const IndexedPiece& p : index_.pieces()) {
      if (const auto own = ownCrossing(p.piece))
        add({{p.path, p.segment, own->first}, {p.path, p.segment, own->second}, pointAt(p.piece, own->first)});
    }
    index_.pairs(
        0, [this](std::size_t i, std::size_t j) { visit(index_.pieces()[i], index_.pieces()[j]); }, stop);
    return std::move(found_);
  }

 private:
  void visit(const IndexedPiece& a, const IndexedPiece& b) {
    if (!onOneLayer(drawing_, a.path, b.path)) return;
    const bool sameTrack = !oneTrack_.empty() && oneTrack_.count({a.path, a.segment, b.path, b.segment}) != 0;
    if (sameTrack) return;
    for (const Meeting& m : meetings(a.piece, b.piece, settings_.touchMm / 2)) {
      if (a.path == b.path && isSharedNode(paths_[a.path], a.segment, m.t, b.segment, m.u)) continue;
      add({{a.path, a.segment, m.t}, {b.path, b.segment, m.u}, m.place});
    }
  }

  void retrace(const CoveredStretch& c) {
    const OnPath first{c.byPath, c.bySegment, c.byFrom};
    const OnPath second{c.path, c.segment, c.from};
    const Point place = pointAt(pieceOf(paths_[c.path], c.segment), c.from);
    const TrueCrossing crossing{first, second, place};
    if (known(crossing)) return;
    remember(crossing);
  }

  void add(TrueCrossing c) {
    const Path& a = paths_[c.a.path];
    const Path& b = paths_[c.b.path];
    if (nearOpenEnd(a, c.place, settings_.gapMm) || nearOpenEnd(b, c.place, settings_.gapMm)) return;
    if (onOneTrack(c)) return;
    if (c.a.path == c.b.path && std::pair(c.b.segment, c.b.t) < std::pair(c.a.segment, c.a.t)) std::swap(c.a, c.b);
    if (known(c) || !passThrough(a, c.a, b, c.b)) return;
    remember(c);
  }

  void remember(const TrueCrossing& c) {
    if (found_.size() >= kMostCrossings) failForCrossings();
    found_.push_back(c);
    known_.try_emplace(pairOf(c), settings_.touchMm).first->second.add(passesOf(c));
  }

  /// How far along its path a place is; the start of a closed path is its beginning, not its end.
  double wayTo(const OnPath& on) {
    std::vector<double>& ways = ways_[on.path];
    const Path& path = paths_[on.path];
    if (ways.empty()) {
      ways.push_back(0);
      for (std::size_t i = 0; i < path.segments.size(); ++i) ways.push_back(ways.back() + lengthOf(pieceOf(path, i)));
    }
    const double way = ways[on.segment] + on.t * (ways[on.segment + 1] - ways[on.segment]);
    return path.closed && ways.back() - way <= settings_.touchMm / 2 ? 0 : way;
  }

  Passes passesOf(const TrueCrossing& c) {
    const double a = wayTo(c.a);
    const double b = wayTo(c.b);
    return c.a.path < c.b.path || (c.a.path == c.b.path && a < b) ? Passes{c.place, a, b} : Passes{c.place, b, a};
  }

  static std::pair<std::size_t, std::size_t> pairOf(const TrueCrossing& c) {
    return {std::min(c.a.path, c.b.path), std::max(c.a.path, c.b.path)};
  }

  [[noreturn]] static void failForCrossings() {
    throw InputError("lines cross in more than " + std::to_string(kMostCrossings) +
                     " places, the most that is looked at: this is no drawing of outlines.");
  }

  /// Each through the other: a sharp tip that pokes through a line by a few touches does not part it.
  bool passThrough(const Path& a, const OnPath& onA, const Path& b, const OnPath& onB) const {
    return passesThrough(a, onA, b, onB, settings_.touchMm) && passesThrough(b, onB, a, onA, settings_.touchMm);
  }

  /// A crossing at a node is met by up to four pairs of segments.
  bool known(const TrueCrossing& c) {
    const auto same = known_.find(pairOf(c));
    return same != known_.end() && same->second.has(passesOf(c));
  }

  /// Where a double line begins or ends, its neighbours meet the other line.
  bool onOneTrack(const TrueCrossing& c) const {
    if (oneTrack_.empty()) return false;
    const auto around = [](const Path& path, std::size_t s) {
      const std::size_t n = path.segments.size();
      return std::array{(s + n - 1) % n, s, (s + 1) % n};
    };
    for (const std::size_t i : around(paths_[c.a.path], c.a.segment)) {
      for (const std::size_t j : around(paths_[c.b.path], c.b.segment)) {
        if (oneTrack_.count({c.a.path, i, c.b.path, j}) == 0) continue;
        const Piece p = pieceOf(paths_[c.a.path], i);
        const Piece q = pieceOf(paths_[c.b.path], j);
        const double off = std::max(distanceTo(p, c.place), distanceTo(q, c.place));
        if (off <= 2 * settings_.doubleMm) return true;
      }
    }
    return false;
  }

  Paths paths_;
  const Drawing& drawing_;
  const PieceIndex& index_;
  const MendSettings& settings_;
  std::set<std::array<std::size_t, 4>> oneTrack_;
  std::map<std::pair<std::size_t, std::size_t>, KnownPasses> known_;
  std::map<std::size_t, std::vector<double>> ways_;  ///< of each path that was asked for, to its nodes
  std::vector<TrueCrossing> found_;
};

PathPlace placeOf(const Path& path, const OnPath& on) {
  return {on.segment, on.t, pointAt(pieceOf(path, on.segment), on.t), 0};
}

}  // namespace

std::vector<TrueCrossing> trueCrossings(const Drawing& drawing, const PieceIndex& index,
                                        const std::vector<CoveredStretch>& covered, const MendSettings& settings,
                                        const std::stop_token& stop) {
  return CrossingSearch(drawing, index, covered, settings).run(stop);
}

Path between(const Path& path, const OnPath& from, const OnPath& to) {
  return stretchOf(path, placeOf(path, from), placeOf(path, to));
}

Path upTo(const Path& path, const OnPath& at, Point place) {
  if (at.segment == 0 && at.t <= kNothing) return {place, {}, false};
  const Path before = between(path, {at.path, 0, 0}, at);
  return withEnds(before, before.start, place);
}

Path from(const Path& path, const OnPath& at, Point place) {
  const std::size_t last = path.segments.size() - 1;
  if (at.segment == last && at.t >= 1 - kNothing) return {place, {}, false};
  const Path after = between(path, at, {at.path, last, 1});
  return withEnds(after, place, after.segments.back().end);
}

Path without(const Path& path, const OnPath& from, const OnPath& to, Point place) {
  if (path.closed) {
    Path rest = withEnds(stretchOf(path, placeOf(path, to), placeOf(path, from)), place, place);
    rest.closed = true;
    return rest;
  }
  Path rest = upTo(path, from, place);
  append(rest, mend::from(path, to, place));
  return rest;
}

}  // namespace rim::mend
