#include "core/geometry/edge_grid.h"

namespace rim {
namespace {

struct Grid {
  Point origin;
  double cell;
  double perCell;  ///< its reciprocal
  std::size_t columns;
  std::size_t rows;

  std::size_t column(double x) const { return at((x - origin.x) * perCell, columns); }
  std::size_t row(double y) const { return at((y - origin.y) * perCell, rows); }
  static std::size_t at(double place, std::size_t count) {
    // By way of a signed number, which processors convert at once.
    return static_cast<std::size_t>(
        static_cast<std::ptrdiff_t>(std::clamp(place, 0.0, static_cast<double>(count - 1))));
  }
};

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
  return {box.low, cell, 1 / cell, cells(box.width()), cells(box.height())};
}

template <typename Visit>
void forEachCellOfBox(const Grid& grid, Point a, Point b, double margin, Visit visit) {
  const std::size_t left = grid.column(std::min(a.x, b.x) - margin);
  const std::size_t right = grid.column(std::max(a.x, b.x) + margin);
  const std::size_t high = grid.row(std::max(a.y, b.y) + margin);
  for (std::size_t r = grid.row(std::min(a.y, b.y) - margin); r <= high; ++r) {
    for (std::size_t c = left; c <= right; ++c) visit(r * grid.columns + c);
  }
}

template <typename Visit>
void forEachCell(const Grid& grid, const Edge& e, double margin, Visit visit) {
  // A long slanted edge is taken in short pieces, else its box would fill the whole grid.
  const int pieces = 1 + static_cast<int>(distance(e.a, e.b) * grid.perCell / 4);
  if (pieces == 1) {
    forEachCellOfBox(grid, e.a, e.b, margin, visit);
    return;
  }
  for (int i = 0; i < pieces; ++i) {
    const Point a = lerp(e.a, e.b, static_cast<double>(i) / pieces);
    const Point b = lerp(e.a, e.b, static_cast<double>(i + 1) / pieces);
    forEachCellOfBox(grid, a, b, margin, visit);
  }
}

std::vector<Edge> edgesOf(const std::vector<Polyline>& closed) {
  std::size_t count = 0;
  for (const Polyline& polyline : closed) count += polyline.size();
  std::vector<Edge> edges;
  edges.reserve(count);
  for (std::size_t p = 0; p < closed.size(); ++p) {
    const std::size_t n = closed[p].size();
    for (std::size_t i = 0; i < n; ++i) {
      edges.push_back({closed[p][i], closed[p][i + 1 < n ? i + 1 : 0], static_cast<std::uint32_t>(p),
                       static_cast<std::uint32_t>(i)});
    }
  }
  return edges;
}

}  // namespace

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

std::size_t EdgeGrid::cellAt(Point p) const {
  const Grid grid{origin_, 1 / perCell_, perCell_, columns_, rows_};
  return grid.row(p.y) * columns_ + grid.column(p.x);
}

EdgeGrid::EdgeGrid(const std::vector<Polyline>& closed, double margin) : edges_(edgesOf(closed)) {
  if (edges_.empty()) return;
  const Grid grid = gridFor(edges_);
  origin_ = grid.origin;
  perCell_ = grid.perCell;
  columns_ = grid.columns;
  rows_ = grid.rows;
  // Counting sort of edges into cells: first how many, then where each cell begins.
  begin_.assign(grid.columns * grid.rows + 1, 0);
  for (const Edge& e : edges_) forEachCell(grid, e, margin, [&](std::size_t cell) { ++begin_[cell + 1]; });
  for (std::size_t i = 1; i < begin_.size(); ++i) begin_[i] += begin_[i - 1];
  held_.resize(begin_.back());
  std::vector<std::uint32_t> next(begin_.begin(), begin_.end() - 1);
  for (std::uint32_t i = 0; i < edges_.size(); ++i)
    forEachCell(grid, edges_[i], margin, [&](std::size_t cell) { held_[next[cell]++] = i; });
}

}  // namespace rim
