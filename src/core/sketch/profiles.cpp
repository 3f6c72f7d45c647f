#include "core/sketch/profiles.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/geometry/nesting.h"
#include "core/mend/find/inspect.h"

namespace rim::sketch {
namespace {

std::set<OutlineId> crossing(const Drawing& sheet, const std::stop_token& stop) {
  std::set<OutlineId> crosses;
  for (const mend::Finding& f : mend::inspect(withoutStrokes(sheet), {}, stop)) {
    if (!mend::isCrossing(f)) continue;
    crosses.insert(f.outline);
    crosses.insert(f.other);
  }
  return crosses;
}

void addSheet(const Drawing& sheet, const OutlinePlaces& placeOf, Sketch& sketch, const std::stop_token& stop) {
  const std::set<OutlineId> crosses = crossing(sheet, stop);
  Paths fit;
  std::vector<std::size_t> places;
  for (const Outline& outline : sheet.outlines) {
    const std::size_t place = placeOf.at(outline.id);
    if (!outline.path().closed) {
      sketch.unfit.push_back({place, Unfit::Open});
    } else if (crosses.contains(outline.id)) {
      sketch.unfit.push_back({place, Unfit::Crosses});
    } else {
      fit.push_back(outline.path());
      places.push_back(place);
    }
  }
  const Nesting nesting = nestingOf(fit);
  std::map<std::size_t, Profile> profiles;
  for (std::size_t i = 0; i < fit.size(); ++i) {
    const bool isHole = nesting.depth[i] % 2 == 1;
    Profile& profile = profiles[isHole ? *nesting.parent[i] : i];
    if (isHole)
      profile.holes.push_back(places[i]);
    else
      profile.outer = places[i];
    profile.areaMm2 += (isHole ? -1 : 1) * std::abs(signedArea(fit[i]));
  }
  for (auto& [outer, profile] : profiles) sketch.profiles.push_back(std::move(profile));
}

}  // namespace

Sketch sketchOf(const Drawing& drawing, const std::stop_token& stop) {
  Sketch sketch;
  const OutlinePlaces places = placesOf(drawing);
  for (const auto& [name, sheet] : byLayer(drawing)) addSheet(sheet, places, sketch, stop);
  std::sort(sketch.profiles.begin(), sketch.profiles.end(),
            [](const Profile& a, const Profile& b) { return a.outer < b.outer; });
  std::sort(sketch.unfit.begin(), sketch.unfit.end(),
            [](const UnfitOutline& a, const UnfitOutline& b) { return a.outline < b.outline; });
  return sketch;
}

}  // namespace rim::sketch
