#include "core/trace/inks/unseen.h"

#include <algorithm>

#include "core/geometry/grown_box.h"
#include "core/geometry/path_place.h"
#include "core/trace/inks/ink_crossings.h"
#include "core/trace/inks/slivers.h"
#include "core/trace/outline/without_backsteps.h"
#include "core/trace/outline/without_tiny_lines.h"

namespace rim::trace::inks {
namespace {

/// Such lines are left where a way is cut beside a node, or follows its points again.
constexpr double kNoLengthPx = 0.06;
/// No border has a zigzag of less than this.
constexpr double kShortPx = 1.1;

/// Whether a border that does not end in the junction runs over it.
bool isRunOver(std::size_t junction, const InkBorders& borders) {
  constexpr double kOverPx = 0.15;
  const Point place = borders.junctions[junction];
  const int j = static_cast<int>(junction);
  return std::any_of(borders.borders.begin(), borders.borders.end(), [&](const FittedBorder& border) {
    if (border.start == j || border.end == j || border.path.segments.empty()) return false;
    return grown(boxOf(border.path), kOverPx).contains(place) && nearestOn(border.path, place).off < kOverPx;
  });
}

/// The borders without slivers (trace/inks/slivers.h), but at junctions near which they would cross by that.
InkBorders partedLater(InkBorders borders, const std::stop_token& stop) {
  constexpr int kRounds = 3;
  constexpr double kNearPx = 4;
  std::vector<bool> stay(borders.junctions.size(), false);
  for (int round = 0; round < kRounds; ++round) {
    std::vector<std::size_t> moved;
    InkBorders parted = withoutSlivers(borders, stay, moved);
    if (moved.empty()) break;
    const std::vector<Point> places = crossingPlaces(parted, stop);
    for (const std::size_t j : moved) {
      const Point at = parted.junctions[j];
      stay[j] = isRunOver(j, parted) ||
                std::any_of(places.begin(), places.end(), [&](Point p) { return distance(p, at) < kNearPx; });
    }
    if (places.empty() && std::none_of(moved.begin(), moved.end(), [&](std::size_t j) { return stay[j]; }))
      return parted;
  }
  return borders;
}

/// Open borders without what is too short to be seen, but those that would cross others without.
InkBorders withoutShort(const InkBorders& borders, const std::stop_token& stop) {
  constexpr int kRounds = 3;
  InkBorders without = borders;
  for (FittedBorder& border : without.borders) {
    if (border.start < 0) continue;
    border.path = outline::withoutBacksteps(outline::withoutHooks(border.path, kShortPx), kShortPx);
    border.path = outline::withoutTinyLines(border.path, kNoLengthPx);
  }
  for (int round = 0; round < kRounds; ++round) {
    const std::vector<Point> places = crossingPlaces(without, stop);
    if (places.empty()) return without;
    for (std::size_t i = 0; i < borders.borders.size(); ++i) {
      if (passes(without.borders[i].path, places)) without.borders[i].path = borders.borders[i].path;
    }
  }
  return borders;
}

}  // namespace

InkBorders withoutUnseen(const InkBorders& borders, const std::stop_token& stop) {
  return withoutShort(partedLater(withoutShort(borders, stop), stop), stop);
}

}  // namespace rim::trace::inks
