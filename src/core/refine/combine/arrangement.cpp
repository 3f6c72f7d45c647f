#include "core/refine/combine/arrangement.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/error.h"
#include "core/geometry/box_index.h"
#include "core/refine/combine/cut_edges.h"
#include "core/refine/combine/monotone.h"

namespace rim::refine {
namespace {

using Windings = std::array<int, 2>;

/// Tells how often the rings wind round the places beside an edge, by a ray from its middle.
class Beside {
 public:
  explicit Beside(const CutRings& cut) : cut_(cut), index_(boxesOf(cut, all_)) {}

  /// At the left of the edge, and at its right.
  std::pair<Windings, Windings> of(std::size_t e) const {
    const CutEdge& edge = cut_.edges[e];
    const Point way = edge.piece.segment.end - edge.piece.start;
    // A ray across the edge: to the right for a steep one, upwards for a flat one.
    const bool upwards = std::abs(way.x) > std::abs(way.y);
    const Windings beyond = along(e, middleOf(edge, upwards), upwards);
    const bool beyondIsRight = upwards ? way.x < 0 : way.y > 0;
    Windings other = beyond;
    for (std::size_t side = 0; side < 2; ++side) other[side] += (beyondIsRight ? 1 : -1) * edge.turns[side];
    return beyondIsRight ? std::pair(other, beyond) : std::pair(beyond, other);
  }

 private:
  static std::vector<Box> boxesOf(const CutRings& cut, Box& all) {
    std::vector<Box> boxes;
    for (const CutEdge& edge : cut.edges) {
      Box box;  // monotone: its ends say it
      box.include(edge.piece.start);
      box.include(edge.piece.segment.end);
      boxes.push_back(box);
      all.include(box);
    }
    return boxes;
  }

  static Point middleOf(const CutEdge& edge, bool upwards) {
    const Point a = edge.piece.start;
    const Point b = edge.piece.segment.end;
    const Point middle = lerp(a, b, 0.5);
    return upwards ? Point{middle.x, crossingAt(edge.piece, middle.x, true)}
                   : Point{crossingAt(edge.piece, middle.y, false), middle.y};
  }

  Windings along(std::size_t self, Point from, bool upwards) const {
    Box ray;
    ray.include(from);
    ray.include(upwards ? Point{from.x, all_.high.y} : Point{all_.high.x, from.y});
    Windings sum{};
    index_.near(ray, 0, [&](std::size_t e) {
      if (e == self) return;
      const CutEdge& edge = cut_.edges[e];
      const double level = upwards ? from.x : from.y;
      const double a = upwards ? edge.piece.start.x : edge.piece.start.y;
      const double b = upwards ? edge.piece.segment.end.x : edge.piece.segment.end.y;
      // A node on the ray belongs to what lies beyond it, so that it counts once.
      if (level < std::min(a, b) || level >= std::max(a, b)) return;
      if (crossingAt(edge.piece, level, upwards) <= (upwards ? from.y : from.x)) return;
      const int turn = (upwards ? b < a : b > a) ? 1 : -1;
      for (std::size_t side = 0; side < 2; ++side) sum[side] += turn * edge.turns[side];
    });
    return sum;
  }

  const CutRings& cut_;
  Box all_;
  BoxIndex index_;
};

/// An edge as it is run with the area at its left.
struct Step {
  std::size_t edge = 0;
  bool forward = true;
};

/// Puts edges together that bound the area.
class Rounds {
 public:
  Rounds(const CutRings& cut, const std::vector<Step>& steps) : cut_(cut), steps_(steps), used_(steps.size(), false) {
    for (std::size_t s = 0; s < steps.size(); ++s) leaving_[fromOf(s)].push_back(s);
  }

  std::vector<std::vector<Step>> all() {
    std::vector<std::vector<Step>> rounds;
    for (std::size_t s = 0; s < steps_.size(); ++s) {
      if (used_[s]) continue;
      std::vector<Step> round = roundFrom(s);
      if (!round.empty()) rounds.push_back(std::move(round));
    }
    return rounds;
  }

 private:
  std::size_t fromOf(std::size_t s) const {
    const CutEdge& e = cut_.edges[steps_[s].edge];
    return steps_[s].forward ? e.from : e.to;
  }
  std::size_t toOf(std::size_t s) const {
    const CutEdge& e = cut_.edges[steps_[s].edge];
    return steps_[s].forward ? e.to : e.from;
  }

  std::vector<Step> roundFrom(std::size_t first) {
    std::vector<std::size_t> way;
    for (std::size_t s = first;;) {
      used_[s] = true;
      way.push_back(s);
      if (toOf(s) == fromOf(first)) break;
      const auto next = nextOf(s);
      if (!next) return {};  // an edge was judged wrongly; what hangs loose bounds nothing
      s = *next;
    }
    std::vector<Step> round;
    for (const std::size_t s : way) round.push_back(steps_[s]);
    return round;
  }

  /// Of the steps that leave where this one arrives the first clockwise from where it came: it bounds the same face.
  std::optional<std::size_t> nextOf(std::size_t s) const {
    const auto leaving = leaving_.find(toOf(s));
    if (leaving == leaving_.end()) return {};
    double shortest = lengthOf(cut_.edges[steps_[s].edge].piece);
    for (const std::size_t n : leaving->second)
      shortest = std::min(shortest, lengthOf(cut_.edges[steps_[n].edge].piece));
    const double back = angleFrom(toOf(s), s, false, shortest);
    std::optional<std::size_t> best;
    double least = 0;
    for (const std::size_t n : leaving->second) {
      if (used_[n]) continue;
      double turn = back - angleFrom(toOf(s), n, true, shortest);
      while (turn <= 0) turn += 2 * std::numbers::pi;
      while (turn > 2 * std::numbers::pi) turn -= 2 * std::numbers::pi;
      if (best && turn >= least) continue;
      best = n;
      least = turn;
    }
    return best;
  }

  /// The direction in which a step lies as seen from a node, a little along it: tangents may be the same.
  double angleFrom(std::size_t node, std::size_t s, bool leaves, double shortest) const {
    constexpr double kLittle = 0.05;
    const CutEdge& edge = cut_.edges[steps_[s].edge];
    const double share = kLittle * shortest / std::max(lengthOf(edge.piece), 1e-300);
    const bool atStart = steps_[s].forward == leaves;
    const Point way = pointAt(edge.piece, atStart ? share : 1 - share) - cut_.nodes[node];
    return std::atan2(way.y, way.x);
  }

  const CutRings& cut_;
  const std::vector<Step>& steps_;
  std::vector<bool> used_;
  std::map<std::size_t, std::vector<std::size_t>> leaving_;
};

/// A round of steps as an outline; what was cut in vain becomes one segment again.
class Outliner {
 public:
  Outliner(const CutRings& cut, const std::vector<Ring>& rings) : cut_(cut), rings_(rings) {}

  AreaOutline of(std::vector<Step> round) const {
    const auto breaks = std::find_if(round.begin(), round.end(), [&](const Step& step) {
      return !goesOn(&step == &round.front() ? round.back() : *(&step - 1), step);
    });
    if (breaks != round.end()) std::rotate(round.begin(), breaks, round.end());
    AreaOutline outline{{startOf(round.front()), {}, true}, 0};
    std::map<std::size_t, double> lengths;
    for (std::size_t i = 0; i < round.size();) {
      std::size_t last = i;
      while (last + 1 < round.size() && goesOn(round[last], round[last + 1])) ++last;
      const Segment joined = segmentOf(round[i], round[last]);
      outline.path.segments.push_back(joined);
      lengths[rings_[edgeOf(round[i]).ring].source] += distance(startOf(round[i]), joined.end);
      i = last + 1;
    }
    outline.source = std::max_element(lengths.begin(), lengths.end(), [](const auto& a, const auto& b) {
                       return a.second < b.second;
                     })->first;
    return outline;
  }

 private:
  const CutEdge& edgeOf(const Step& step) const { return cut_.edges[step.edge]; }
  Point startOf(const Step& step) const { return cut_.nodes[step.forward ? edgeOf(step).from : edgeOf(step).to]; }
  Point endOf(const Step& step) const { return cut_.nodes[step.forward ? edgeOf(step).to : edgeOf(step).from]; }

  bool goesOn(const Step& a, const Step& b) const {
    const CutEdge& e = edgeOf(a);
    const CutEdge& f = edgeOf(b);
    if (e.ring != f.ring || e.segment != f.segment || a.forward != b.forward) return false;
    return a.forward ? e.end == f.begin : e.begin == f.end;
  }

  Segment segmentOf(const Step& first, const Step& last) const {
    const CutEdge& e = edgeOf(first);
    const double begin = first.forward ? e.begin : edgeOf(last).begin;
    const double end = first.forward ? edgeOf(last).end : e.end;
    const Piece whole = pieceOf(rings_[e.ring].path, e.segment);
    Piece part =
        begin == 0 && end == 1 ? whole : Piece{pointAt(whole, begin), partOf(whole.start, whole.segment, begin, end)};
    if (!first.forward) part = reversed(part);
    if (part.segment.kind == SegmentKind::Cubic) {
      part.segment.handle1 = part.segment.handle1 + (startOf(first) - part.start);
      part.segment.handle2 = part.segment.handle2 + (endOf(last) - part.segment.end);
    }
    part.segment.end = endOf(last);
    return part.segment;
  }

  const CutRings& cut_;
  const std::vector<Ring>& rings_;
};

std::vector<Step> stepsOf(const CutRings& cut, const Holds& holds, const std::stop_token& stop) {
  const Beside beside(cut);
  std::vector<Step> steps;
  for (std::size_t e = 0; e < cut.edges.size(); ++e) {
    if (stop.stop_requested()) throw Cancelled();
    const auto [left, right] = beside.of(e);
    const bool atLeft = holds(left[0], left[1]);
    if (atLeft != holds(right[0], right[1])) steps.push_back({e, atLeft});
  }
  return steps;
}

}  // namespace

std::vector<AreaOutline> areaOutlines(const std::vector<Ring>& rings, const Holds& holds, double snap,
                                      const std::stop_token& stop) {
  const CutRings cut = cutRings(rings, snap, stop);
  if (cut.edges.empty()) return {};
  const std::vector<Step> steps = stepsOf(cut, holds, stop);
  const Outliner outliner(cut, rings);
  std::vector<AreaOutline> outlines;
  for (std::vector<Step>& round : Rounds(cut, steps).all()) {
    if (round.size() < 2) continue;
    AreaOutline outline = outliner.of(std::move(round));
    // Slivers between lines that are nearly one.
    constexpr double kThinnest = 20;
    if (std::abs(signedArea(outline.path)) > kThinnest * snap * pathLength(outline.path) / 2)
      outlines.push_back(std::move(outline));
  }
  return outlines;
}

}  // namespace rim::refine
