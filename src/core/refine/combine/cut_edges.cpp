#include "core/refine/combine/cut_edges.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

#include "core/error.h"
#include "core/geometry/box_index.h"
#include "core/geometry/intersect.h"
#include "core/refine/combine/monotone.h"

namespace rim::refine {
namespace {

/// A monotone part of a segment, with the places where it is to be cut.
struct Part {
  Piece piece;
  std::size_t ring = 0;
  std::size_t segment = 0;
  double begin = 0;
  double end = 1;
  std::vector<double> cuts;  ///< 0..1 of the part
};

std::vector<Part> partsOf(const std::vector<Ring>& rings) {
  std::vector<Part> parts;
  for (std::size_t r = 0; r < rings.size(); ++r) {
    const Path& path = rings[r].path;
    for (std::size_t s = 0; s < path.segments.size(); ++s) {
      const Piece whole = pieceOf(path, s);
      const std::vector<double> cuts = monotoneCuts(whole);
      for (std::size_t c = 0; c + 1 < cuts.size(); ++c) {
        const Segment part =
            cuts.size() == 2 ? whole.segment : partOf(whole.start, whole.segment, cuts[c], cuts[c + 1]);
        const Point start = c == 0 ? whole.start : parts.back().piece.segment.end;
        parts.push_back({{start, part}, r, s, cuts[c], cuts[c + 1], {}});
        if (c + 2 == cuts.size()) parts.back().piece.segment.end = whole.segment.end;
      }
    }
  }
  return parts;
}

/// Notes where two parts meet, and where the one's ends lie on the other.
void meet(Part& a, Part& b, double snap) {
  const auto endsOn = [snap](Part& part, const Piece& other) {
    for (const Point end : {other.start, other.segment.end}) {
      const double t = nearestOn(part.piece, end);
      if (distance(pointAt(part.piece, t), end) <= snap) part.cuts.push_back(t);
    }
  };
  endsOn(a, b.piece);
  endsOn(b, a.piece);
  for (const Meeting& m : meetings(a.piece, b.piece, snap)) {
    a.cuts.push_back(m.t);
    b.cuts.push_back(m.u);
  }
}

void findCuts(std::vector<Part>& parts, double snap, const std::stop_token& stop) {
  std::vector<Box> boxes;
  for (const Part& part : parts) boxes.push_back(boxOf(part.piece));
  const BoxIndex index(boxes);
  for (std::size_t i = 0; i < parts.size(); ++i) {
    if (stop.stop_requested()) throw Cancelled();
    index.near(boxes[i], snap, [&](std::size_t j) {
      if (j > i) meet(parts[i], parts[j], snap);
    });
  }
}

/// Makes one node of places that are nearer than `snap`.
class Nodes {
 public:
  explicit Nodes(double snap) : snap_(snap) {}

  std::size_t add(Point p) {
    places_.push_back(p);
    return places_.size() - 1;
  }

  /// The node of each place, once all are there.
  std::vector<std::size_t> joined(std::vector<Point>& nodes) const {
    std::vector<Box> boxes(places_.size());
    for (std::size_t i = 0; i < places_.size(); ++i) boxes[i].include(places_[i]);
    const BoxIndex index(boxes);
    constexpr auto kNone = static_cast<std::size_t>(-1);
    std::vector<std::size_t> nodeOf(places_.size(), kNone);
    for (std::size_t i = 0; i < places_.size(); ++i) {
      if (nodeOf[i] != kNone) continue;
      const std::size_t node = nodes.size();
      nodes.push_back(places_[i]);
      index.near(boxes[i], snap_, [&](std::size_t j) {
        if (nodeOf[j] == kNone && distance(places_[i], places_[j]) <= snap_) nodeOf[j] = node;
      });
    }
    return nodeOf;
  }

 private:
  double snap_;
  std::vector<Point> places_;
};

/// A piece between other ends that lie next to its own.
Piece between(Piece piece, Point start, Point end) {
  if (piece.segment.kind == SegmentKind::Cubic) {
    piece.segment.handle1 = piece.segment.handle1 + (start - piece.start);
    piece.segment.handle2 = piece.segment.handle2 + (end - piece.segment.end);
  }
  piece.start = start;
  piece.segment.end = end;
  return piece;
}

/// The edges of all parts; each names its ends by places that are joined to nodes later.
std::vector<CutEdge> edgesOf(std::vector<Part>& parts, Nodes& nodes, const std::vector<Ring>& rings) {
  std::vector<CutEdge> edges;
  for (Part& part : parts) {
    part.cuts.insert(part.cuts.end(), {0.0, 1.0});
    std::sort(part.cuts.begin(), part.cuts.end());
    part.cuts.erase(std::unique(part.cuts.begin(), part.cuts.end()), part.cuts.end());
    std::size_t last = nodes.add(part.piece.start);
    for (std::size_t c = 0; c + 1 < part.cuts.size(); ++c) {
      const double a = part.cuts[c];
      const double b = part.cuts[c + 1];
      CutEdge edge;
      edge.piece = {pointAt(part.piece, a), partOf(part.piece.start, part.piece.segment, a, b)};
      edge.from = last;
      edge.to = last = nodes.add(b == 1 ? part.piece.segment.end : pointAt(part.piece, b));
      edge.turns[static_cast<std::size_t>(rings[part.ring].side)] = 1;
      edge.ring = part.ring;
      edge.segment = part.segment;
      edge.begin = part.begin + (part.end - part.begin) * a;
      edge.end = part.begin + (part.end - part.begin) * b;
      edges.push_back(std::move(edge));
    }
  }
  return edges;
}

/// Whether two edges between the same nodes run along one line.
bool areOne(const CutEdge& a, const CutEdge& b, double near) {
  constexpr double kPlaces[] = {0.5, 0.25, 0.75};
  return std::all_of(std::begin(kPlaces), std::end(kPlaces),
                     [&](double t) { return distanceTo(b.piece, pointAt(a.piece, t)) <= near; });
}

std::vector<CutEdge> withoutRepeats(const std::vector<CutEdge>& edges, double near) {
  std::map<std::pair<std::size_t, std::size_t>, std::vector<std::size_t>> byEnds;
  std::vector<CutEdge> kept;
  for (const CutEdge& edge : edges) {
    auto& known = byEnds[{std::min(edge.from, edge.to), std::max(edge.from, edge.to)}];
    const auto same =
        std::find_if(known.begin(), known.end(), [&](std::size_t k) { return areOne(kept[k], edge, near); });
    if (same == known.end()) {
      known.push_back(kept.size());
      kept.push_back(edge);
      continue;
    }
    const int way = kept[*same].from == edge.from ? 1 : -1;
    for (std::size_t side = 0; side < 2; ++side) kept[*same].turns[side] += way * edge.turns[side];
  }
  std::erase_if(kept, [](const CutEdge& edge) { return edge.turns[0] == 0 && edge.turns[1] == 0; });
  return kept;
}

}  // namespace

CutRings cutRings(const std::vector<Ring>& rings, double snap, const std::stop_token& stop) {
  std::vector<Part> parts = partsOf(rings);
  if (parts.empty()) return {};
  findCuts(parts, snap, stop);
  Nodes places(snap);
  std::vector<CutEdge> edges = edgesOf(parts, places, rings);
  CutRings cut;
  const std::vector<std::size_t> nodeOf = places.joined(cut.nodes);
  for (CutEdge& edge : edges) {
    edge.from = nodeOf[edge.from];
    edge.to = nodeOf[edge.to];
    edge.piece = between(edge.piece, cut.nodes[edge.from], cut.nodes[edge.to]);
  }
  std::erase_if(edges, [](const CutEdge& edge) { return edge.from == edge.to; });
  constexpr double kNearlyOne = 20;
  cut.edges = withoutRepeats(edges, kNearlyOne * snap);
  return cut;
}

}  // namespace rim::refine
