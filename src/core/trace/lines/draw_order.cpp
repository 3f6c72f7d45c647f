#include "core/trace/lines/draw_order.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/paths.h"

namespace rim::trace::lines {
namespace {

/// Starts and ends of lines in square cells, from which they are taken away one after the other.
class EndGrid {
 public:
  explicit EndGrid(const std::vector<Centreline>& lines) {
    for (const Centreline& line : lines) {
      box_.include(line.path.start);
      box_.include(endOf(line.path));
    }
    const double area = std::max(box_.width(), 1.0) * std::max(box_.height(), 1.0);
    cell_ = std::max(1.0, std::sqrt(area / static_cast<double>(lines.size())));
    columns_ = static_cast<std::ptrdiff_t>(box_.width() / cell_) + 1;
    rows_ = static_cast<std::ptrdiff_t>(box_.height() / cell_) + 1;
    cells_.resize(static_cast<std::size_t>(columns_ * rows_));
    for (std::size_t i = 0; i < lines.size(); ++i) {
      put(lines[i].path.start, 2 * i);
      if (!lines[i].path.closed) put(endOf(lines[i].path), 2 * i + 1);
    }
  }

  /// The nearest of what is left (2 x line, and 1 for its end); there must be something.
  std::size_t nearest(Point from) const {
    const std::ptrdiff_t column = columnOf(from);
    const std::ptrdiff_t row = rowOf(from);
    const Held* best = nullptr;
    double least = 0;
    for (std::ptrdiff_t ring = 0; ring <= std::max(columns_, rows_); ++ring) {
      if (best != nullptr && least < static_cast<double>(ring - 1) * cell_) break;
      for (std::ptrdiff_t r = std::max<std::ptrdiff_t>(0, row - ring); r <= std::min(rows_ - 1, row + ring); ++r) {
        const bool whole = r == row - ring || r == row + ring;
        const std::ptrdiff_t step = whole ? 1 : std::max<std::ptrdiff_t>(1, 2 * ring);
        for (std::ptrdiff_t c = column - ring; c <= column + ring; c += step) {
          if (c < 0 || c >= columns_) continue;
          for (const Held& held : cells_[static_cast<std::size_t>(r * columns_ + c)]) {
            const double off = distance(held.place, from);
            if (best != nullptr && off >= least) continue;
            best = &held;
            least = off;
          }
        }
      }
    }
    return best->number;
  }

  void remove(Point place, std::size_t number) {
    std::erase_if(at(place), [number](const Held& held) { return held.number == number; });
  }

 private:
  struct Held {
    Point place;
    std::size_t number;
  };

  std::ptrdiff_t columnOf(Point p) const {
    return std::clamp<std::ptrdiff_t>(static_cast<std::ptrdiff_t>((p.x - box_.low.x) / cell_), 0, columns_ - 1);
  }
  std::ptrdiff_t rowOf(Point p) const {
    return std::clamp<std::ptrdiff_t>(static_cast<std::ptrdiff_t>((p.y - box_.low.y) / cell_), 0, rows_ - 1);
  }
  std::vector<Held>& at(Point p) { return cells_[static_cast<std::size_t>(rowOf(p) * columns_ + columnOf(p))]; }
  void put(Point p, std::size_t number) { at(p).push_back({p, number}); }

  Box box_;
  double cell_ = 1;
  std::ptrdiff_t columns_ = 1;
  std::ptrdiff_t rows_ = 1;
  std::vector<std::vector<Held>> cells_;
};

}  // namespace

std::vector<Centreline> inDrawOrder(std::vector<Centreline> lines) {
  if (lines.size() < 2) return lines;
  EndGrid grid(lines);
  std::vector<Centreline> ordered;
  ordered.reserve(lines.size());
  Point at;
  while (ordered.size() < lines.size()) {
    const std::size_t number = grid.nearest(at);
    Centreline& line = lines[number / 2];
    grid.remove(line.path.start, 2 * (number / 2));
    if (!line.path.closed) grid.remove(endOf(line.path), 2 * (number / 2) + 1);
    if (number % 2 == 1) line.path = reversed(line.path);
    at = endOf(line.path);
    ordered.push_back(std::move(line));
  }
  return ordered;
}

}  // namespace rim::trace::lines
