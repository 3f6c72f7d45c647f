#include "core/sketch/profiles.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/geometry/nesting.h"
#include "core/mend/find/inspect.h"

namespace rim {
namespace {

/// The outlines of one layer by their places in the whole drawing.
struct Sheet {
  Drawing drawing;
  std::vector<std::size_t> places;
};

std::vector<Sheet> sheetsOf(const Drawing& drawing) {
  std::map<std::size_t, Sheet> sheets;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const std::size_t layer = drawing.layers.empty() ? 0 : drawing.outlines[i].layer;
    Sheet& sheet = sheets.try_emplace(layer, Sheet{emptyLike(drawing), {}}).first->second;
    sheet.drawing.outlines.push_back(drawing.outlines[i]);
    sheet.places.push_back(i);
  }
  std::vector<Sheet> all;
  for (auto& [layer, sheet] : sheets) all.push_back(std::move(sheet));
  return all;
}

std::set<OutlineId> crossing(const Drawing& drawing, const std::stop_token& stop) {
  Drawing plain = drawing;
  for (Outline& outline : plain.outlines) outline.stroke = {};
  std::set<OutlineId> crosses;
  for (const Finding& f : inspect(plain, {}, stop)) {
    if (f.kind != FindingKind::SelfCrossing && f.kind != FindingKind::Loop && f.kind != FindingKind::Crossing) continue;
    crosses.insert(f.outline);
    crosses.insert(f.other);
  }
  return crosses;
}

void addSheet(const Sheet& sheet, Sketch& sketch, const std::stop_token& stop) {
  const std::set<OutlineId> crosses = crossing(sheet.drawing, stop);
  Paths fit;
  std::vector<std::size_t> places;
  for (std::size_t i = 0; i < sheet.places.size(); ++i) {
    const Outline& outline = sheet.drawing.outlines[i];
    if (!outline.path().closed) {
      sketch.unfit.push_back({sheet.places[i], Unfit::Open});
    } else if (crosses.contains(outline.id)) {
      sketch.unfit.push_back({sheet.places[i], Unfit::Crosses});
    } else {
      fit.push_back(outline.path());
      places.push_back(sheet.places[i]);
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
  for (const Sheet& sheet : sheetsOf(drawing)) addSheet(sheet, sketch, stop);
  std::sort(sketch.profiles.begin(), sketch.profiles.end(),
            [](const Profile& a, const Profile& b) { return a.outer < b.outer; });
  std::sort(sketch.unfit.begin(), sketch.unfit.end(),
            [](const UnfitOutline& a, const UnfitOutline& b) { return a.outline < b.outline; });
  return sketch;
}

}  // namespace rim
