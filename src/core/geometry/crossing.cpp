#include "core/geometry/crossing.h"

#include <cstdint>
#include <map>

#include "core/error.h"

namespace rim {
namespace {

struct Edge {
  Point a, b;
  std::uint32_t polyline;
  std::uint32_t index;
};

struct Grid {
  Point origin;
  double cell;
  std::size_t columns;
  std::size_t rows;

  std::size_t column(double x) const { return at((x - origin.x) / cell, columns); }
  std::size_t row(double y) const { return at((y - origin.y) / cell, rows); }
  static std::size_t at(double place, std::size_t count) {
    return static_cast<std::size_t>(std::clamp(place, 0.0, static_cast<double>(count - 1)));
  }
};

bool touch(const Edge& p, const Edge& q) {
  const double d1 = cross(p.b - p.a, q.a - p.a);
  const double d2 = cross(p.b - p.a, q.b - p.a);
  const double d3 = cross(q.b - q.a, p.a - q.a);
  const double d4 = cross(q.b - q.a, p.b - q.a);
  if ((d1 > 0 && d2 > 0) || (d1 < 0 && d2 < 0) || (d3 > 0 && d4 > 0) || (d3 < 0 && d4 < 0)) return false;
  // Colinear edges meet only where their boxes do.
  return std::max(p.a.x, p.b.x) >= std::min(q.a.x, q.b.x) && std::max(q.a.x, q.b.x) >= std::min(p.a.x, p.b.x) &&
         std::max(p.a.y, p.b.y) >= std::min(q.a.y, q.b.y) && std::max(q.a.y, q.b.y) >= std::min(p.a.y, p.b.y);
}

/// The point that two touching edges share; of parallel ones a point where they overlap.
Point commonPoint(const Edge& p, const Edge& q) {
  const Point u = p.b - p.a;
  const Point v = q.b - q.a;
  const double bend = cross(u, v);
  if (std::abs(bend) > 1e-12 * length(u) * length(v)) {
    return p.a + u * std::clamp(cross(q.a - p.a, v) / bend, 0.0, 1.0);
  }
  const double t = dot(q.a - p.a, u) / std::max(dot(u, u), 1e-300);
  return t >= 0 && t <= 1 ? q.a : q.b;
}

/// Neighbours share a node by right; they are at fault only when one folds back onto the other.
bool foldsBack(const Edge& before, const Edge& after) {
  const Point u = before.b - before.a;
  const Point v = after.b - after.a;
  return dot(u, v) < 0 && std::abs(cross(u, v)) < 1e-12 * length(u) * length(v);
}

bool inConflict(const Edge& p, const Edge& q, const std::vector<Polyline>& closed) {
  if (p.polyline == q.polyline) {
    const std::size_t n = closed[p.polyline].size();
    if ((p.index + 1) % n == q.index) return foldsBack(p, q);
    if ((q.index + 1) % n == p.index) return foldsBack(q, p);
  }
  return touch(p, q);
}

Grid gridFor(const std::vector<Edge>& edges) {
  Box box;
  double sum = 0;
  for (const Edge& e : edges) {
    box.include(e.a);
    sum += distance(e.a, e.b);
  }
  const auto count = static_cast<double>(edges.size());
  const double byLength = 2 * sum / count;
  const double byCount = std::sqrt(std::max(box.width() * box.height(), 1e-12) / count) / 2;
  const double cell = std::max({byLength, byCount, 1e-9});
  const auto cells = [cell](double extent) { return static_cast<std::size_t>(extent / cell) + 1; };
  return {box.low, cell, cells(box.width()), cells(box.height())};
}

template <typename Visit>
void forEachCell(const Grid& grid, const Edge& e, Visit visit) {
  // A long slanted edge is taken in short pieces, else its box would fill the whole grid.
  const int pieces = 1 + static_cast<int>(distance(e.a, e.b) / (4 * grid.cell));
  for (int i = 0; i < pieces; ++i) {
    const Point a = lerp(e.a, e.b, static_cast<double>(i) / pieces);
    const Point b = lerp(e.a, e.b, static_cast<double>(i + 1) / pieces);
    const std::size_t right = grid.column(std::max(a.x, b.x));
    const std::size_t high = grid.row(std::max(a.y, b.y));
    for (std::size_t r = grid.row(std::min(a.y, b.y)); r <= high; ++r) {
      for (std::size_t c = grid.column(std::min(a.x, b.x)); c <= right; ++c) visit(r * grid.columns + c);
    }
  }
}

std::vector<Edge> edgesOf(const std::vector<Polyline>& closed) {
  std::vector<Edge> edges;
  for (std::size_t p = 0; p < closed.size(); ++p) {
    for (std::size_t i = 0; i < closed[p].size(); ++i) {
      edges.push_back({closed[p][i], closed[p][(i + 1) % closed[p].size()], static_cast<std::uint32_t>(p),
                       static_cast<std::uint32_t>(i)});
    }
  }
  return edges;
}

}  // namespace

std::vector<Crossing> findCrossings(const std::vector<Polyline>& closed, std::stop_token stop) {
  const std::vector<Edge> edges = edgesOf(closed);
  if (edges.empty()) return {};
  const Grid grid = gridFor(edges);
  // Counting sort of edges into cells: first how many, then where each cell begins.
  std::vector<std::uint32_t> begin(grid.columns * grid.rows + 1, 0);
  for (const Edge& e : edges) forEachCell(grid, e, [&](std::size_t cell) { ++begin[cell + 1]; });
  for (std::size_t i = 1; i < begin.size(); ++i) begin[i] += begin[i - 1];
  std::vector<std::uint32_t> held(begin.back());
  std::vector<std::uint32_t> next(begin.begin(), begin.end() - 1);
  for (std::uint32_t i = 0; i < edges.size(); ++i) {
    forEachCell(grid, edges[i], [&](std::size_t cell) { held[next[cell]++] = i; });
  }
  std::map<std::uint32_t, std::vector<Point>> found;
  const auto full = [&found](std::uint32_t polyline) { return found[polyline].size() >= kMostCrossingPlaces; };
  for (std::size_t cell = 0; cell + 1 < begin.size(); ++cell) {
    if (cell % 4096 == 0 && stop.stop_requested()) throw Cancelled();
    for (std::uint32_t i = begin[cell]; i < begin[cell + 1]; ++i) {
      for (std::uint32_t j = i + 1; j < begin[cell + 1]; ++j) {
        const Edge& p = edges[held[i]];
        const Edge& q = edges[held[j]];
        if (held[i] == held[j] || !inConflict(p, q, closed)) continue;
        const Point place = commonPoint(p, q);
        if (!full(p.polyline)) found[p.polyline].push_back(place);
        if (p.polyline != q.polyline && !full(q.polyline)) found[q.polyline].push_back(place);
      }
    }
  }
  std::vector<Crossing> crossings;
  for (const auto& [polyline, places] : found) {
    for (const Point place : places) crossings.push_back({polyline, place});
  }
  return crossings;
}

}  // namespace rim
