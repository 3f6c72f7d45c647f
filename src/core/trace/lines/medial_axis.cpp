#include "core/trace/lines/medial_axis.h"

#include <algorithm>
#include <boost/polygon/voronoi.hpp>
#include <cmath>
#include <limits>

#include "core/trace/lines/edges_at.h"

namespace rim::trace::lines {
namespace {

using Diagram = boost::polygon::voronoi_diagram<double>;
using GridPoint = boost::polygon::point_data<std::int32_t>;

/// Boost.Polygon takes whole numbers: so many to a px. 30 000 px and more fit.
constexpr double kPerPx = 4096;

/// A border of millions of points is sampled more sparsely where its ink is wide for strokes: what that puts the axis
/// off by, to and fro, is s^2 / 4 w for samples s apart beside a stroke of width w.
double spacingFor(const std::vector<const contour::Border*>& rings) {
  constexpr double kManyPx = 150'000;
  constexpr double kSparsestPx = 2;
  constexpr double kPerSpacing = 6;
  double length = 0;
  double area = 0;
  for (const contour::Border* ring : rings) {
    for (std::size_t i = 0; i < ring->size(); ++i) length += distance((*ring)[i], (*ring)[(i + 1) % ring->size()]);
    area += contour::borderArea(*ring);
  }
  if (length < kManyPx) return kSampleSpacingPx;
  return std::clamp(2 * area / length / kPerSpacing, kSampleSpacingPx, kSparsestPx);
}

void addRing(MedialAxis& axis, const contour::Border& border, double spacingPx) {
  SampleRing ring{static_cast<std::uint32_t>(axis.samples.size()), 0, 0};
  const auto number = static_cast<std::uint32_t>(axis.rings.size());
  for (std::size_t i = 0; i < border.size(); ++i) {
    const Point a = border[i];
    const Point b = border[(i + 1) % border.size()];
    const double step = distance(a, b);
    if (step < 2 / kPerPx) continue;
    const int parts = static_cast<int>(std::ceil(step / spacingPx));
    for (int k = 0; k < parts; ++k) {
      const double t = static_cast<double>(k) / parts;
      const double along = ring.length + t * step;
      // Points that lie nearer than half of what is wished say nothing new.
      if (axis.samples.size() > ring.first && along - axis.samples.back().along < spacingPx / 2) continue;
      axis.samples.push_back({lerp(a, b, t), number, along});
    }
    ring.length += step;
  }
  ring.end = static_cast<std::uint32_t>(axis.samples.size());
  if (ring.end - ring.first >= 3)
    axis.rings.push_back(ring);
  else
    axis.samples.resize(ring.first);
}

bool areNeighbours(const MedialAxis& axis, std::uint32_t a, std::uint32_t b) {
  return sampleBeside(axis, a, 1) == b || sampleBeside(axis, b, 1) == a;
}

/// Whether a place that is nearer to this sample than to any other lies in the ink, which is at the left of its ring.
bool isInk(const MedialAxis& axis, std::uint32_t sample, Point place) {
  const Point before = axis.samples[sampleBeside(axis, sample, -1)].place;
  const Point after = axis.samples[sampleBeside(axis, sample, 1)].place;
  return cross(after - before, place - axis.samples[sample].place) > 0;
}

void construct(Diagram& diagram, const MedialAxis& axis) {
  std::vector<GridPoint> points;
  points.reserve(axis.samples.size());
  for (const RingSample& s : axis.samples) {
    points.emplace_back(static_cast<std::int32_t>(std::lround(s.place.x * kPerPx)),
                        static_cast<std::int32_t>(std::lround(s.place.y * kPerPx)));
  }
  boost::polygon::construct_voronoi(points.begin(), points.end(), &diagram);
}

/// Whether the border between what an edge's discs touch is so much longer than the chord that this is no mere corner.
bool isStroke(const MedialAxis& axis, const AxisEdge& edge, double pruning) {
  const RingSample& left = axis.samples[edge.left];
  const RingSample& right = axis.samples[edge.right];
  if (left.ring != right.ring) return true;
  const double residual = wayAlongRing(axis, edge.left, edge.right) - distance(left.place, right.place);
  return residual > pruning * std::max(axis.points[edge.from].radius, axis.points[edge.to].radius);
}

/// Removes branches from their tips until a stroke begins.
void prune(MedialAxis& axis, double pruning) {
  const EdgesAt at(axis);
  std::vector<std::uint32_t> degree(axis.points.size());
  std::vector<std::uint32_t> tips;
  for (std::uint32_t p = 0; p < axis.points.size(); ++p) {
    degree[p] = static_cast<std::uint32_t>(at.of(p).size());
    if (degree[p] == 1) tips.push_back(p);
  }
  std::vector<bool> gone(axis.edges.size());
  while (!tips.empty()) {
    const std::uint32_t tip = tips.back();
    tips.pop_back();
    for (const std::uint32_t e : at.of(tip)) {
      if (gone[e] || isStroke(axis, axis.edges[e], pruning)) continue;
      gone[e] = true;
      const std::uint32_t other = axis.edges[e].from == tip ? axis.edges[e].to : axis.edges[e].from;
      --degree[tip];
      if (--degree[other] == 1) tips.push_back(other);
    }
  }
  std::size_t kept = 0;
  for (std::size_t e = 0; e < axis.edges.size(); ++e) {
    if (!gone[e]) axis.edges[kept++] = axis.edges[e];
  }
  axis.edges.resize(kept);
}

void dropUnusedPoints(MedialAxis& axis) {
  constexpr std::uint32_t kUnused = std::numeric_limits<std::uint32_t>::max();
  std::vector<std::uint32_t> numberOf(axis.points.size(), kUnused);
  std::vector<AxisPoint> used;
  for (AxisEdge& e : axis.edges) {
    for (std::uint32_t* end : {&e.from, &e.to}) {
      std::uint32_t& number = numberOf[*end];
      if (number == kUnused) {
        number = static_cast<std::uint32_t>(used.size());
        used.push_back(axis.points[*end]);
      }
      *end = number;
    }
  }
  axis.points = std::move(used);
  axis.edges.shrink_to_fit();
}

/// Takes the diagram's inner vertices and the edges between them that separate samples which do not follow each other.
void takeInnerPart(MedialAxis& axis, const Diagram& diagram) {
  constexpr std::uint32_t kOutside = std::numeric_limits<std::uint32_t>::max();
  std::vector<std::uint32_t> numberOf(diagram.vertices().size(), kOutside);
  const auto pointFor = [&](const Diagram::vertex_type* vertex, std::uint32_t sample) {
    std::uint32_t& number = numberOf[static_cast<std::size_t>(vertex - diagram.vertices().data())];
    if (number != kOutside) return number;
    const Point place{vertex->x() / kPerPx, vertex->y() / kPerPx};
    if (!isInk(axis, sample, place)) return kOutside;
    number = static_cast<std::uint32_t>(axis.points.size());
    axis.points.push_back({place, distance(place, axis.samples[sample].place)});
    return number;
  };
  for (const Diagram::edge_type& edge : diagram.edges()) {
    if (!edge.is_finite() || edge.cell()->source_index() > edge.twin()->cell()->source_index()) continue;
    const auto left = static_cast<std::uint32_t>(edge.cell()->source_index());
    const auto right = static_cast<std::uint32_t>(edge.twin()->cell()->source_index());
    if (areNeighbours(axis, left, right)) continue;
    const std::uint32_t from = pointFor(edge.vertex0(), left);
    const std::uint32_t to = pointFor(edge.vertex1(), left);
    if (from != kOutside && to != kOutside && from != to) axis.edges.push_back({from, to, left, right});
  }
}

}  // namespace

double wayAlongRing(const MedialAxis& axis, std::uint32_t a, std::uint32_t b) {
  const double way = std::abs(axis.samples[a].along - axis.samples[b].along);
  return std::min(way, axis.rings[axis.samples[a].ring].length - way);
}

int shorterWay(const MedialAxis& axis, std::uint32_t a, std::uint32_t b) {
  const double forward = axis.samples[b].along - axis.samples[a].along;
  const double whole = axis.rings[axis.samples[a].ring].length;
  return (forward >= 0 ? forward : forward + whole) <= whole / 2 ? 1 : -1;
}

std::uint32_t sampleBeside(const MedialAxis& axis, std::uint32_t sample, std::ptrdiff_t by) {
  const SampleRing& ring = axis.rings[axis.samples[sample].ring];
  const auto count = static_cast<std::ptrdiff_t>(ring.end - ring.first);
  const std::ptrdiff_t at = static_cast<std::ptrdiff_t>(sample - ring.first) + by;
  return ring.first + static_cast<std::uint32_t>((at % count + count) % count);
}

MedialAxis medialAxis(const std::vector<const contour::Border*>& rings, double pruning) {
  MedialAxis axis;
  const double spacing = spacingFor(rings);
  for (const contour::Border* ring : rings) addRing(axis, *ring, spacing);
  if (axis.samples.empty()) return axis;
  {
    Diagram diagram;  // takes several times as much memory as what is taken from it
    construct(diagram, axis);
    takeInnerPart(axis, diagram);
  }
  prune(axis, pruning);
  dropUnusedPoints(axis);
  return axis;
}

}  // namespace rim::trace::lines
