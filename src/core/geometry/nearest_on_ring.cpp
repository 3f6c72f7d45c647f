#include "core/geometry/nearest_on_ring.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/geometry/segment_distance.h"

namespace rim {

NearestOnRing::NearestOnRing(const std::vector<Point>& ring, double cell) : ring_(ring), cell_(cell) {
  for (std::size_t i = 0; i < ring.size(); ++i) {
    box_.include(ring[i]);
    longestEdge_ = std::max(longestEdge_, distance(ring[i], ring[(i + 1) % ring.size()]));
  }
  constexpr double kCellsPerPoint = 2;
  const double area = box_.width() * box_.height();
  cell_ = std::max(cell, std::sqrt(area / (kCellsPerPoint * static_cast<double>(ring.size()))));
  columns_ = static_cast<int>(box_.width() / cell_) + 1;
  rows_ = static_cast<int>(box_.height() / cell_) + 1;
  begin_.assign(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_) + 1, 0);
  for (const Point p : ring) ++begin_[cellAt(column(p), row(p)) + 1];
  for (std::size_t i = 1; i < begin_.size(); ++i) begin_[i] += begin_[i - 1];
  std::vector<std::uint32_t> next(begin_.begin(), begin_.end() - 1);
  held_.resize(ring.size());
  for (std::uint32_t i = 0; i < ring.size(); ++i) held_[next[cellAt(column(ring[i]), row(ring[i]))]++] = i;
}

NearestOnRing::Nearest NearestOnRing::nearest(Point p) const {
  Nearest best{0, std::numeric_limits<double>::infinity()};
  const int most = 2 * std::max(columns_, rows_);
  for (int reach = 1; reach <= most; reach *= 2) {
    for (int y = std::max(0, row(p) - reach); y <= std::min(rows_ - 1, row(p) + reach); ++y) {
      for (int x = std::max(0, column(p) - reach); x <= std::min(columns_ - 1, column(p) + reach); ++x) {
        const std::size_t cell = cellAt(x, y);
        for (std::uint32_t k = begin_[cell]; k < begin_[cell + 1]; ++k) lookAt(held_[k], p, best);
      }
    }
    if (best.off <= (reach - 1) * cell_) break;
  }
  return best;
}

bool NearestOnRing::comesWithin(Point p, double reach, std::size_t& hint) const {
  constexpr std::size_t kAhead = 4;
  const std::size_t n = ring_.size();
  for (std::size_t k = 0; k < kAhead; ++k) {
    const std::size_t i = (hint + k) % n;
    if (distance(ring_[i], p) > reach) continue;
    // On to the nearest of the next few, so that the hint keeps up with the line.
    const std::size_t next = (i + 1) % n;
    hint = distance(ring_[next], p) < distance(ring_[i], p) ? next : i;
    return true;
  }
  const auto within = firstWithin(p, reach);
  if (within) hint = *within;
  return within.has_value();
}

std::optional<std::size_t> NearestOnRing::firstWithin(Point p, double reach) const {
  // The nearer end of an edge that comes as near as that lies no farther off than half the longest edge more.
  const auto cells = static_cast<int>(std::ceil((reach + longestEdge_ / 2) / cell_));
  for (int y = std::max(0, row(p) - cells); y <= std::min(rows_ - 1, row(p) + cells); ++y) {
    for (int x = std::max(0, column(p) - cells); x <= std::min(columns_ - 1, column(p) + cells); ++x) {
      const std::size_t cell = cellAt(x, y);
      for (std::uint32_t k = begin_[cell]; k < begin_[cell + 1]; ++k) {
        Nearest found{0, std::numeric_limits<double>::infinity()};
        lookAt(held_[k], p, found);
        if (found.off <= reach) return held_[k];
      }
    }
  }
  return {};
}

int NearestOnRing::column(Point p) const {
  return std::clamp(static_cast<int>((p.x - box_.low.x) / cell_), 0, columns_ - 1);
}

int NearestOnRing::row(Point p) const { return std::clamp(static_cast<int>((p.y - box_.low.y) / cell_), 0, rows_ - 1); }

std::size_t NearestOnRing::cellAt(int x, int y) const {
  return static_cast<std::size_t>(y) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(x);
}

void NearestOnRing::lookAt(std::uint32_t i, Point p, Nearest& best) const {
  const std::size_t n = ring_.size();
  const double off = std::min(distanceToSegment(p, ring_[(i + n - 1) % n], ring_[i]),
                              distanceToSegment(p, ring_[i], ring_[(i + 1) % n]));
  if (off < best.off) best = {i, off};
}

}  // namespace rim
