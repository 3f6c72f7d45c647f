#include "core/geometry/nesting.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/segment.h"

namespace rim {
namespace {

bool boundsSomething(const Path& path) { return path.closed && !path.segments.empty(); }

std::vector<std::size_t> closedOf(const Paths& paths) {
  std::vector<std::size_t> closed;
  for (std::size_t i = 0; i < paths.size(); ++i) {
    if (boundsSomething(paths[i])) closed.push_back(i);
  }
  return closed;
}

std::vector<Box> boxesOf(const Paths& paths) {
  std::vector<Box> boxes;
  boxes.reserve(paths.size());
  for (const Path& path : paths) boxes.push_back(boxOf(path));
  return boxes;
}

std::vector<Box> those(const std::vector<Box>& boxes, const std::vector<std::size_t>& which) {
  std::vector<Box> some;
  some.reserve(which.size());
  for (const std::size_t i : which) some.push_back(boxes[i]);
  return some;
}

}  // namespace

Surroundings::Surroundings(const Paths& paths) : Surroundings(paths, boxesOf(paths)) {}

Surroundings::Surroundings(const Paths& paths, std::vector<Box> boxes)
    : paths_(paths),
      boxes_(std::move(boxes)),
      closed_(closedOf(paths)),
      index_(those(boxes_, closed_)),
      insides_(paths.size()),
      areas_(paths.size()) {}

double Surroundings::areaOf(std::size_t path) {
  if (!areas_[path]) areas_[path] = std::abs(signedArea(paths_[path]));
  return *areas_[path];
}

std::vector<std::size_t> Surroundings::mayBeRound(std::size_t path) const {
  std::vector<std::size_t> found;
  if (!boundsSomething(paths_[path])) return found;
  index_.covering(boxes_[path], [&](std::size_t k) {
    if (closed_[k] != path) found.push_back(closed_[k]);
  });
  return found;
}

std::vector<std::size_t> Surroundings::of(std::size_t path) {
  std::vector<std::size_t> found = mayBeRound(path);
  if (found.empty()) return found;
  const std::size_t n = paths_[path].segments.size();
  std::vector<Point> places;
  for (const std::size_t s : {std::size_t{0}, n / 3, 2 * n / 3})
    places.push_back(pointAt(pieceOf(paths_[path], s), 0.5));
  std::erase_if(found, [&](std::size_t other) {
    if (std::pair(areaOf(other), path) < std::pair(areaOf(path), other)) return true;
    if (!insides_[other]) insides_[other].emplace(paths_[other]);
    return std::count_if(places.begin(), places.end(), [&](Point p) { return insides_[other]->has(p); }) < 2;
  });
  return found;
}

std::optional<std::size_t> Surroundings::parentAmong(const std::vector<std::size_t>& round) {
  if (round.empty()) return {};
  const auto smaller = [this](std::size_t a, std::size_t b) {
    return std::pair(areaOf(a), b) < std::pair(areaOf(b), a);  // of equal ones the later is the inner one
  };
  return *std::min_element(round.begin(), round.end(), smaller);
}

Nesting nestingOf(const Paths& paths) {
  Surroundings round(paths);
  Nesting nesting{std::vector<std::optional<std::size_t>>(paths.size()), std::vector<int>(paths.size(), 0)};
  for (std::size_t i = 0; i < paths.size(); ++i) {
    const std::vector<std::size_t> around = round.of(i);
    nesting.depth[i] = static_cast<int>(around.size());
    nesting.parent[i] = round.parentAmong(around);
  }
  return nesting;
}

std::size_t outermostRound(const Nesting& nesting, std::size_t path) {
  while (nesting.parent[path]) path = *nesting.parent[path];
  return path;
}

}  // namespace rim
