#pragma once

#include <cstdint>
#include <span>
#include <vector>

#include "core/trace/lines/medial_axis.h"

namespace rim::trace::lines {

/// The edges at each point of an axis, in one list.
class EdgesAt {
 public:
  explicit EdgesAt(const MedialAxis& axis) : begin_(axis.points.size() + 1), edges_(2 * axis.edges.size()) {
    for (const AxisEdge& e : axis.edges) {
      ++begin_[e.from + 1];
      ++begin_[e.to + 1];
    }
    for (std::size_t p = 1; p < begin_.size(); ++p) begin_[p] += begin_[p - 1];
    std::vector<std::uint32_t> next(begin_.begin(), begin_.end() - 1);
    for (std::uint32_t e = 0; e < axis.edges.size(); ++e) {
      edges_[next[axis.edges[e].from]++] = e;
      edges_[next[axis.edges[e].to]++] = e;
    }
  }

  std::span<const std::uint32_t> of(std::uint32_t point) const {
    return {edges_.data() + begin_[point], edges_.data() + begin_[point + 1]};
  }

 private:
  std::vector<std::uint32_t> begin_;
  std::vector<std::uint32_t> edges_;
};

}  // namespace rim::trace::lines
