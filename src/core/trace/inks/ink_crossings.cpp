#include "core/trace/inks/ink_crossings.h"

#include <algorithm>
#include <set>

#include "core/for_all.h"
#include "core/geometry/grown_box.h"
#include "core/geometry/path_place.h"
#include "core/trace/inks/cracks.h"
#include "core/trace/inks/ink_outlines.h"
#include "core/trace/outline/outline_crossings.h"

namespace rim::trace::inks {
namespace {

/// Where the outlines of an ink cross themselves or each other; where they only meet at a junction they may.
std::vector<Point> crossingPlacesOf(std::uint8_t ink, const InkBorders& borders, const std::stop_token& stop) {
  std::vector<bool> only(static_cast<std::size_t>(ink) + 1, false);
  only[ink] = true;
  const std::vector<Path> outlines = outlinesRound(borders, only);
  std::vector<Point> places;
  for (const Crossing& crossing : outline::OutlineCrossings(outlines, borders.junctions).find(stop))
    places.push_back(crossing.place);
  return places;
}

}  // namespace

std::vector<Point> crossingPlaces(const InkBorders& borders, const std::stop_token& stop) {
  std::set<std::uint8_t> inks;
  for (const FittedBorder& border : borders.borders) inks.insert({border.left, border.right});
  inks.erase(kOutside);
  const std::vector<std::uint8_t> each(inks.begin(), inks.end());
  std::vector<std::vector<Point>> found(each.size());
  forAll(each.size(), {stop, {}}, [&](std::size_t i) { found[i] = crossingPlacesOf(each[i], borders, stop); });
  std::vector<Point> places;
  for (const std::vector<Point>& own : found) places.insert(places.end(), own.begin(), own.end());
  return places;
}

bool passes(const Path& path, const std::vector<Point>& places) {
  constexpr double kOnItPx = 0.05;
  const Box box = grown(boxOf(path), kOnItPx);
  return std::any_of(places.begin(), places.end(),
                     [&](Point p) { return box.contains(p) && nearestOn(path, p).off < kOnItPx; });
}

}  // namespace rim::trace::inks
