#include "core/trace/lines/stroke_chains.h"

#include <algorithm>
#include <map>

#include "core/disjoint_sets.h"
#include "core/trace/lines/edges_at.h"

namespace rim::trace::lines {
namespace {

/// What is shorter than this share of its junction's radius says nothing of a stroke.
constexpr double kHardly = 0.35;
/// Nor does this, where it points out of a corner.
constexpr double kShortTail = 0.8;
/// A tail whose half-width falls by this much a px in its outer half runs into a corner.
constexpr double kTaper = 0.15;

struct Step {
  std::uint32_t edge = 0;
  bool forward = true;
};

/// A walk along edges from one node to the next.
struct Walk {
  std::vector<Step> steps;
  std::uint32_t first = 0;  ///< axis points
  std::uint32_t last = 0;
  double length = 0;
};

class Walker {
 public:
  explicit Walker(const MedialAxis& axis)
      : axis_(axis), at_(axis), degree_(axis.points.size()), gone_(axis.edges.size()), kept_(axis.points.size()) {
    for (std::uint32_t p = 0; p < degree_.size(); ++p) degree_[p] = static_cast<std::uint32_t>(at_.of(p).size());
  }

  std::size_t degree(std::uint32_t point) const { return degree_[point]; }
  bool isNode(std::uint32_t point) const { return degree(point) != 2 || kept_[point]; }

  std::vector<Walk> walks() const {
    std::vector<Walk> all;
    std::vector<bool> walked = gone_;
    const auto walkFrom = [&](std::uint32_t point) {
      for (const std::uint32_t e : at_.of(point)) {
        if (!walked[e]) all.push_back(walk(point, e, walked));
      }
    };
    for (std::uint32_t p = 0; p < degree_.size(); ++p) {
      if (isNode(p)) walkFrom(p);
    }
    for (std::uint32_t p = 0; p < degree_.size(); ++p) walkFrom(p);
    return all;
  }

  /// A junction that a tail was taken from stays one.
  void remove(const Walk& walk, std::uint32_t junction, const TailTip& tip) {
    tails_[junction].push_back(tip);
    for (const Step& s : walk.steps) {
      gone_[s.edge] = true;
      --degree_[axis_.edges[s.edge].from];
      --degree_[axis_.edges[s.edge].to];
    }
    for (const std::uint32_t end : {walk.first, walk.last}) kept_[end] = degree(end) > 0;
  }

  /// The tails that were taken from a junction.
  std::vector<TailTip> tailsAt(std::uint32_t point) const {
    const auto there = tails_.find(point);
    return there == tails_.end() ? std::vector<TailTip>{} : there->second;
  }

 private:
  /// The other edge at a point that has two.
  std::uint32_t nextAt(std::uint32_t point, std::uint32_t edge) const {
    for (const std::uint32_t e : at_.of(point)) {
      if (e != edge && !gone_[e]) return e;
    }
    return edge;
  }

  Walk walk(std::uint32_t from, std::uint32_t edge, std::vector<bool>& walked) const {
    Walk w{{}, from, from, 0};
    while (true) {
      const AxisEdge& e = axis_.edges[edge];
      const bool forward = e.from == w.last;
      walked[edge] = true;
      w.steps.push_back({edge, forward});
      w.last = forward ? e.to : e.from;
      w.length += distance(axis_.points[e.from].place, axis_.points[e.to].place);
      if (w.last == w.first || isNode(w.last)) return w;
      edge = nextAt(w.last, edge);
    }
  }

  const MedialAxis& axis_;
  std::map<std::uint32_t, std::vector<TailTip>> tails_;
  EdgesAt at_;
  std::vector<std::uint32_t> degree_;
  std::vector<bool> gone_;
  std::vector<bool> kept_;
};

std::vector<CentrePoint> pointsOf(const MedialAxis& axis, const Walk& walk) {
  std::vector<CentrePoint> points;
  const auto add = [&](std::uint32_t point, const AxisEdge& e, bool forward) {
    points.push_back(
        {axis.points[point].place, axis.points[point].radius, forward ? e.left : e.right, forward ? e.right : e.left});
  };
  for (const Step& s : walk.steps) {
    const AxisEdge& e = axis.edges[s.edge];
    if (points.empty()) add(s.forward ? e.from : e.to, e, s.forward);
    add(s.forward ? e.to : e.from, e, s.forward);
  }
  return points;
}

/// Where a walk leads from one of its ends, as far as that point's disc reaches.
Point directionFrom(const MedialAxis& axis, const Walk& walk, std::uint32_t end) {
  std::vector<CentrePoint> points = pointsOf(axis, walk);
  if (walk.first != end) std::reverse(points.begin(), points.end());
  const Point start = axis.points[end].place;
  for (const CentrePoint& p : points) {
    if (distance(p.place, start) >= axis.points[end].radius) return unit(p.place - start);
  }
  return unit(points.back().place - start);
}

/// The walks that come to each node.
using WalksAt = std::map<std::uint32_t, std::vector<const Walk*>>;

/// Whether all other walks at the junction lead away from where the tail does, as strokes from their corner's tip.
bool pointsOutward(const MedialAxis& axis, const WalksAt& walksAt, const Walk& tail, std::uint32_t junction) {
  constexpr double kAway = -0.25;
  const Point out = directionFrom(axis, tail, junction);
  const std::vector<const Walk*>& there = walksAt.at(junction);
  return std::all_of(there.begin(), there.end(), [&](const Walk* other) {
    return other == &tail || dot(directionFrom(axis, *other, junction), out) < kAway;
  });
}

/// Whether a walk from a junction to a tip tapers away into the corner of two strokes, or hardly leaves the junction.
bool isTail(const MedialAxis& axis, const Walker& walker, const WalksAt& walksAt, const Walk& walk) {
  const bool firstIsTip = walker.degree(walk.first) == 1;
  const bool lastIsTip = walker.degree(walk.last) == 1;
  if (firstIsTip == lastIsTip) return false;
  const std::uint32_t junction = firstIsTip ? walk.last : walk.first;
  if (walk.length < kHardly * axis.points[junction].radius) return true;
  if (!pointsOutward(axis, walksAt, walk, junction)) return false;
  if (walk.length < kShortTail * axis.points[junction].radius) return true;
  std::vector<CentrePoint> points = pointsOf(axis, walk);
  if (firstIsTip) std::reverse(points.begin(), points.end());
  double passed = 0;
  std::size_t half = 0;
  while (half + 1 < points.size() && passed < walk.length / 2) {
    passed += distance(points[half].place, points[half + 1].place);
    ++half;
  }
  const double fall = points[half].halfWidth - points.back().halfWidth;
  return fall > kTaper * std::max(walk.length - passed, 1e-9);
}

TailTip tipOf(const MedialAxis& axis, const Walk& walk, std::uint32_t junction) {
  const std::vector<CentrePoint> points = pointsOf(axis, walk);
  const CentrePoint& tip = walk.first == junction ? points.back() : points.front();
  return {tip.place, tip.left, tip.right};
}

void removeTails(const MedialAxis& axis, Walker& walker) {
  constexpr int kRounds = 4;
  for (int round = 0; round < kRounds; ++round) {
    bool removed = false;
    const std::vector<Walk> walks = walker.walks();
    WalksAt walksAt;
    for (const Walk& walk : walks) {
      walksAt[walk.first].push_back(&walk);
      if (walk.last != walk.first) walksAt[walk.last].push_back(&walk);
    }
    for (const Walk& walk : walks) {
      // What was a junction may be a mere bend since another tail of it went: then this is no tail but the stroke.
      if (!isTail(axis, walker, walksAt, walk)) continue;
      const std::uint32_t junction = walker.degree(walk.first) == 1 ? walk.last : walk.first;
      if (walker.degree(junction) < 3) continue;
      walker.remove(walk, junction, tipOf(axis, walk, junction));
      removed = true;
    }
    if (!removed) return;
  }
}

/// Gives each axis point that is a node the number of its junction.
std::vector<std::size_t> numberJunctions(const MedialAxis& axis, const Walker& walker, DisjointSets& sets,
                                         std::vector<StrokeJunction>& junctions) {
  std::vector<std::size_t> number(axis.points.size(), ChainEnd::kFree);
  std::vector<std::vector<std::uint32_t>> members;
  for (std::uint32_t p = 0; p < axis.points.size(); ++p) {
    if (walker.degree(p) < 2 || !walker.isNode(p)) continue;
    std::size_t& of = number[sets.of(p)];
    if (of == ChainEnd::kFree) {
      of = members.size();
      members.emplace_back();
    }
    number[p] = of;
    members[of].push_back(p);
  }
  for (const std::vector<std::uint32_t>& points : members) {
    StrokeJunction all;
    for (const std::uint32_t p : points) {
      all.place = all.place + axis.points[p].place * (1 / static_cast<double>(points.size()));
      for (const TailTip& tail : walker.tailsAt(p)) all.tails.push_back(tail);
    }
    for (const std::uint32_t p : points)
      all.radius = std::max(all.radius, distance(all.place, axis.points[p].place) + axis.points[p].radius);
    junctions.push_back(std::move(all));
  }
  return number;
}

}  // namespace

StrokeGraph strokeChains(const MedialAxis& axis) {
  Walker walker(axis);
  removeTails(axis, walker);
  const std::vector<Walk> walks = walker.walks();
  const auto isWithinJunction = [&](const Walk& w) {
    return walker.degree(w.first) >= 2 && walker.degree(w.last) >= 2 && walker.isNode(w.first) &&
           walker.isNode(w.last) && w.first != w.last &&
           w.length < axis.points[w.first].radius + axis.points[w.last].radius;
  };
  DisjointSets sets(axis.points.size());
  for (const Walk& w : walks) {
    if (isWithinJunction(w)) sets.join(w.first, w.last);
  }
  StrokeGraph graph;
  const std::vector<std::size_t> junctionOf = numberJunctions(axis, walker, sets, graph.junctions);
  for (const Walk& w : walks) {
    if (isWithinJunction(w)) continue;
    StrokeChain chain;
    chain.points = pointsOf(axis, w);
    chain.closed = w.first == w.last && !walker.isNode(w.first);
    if (chain.closed) chain.points.pop_back();
    chain.ends = {ChainEnd{junctionOf[w.first], axis.points[w.first].radius},
                  ChainEnd{junctionOf[w.last], axis.points[w.last].radius}};
    graph.chains.push_back(std::move(chain));
  }
  return graph;
}

}  // namespace rim::trace::lines
