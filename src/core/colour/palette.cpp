#include "core/colour/palette.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <opencv2/imgproc.hpp>
#include <tuple>

#include "core/colour/inks.h"

namespace rim::colour {
namespace {

constexpr double kCell = 4;
/// Cells so near to the fullest one are the same colour.
constexpr double kSameColour = 9;
/// From so small a share of the even area on a larger difference is needed.
constexpr double kSmallShare = 0.015;
/// Less than this of the even area is no ink of its own.
constexpr double kLeastShare = 0.0004;
/// So many pixels that lie within an even area are one, however small it is: what bleeds beside an edge is narrow.
constexpr double kSolidPx = 16;
/// Colours whose lightness (L*) differs by less may be the same one with chroma that has bled.
constexpr double kBledLightness = 8;
/// What is lighter or darker than the other is hardly ever bled, so that it may be as small and less different.
constexpr double kMostWhenNotBled = 0.43;

struct Group {
  double weight = 0;
  double deep = 0;             ///< of these pixels those whose neighbours are even, too
  double l = 0, a = 0, b = 0;  ///< sums
  double squares = 0;          ///< sum of squared lengths

  void add(const Group& other) {
    weight += other.weight;
    deep += other.deep;
    l += other.l;
    a += other.a;
    b += other.b;
    squares += other.squares;
  }
  Lab mean() const { return {l / weight, a / weight, b / weight}; }
  /// Mean squared distance from the mean.
  double spread() const {
    const Lab m = mean();
    return squares / weight - (m.l * m.l + m.a * m.a + m.b * m.b);
  }
};

double distanceOf(Lab one, Lab other) { return std::sqrt(squareBetween(one, other)); }

using Cell = std::tuple<int, int, int>;
using Cells = std::map<Cell, Group>;

Cell cellAt(const cv::Vec3f& lab) {
  const auto along = [&lab](int i) { return static_cast<int>(std::floor(lab[i] / kCell)); };
  return {along(0), along(1), along(2)};
}

Cells cellsOf(const cv::Mat& lab, const cv::Mat& even) {
  Cells cells;
  cv::Mat deep;
  cv::erode(even, deep, cv::Mat::ones(3, 3, CV_8U));
  for (int y = 0; y < lab.rows; ++y) {
    const auto* row = lab.ptr<cv::Vec3f>(y);
    const auto* counted = even.ptr<std::uint8_t>(y);
    const auto* isDeep = deep.ptr<std::uint8_t>(y);
    cv::Vec3f last;
    Group* group = nullptr;
    for (int x = 0; x < lab.cols; ++x) {
      if (counted[x] == 0) continue;
      // Neighbours often have the very same colour.
      if (group == nullptr || row[x] != last) group = &cells[cellAt(row[x])];
      last = row[x];
      const double l = row[x][0];
      const double a = row[x][1];
      const double b = row[x][2];
      group->add({1, isDeep[x] != 0 ? 1.0 : 0.0, l, a, b, l * l + a * a + b * b});
    }
  }
  return cells;
}

std::vector<Group> gathered(const Cells& cells) {
  std::vector<Group> left;
  for (const auto& [cell, group] : cells) left.push_back(group);
  std::stable_sort(left.begin(), left.end(), [](const Group& x, const Group& y) { return x.weight > y.weight; });
  std::vector<Group> groups;
  std::vector<Lab> seeds;
  for (const Group& cell : left) {
    const Lab colour = cell.mean();
    std::size_t nearest = seeds.size();
    double least = kSameColour;
    for (std::size_t i = 0; i < seeds.size(); ++i) {
      const double off = distanceOf(colour, seeds[i]);
      if (off >= least) continue;
      least = off;
      nearest = i;
    }
    if (nearest == seeds.size()) {
      seeds.push_back(colour);
      groups.emplace_back();
    }
    groups[nearest].add(cell);
  }
  return groups;
}

/// How little there is of the smaller group: 0 where it is sure, 1 where it has hardly any area.
double smallnessOf(const Group& smaller, const Group& other, double all) {
  // What a JPEG bleeds is chroma, and may be wide; its lightness is sharp.
  const bool bled = std::abs(smaller.mean().l - other.mean().l) < kBledLightness;
  if (smaller.deep >= kSolidPx && !bled) return 0;
  return (bled ? 1 : kMostWhenNotBled) *
         std::clamp(std::log(smaller.weight / all / kSmallShare) / std::log(kLeastShare / kSmallShare), 0.0, 1.0);
}

/// How badly two groups are told apart, from 0 (the same); above 1 they are two.
double apartness(const Group& one, const Group& other, double all, InkDifference wanted) {
  const Group& smaller = one.weight < other.weight ? one : other;
  const double difference = differenceOf(one.mean(), other.mean());
  if (smaller.weight < kLeastShare * all) return difference / 100;
  const double smallness = smallnessOf(smaller, &smaller == &one ? other : one, all);
  return difference / (wanted.least + (wanted.small - wanted.least) * smallness);
}

/// Merges the two groups that are told apart worst, again and again. What is known of every two is kept: only what a
/// merged group is to the others is worked out anew, so that the time grows with the square of their number.
class Merging {
 public:
  Merging(std::vector<Group> groups, double all, InkDifference wanted)
      : groups_(std::move(groups)),
        all_(all),
        wanted_(wanted),
        there_(groups_.size(), true),
        apart_(groups_.size()),
        worst_(groups_.size()) {
    for (std::size_t i = 0; i < groups_.size(); ++i) {
      apart_[i].resize(groups_.size());
      measure(i);
    }
  }

  /// Until there are `count` groups, or no more than kMostInks which are all clearly apart.
  std::vector<Group> run(std::optional<int> count) {
    for (std::size_t left = groups_.size(); left > 1; --left) {
      const std::size_t one = worstRow();
      const bool enough = count ? left <= static_cast<std::size_t>(*count)
                                : left <= static_cast<std::size_t>(kMostInks) && worst_[one].apart >= 1;
      if (enough) break;
      merge(one, worst_[one].other);
    }
    std::vector<Group> merged;
    for (std::size_t i = 0; i < groups_.size(); ++i) {
      if (there_[i]) merged.push_back(groups_[i]);
    }
    return merged;
  }

 private:
  /// Of the groups after one the one that it is told apart from worst.
  struct Worst {
    double apart = std::numeric_limits<double>::infinity();
    std::size_t other = 0;
  };

  void measure(std::size_t i) {
    for (std::size_t k = i + 1; k < groups_.size(); ++k) {
      if (there_[k]) apart_[i][k] = apartness(groups_[i], groups_[k], all_, wanted_);
    }
    search(i);
  }

  void search(std::size_t i) {
    worst_[i] = {};
    for (std::size_t k = i + 1; k < groups_.size(); ++k) {
      if (there_[k] && apart_[i][k] < worst_[i].apart) worst_[i] = {apart_[i][k], k};
    }
  }

  std::size_t worstRow() const {
    std::size_t best = 0;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < groups_.size(); ++i) {
      if (!there_[i] || worst_[i].apart >= least) continue;
      least = worst_[i].apart;
      best = i;
    }
    return best;
  }

  void merge(std::size_t one, std::size_t other) {
    groups_[one].add(groups_[other]);
    there_[other] = false;
    measure(one);
    for (std::size_t i = 0; i < other; ++i) {
      if (!there_[i] || i == one) continue;
      if (i < one) apart_[i][one] = apartness(groups_[i], groups_[one], all_, wanted_);
      const bool lost = worst_[i].other == one || worst_[i].other == other;
      const bool won =
          i < one && (apart_[i][one] < worst_[i].apart || (apart_[i][one] == worst_[i].apart && one < worst_[i].other));
      if (lost) search(i);
      if (!lost && won) worst_[i] = {apart_[i][one], one};
    }
  }

  std::vector<Group> groups_;
  double all_;
  InkDifference wanted_;
  std::vector<bool> there_;
  std::vector<std::vector<double>> apart_;  ///< of i and k > i
  std::vector<Worst> worst_;
};

/// The cells that lie nearest to `centre` among the centres.
std::vector<Group> cellsNear(const Cells& cells, const std::vector<Lab>& centres, std::size_t which) {
  std::vector<Group> own;
  for (const auto& [cell, group] : cells) {
    std::size_t nearest = 0;
    for (std::size_t i = 1; i < centres.size(); ++i) {
      if (distanceOf(group.mean(), centres[i]) < distanceOf(group.mean(), centres[nearest])) nearest = i;
    }
    if (nearest == which) own.push_back(group);
  }
  return own;
}

/// Two means of weighted colours, begun at the two that are farthest from each other's side.
std::pair<Group, Group> parted(const std::vector<Group>& cells) {
  Group all;
  for (const Group& cell : cells) all.add(cell);
  const auto farthestFrom = [&cells](Lab from) {
    Lab best = from;
    double most = 0;
    for (const Group& cell : cells) {
      const double off = distanceOf(cell.mean(), from) * std::pow(cell.weight, 0.25);
      if (off <= most) continue;
      most = off;
      best = cell.mean();
    }
    return best;
  };
  Lab one = farthestFrom(all.mean());
  Lab other = farthestFrom(one);
  std::pair<Group, Group> two;
  for (int round = 0; round < 20; ++round) {
    two = {};
    for (const Group& cell : cells) {
      (distanceOf(cell.mean(), one) <= distanceOf(cell.mean(), other) ? two.first : two.second).add(cell);
    }
    if (two.second.weight == 0 || two.first.weight == 0) break;
    one = two.first.mean();
    other = two.second.mean();
  }
  if (two.first.weight < two.second.weight) std::swap(two.first, two.second);
  return two;
}

void partWidest(std::vector<Group>& groups, const Cells& cells) {
  const auto widest = std::max_element(groups.begin(), groups.end(), [](const Group& x, const Group& y) {
    return x.spread() * x.weight < y.spread() * y.weight;
  });
  std::vector<Lab> centres;
  for (const Group& group : groups) centres.push_back(group.mean());
  const auto two = parted(cellsNear(cells, centres, static_cast<std::size_t>(widest - groups.begin())));
  if (two.second.weight == 0) {
    groups.push_back(*widest);
    return;
  }
  *widest = two.first;
  groups.push_back(two.second);
}

}  // namespace

std::vector<Lab> paletteOf(const cv::Mat& lab, const cv::Mat& even, std::optional<int> count,
                           InkDifference difference) {
  Cells cells = cellsOf(lab, even);
  if (cells.empty()) cells = cellsOf(lab, cv::Mat::ones(lab.size(), CV_8U));
  std::vector<Group> groups = gathered(cells);
  double all = 0;
  for (const Group& group : groups) all += group.weight;
  groups = Merging(std::move(groups), all, difference).run(count);
  while (count && groups.size() < std::min(static_cast<std::size_t>(*count), cells.size())) partWidest(groups, cells);
  std::stable_sort(groups.begin(), groups.end(), [](const Group& x, const Group& y) { return x.weight > y.weight; });
  std::vector<Lab> palette;
  for (const Group& group : groups) palette.push_back(group.mean());
  return palette;
}

std::pair<Lab, Lab> partedColours(const cv::Mat& lab, const cv::Mat& marked) {
  std::vector<Group> cells;
  for (const auto& [cell, group] : cellsOf(lab, marked)) cells.push_back(group);
  if (cells.empty()) return {};
  const auto two = parted(cells);
  if (two.second.weight == 0) return {two.first.mean(), two.first.mean()};
  return {two.first.mean(), two.second.mean()};
}

}  // namespace rim::colour
