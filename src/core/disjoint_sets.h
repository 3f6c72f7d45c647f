#pragma once

#include <algorithm>
#include <cstddef>
#include <numeric>
#include <vector>

namespace rim {

/// Numbers from 0 in sets that are joined one by one (union-find with halved paths: R. E. Tarjan and J. van Leeuwen,
/// "Worst-case analysis of set union algorithms", Journal of the ACM 31 (1984), 245-281). A set is known by its least
/// number.
class DisjointSets {
 public:
  explicit DisjointSets(std::size_t count) : parent_(count) {
    std::iota(parent_.begin(), parent_.end(), std::size_t{0});
  }

  /// One more number, in a set of its own.
  void add() { parent_.push_back(parent_.size()); }

  std::size_t of(std::size_t i) {
    while (parent_[i] != i) i = parent_[i] = parent_[parent_[i]];
    return i;
  }

  void join(std::size_t a, std::size_t b) {
    const std::size_t one = of(a);
    const std::size_t other = of(b);
    parent_[std::max(one, other)] = std::min(one, other);
  }

 private:
  std::vector<std::size_t> parent_;
};

}  // namespace rim
