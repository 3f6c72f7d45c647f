#include "core/refine/measure/differences.h"

#include <algorithm>
#include <cmath>

#include "core/error.h"
#include "core/geometry/nearest_on_paths.h"

namespace rim::refine {
namespace {

/// Gathers stretches along an outline.
class Stretches {
 public:
  /// `far`: what is not there at all lies so far off.
  Stretches(std::vector<Difference>& found, double mmPerUnit, double least, double far, bool gone)
      : found_(found), mmPerUnit_(mmPerUnit), least_(least), far_(far), gone_(gone) {}

  void look(Point place, double distance) {
    const double off = std::min(distance, far_);
    if (off <= least_) {
      end();
    } else if (off > most_) {
      most_ = off;
      at_ = place;
    }
  }
  void end() {
    if (most_ > 0) found_.push_back({at_, most_ * mmPerUnit_, gone_});
    most_ = 0;
  }

 private:
  std::vector<Difference>& found_;
  double mmPerUnit_;
  double least_;
  double far_;
  bool gone_;
  double most_ = 0;
  Point at_;
};

/// The outlines of one drawing that the other does not have just so.
std::vector<const Path*> changedIn(const Drawing& one, const Drawing& other) {
  std::vector<const Path*> changed;
  const OutlinePlaces places = placesOf(other);
  for (const Outline& outline : one.outlines) {
    const auto place = places.find(outline.id);
    if (place != places.end() && other.outlines[place->second].sharesPath(outline)) continue;
    if (!outline.path().segments.empty()) changed.push_back(&outline.path());
  }
  return changed;
}

double lengthOfAll(const std::vector<const Path*>& paths) {
  double all = 0;
  for (const Path* path : paths) all += pathLength(*path);
  return all;
}

void add(const std::vector<const Path*>& paths, const NearestOnPaths& other, double step, Stretches& stretches,
         const std::stop_token& stop) {
  for (const Path* path : paths) {
    if (stop.stop_requested()) throw Cancelled();
    for (std::size_t i = 0; i < path->segments.size(); ++i) {
      const Piece piece = pieceOf(*path, i);
      const int count = std::max(2, static_cast<int>(std::ceil(lengthOf(piece) / step)));
      for (int k = 0; k < count; ++k) {
        const Point place = pointAt(piece, static_cast<double>(k) / count);
        stretches.look(place, other.distanceTo(place));
      }
    }
    if (!path->closed) stretches.look(path->segments.back().end, other.distanceTo(path->segments.back().end));
    stretches.end();
  }
}

}  // namespace

std::vector<Difference> differencesBetween(const Drawing& now, const Drawing& then, double mmPerUnit, double leastMm,
                                           const std::stop_token& stop) {
  const std::vector<const Path*> came = changedIn(now, then);
  const std::vector<const Path*> went = changedIn(then, now);
  constexpr double kMostPlaces = 200'000;
  const double least = leastMm / mmPerUnit;
  const double step = std::max(least, (lengthOfAll(came) + lengthOfAll(went)) / kMostPlaces);
  std::vector<Difference> found;
  Box box = boxOf(now);
  box.include(boxOf(then));
  const double far = box.empty() ? 0 : distance(box.low, box.high);
  Stretches coming(found, mmPerUnit, least, far, false);
  add(came, NearestOnPaths(pathsOf(then)), step, coming, stop);
  const auto ofNow = static_cast<std::ptrdiff_t>(found.size());
  Stretches going(found, mmPerUnit, least, far, true);
  add(went, NearestOnPaths(pathsOf(now)), step, going, stop);
  // A stretch that was moved is found in both drawings; the place in the present one says it.
  const auto isMoved = [&](const Difference& old) {
    return std::any_of(found.begin(), found.begin() + ofNow, [&](const Difference& own) {
      constexpr double kNear = 1.5;
      return distance(own.at, old.at) * mmPerUnit <= kNear * std::max(own.mm, old.mm);
    });
  };
  std::vector<Difference> all(found.begin(), found.begin() + ofNow);
  std::copy_if(found.begin() + ofNow, found.end(), std::back_inserter(all),
               [&](const Difference& old) { return !isMoved(old); });
  std::stable_sort(all.begin(), all.end(), [](const Difference& a, const Difference& b) { return a.mm > b.mm; });
  return all;
}

}  // namespace rim::refine
