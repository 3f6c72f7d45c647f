#include "core/mend/find/in_order.h"

#include <algorithm>
#include <numeric>
#include <tuple>

namespace rim::mend {

std::vector<Finding> inOrder(std::vector<Finding> findings, const OutlinePlaces& places) {
  const auto keyOf = [&places](const Finding& f) {
    return std::tuple(f.kind, f.repair.empty(), places.at(f.outline), places.at(f.other), f.at.x, f.at.y, f.sizeMm);
  };
  std::vector<std::pair<decltype(keyOf(findings.front())), std::size_t>> keys;
  keys.reserve(findings.size());
  for (std::size_t i = 0; i < findings.size(); ++i) keys.emplace_back(keyOf(findings[i]), i);
  std::sort(keys.begin(), keys.end());
  std::vector<Finding> sorted;
  sorted.reserve(findings.size());
  for (const auto& [key, i] : keys) sorted.push_back(std::move(findings[i]));
  return sorted;
}

}  // namespace rim::mend
