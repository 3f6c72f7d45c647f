#include "core/mend/repair/far_join.h"

#include <algorithm>
#include <array>

#include "core/mend/find/inspect.h"
#include "core/mend/repair/join.h"

namespace rim::mend {
namespace {

using Counts = std::array<std::size_t, kFindingKinds>;

/// How many faults of each kind there are among the paths that come near the box.
Counts faultsNear(const Drawing& drawing, const Box& box, const MendSettings& settings, const std::stop_token& stop) {
  Drawing part = emptyLike(drawing);
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) {
    if (!apart(boxOf(drawing.path(p)), box, settings.doubleMm)) part.outlines.push_back(drawing.outlines[p]);
  }
  Counts counts{};
  for (const Finding& f : inspect(part, settings, stop)) ++counts[static_cast<std::size_t>(f.kind)];
  return counts;
}

/// Whether the change made a fault of line over line.
bool makesFaults(const Drawing& before, const Drawing& after, const MendSettings& settings,
                 const std::stop_token& stop) {
  Box box;
  for (const Outline& outline : changedOutlines(before, after)) box.include(boxOf(outline.path()));
  const Counts then = faultsNear(before, box, settings, stop);
  const Counts now = faultsNear(after, box, settings, stop);
  const auto more = [&](FindingKind kind) {
    return now[static_cast<std::size_t>(kind)] > then[static_cast<std::size_t>(kind)];
  };
  return more(FindingKind::Crossing) || more(FindingKind::SelfCrossing) || more(FindingKind::Loop) ||
         more(FindingKind::DoubleLine) || more(FindingKind::Spike);
}

}  // namespace

Drawing joinedFar(const Drawing& drawing, const OpenEndAt& open, const MendSettings& settings,
                  const std::stop_token& stop) {
  const std::vector<LonelyEnd> lonely = pairEnds(drawing, settings).lonely;
  const LonelyEnd* own = nullptr;
  const auto off = [&open](const LonelyEnd& e) { return distance(e.end.place, open.place); };
  for (const LonelyEnd& e : lonely) {
    if (e.end.path == open.path && (own == nullptr || off(e) < off(*own))) own = &e;
  }
  if (own == nullptr) return drawing;
  std::vector<EndPair> pairs;
  for (const LonelyEnd& e : lonely) {
    if (!(e.end == own->end)) pairs.push_back({own->end, e.end, distance(e.end.place, own->end.place)});
  }
  constexpr std::size_t kTries = 12;
  const auto tried = pairs.begin() + static_cast<std::ptrdiff_t>(std::min(kTries, pairs.size()));
  std::partial_sort(pairs.begin(), tried, pairs.end(),
                    [](const EndPair& a, const EndPair& b) { return a.gapMm < b.gapMm; });
  for (auto pair = pairs.begin(); pair != tried; ++pair) {
    MendSettings wide = settings;
    wide.gapMm = std::max(settings.gapMm, pair->gapMm);
    Drawing joined = joinPair(drawing, *pair, wide);
    if (!makesFaults(drawing, joined, settings, stop)) return joined;
  }
  return drawing;
}

}  // namespace rim::mend
