#include "core/mend/find/inspected.h"

#include "core/mend/find/in_order.h"
#include "core/mend/find/known_outlines.h"
#include "core/mend/find/whole_faults.h"

namespace rim::mend {
namespace {

LooseEnd looseEndOf(const Paths& paths, std::size_t outline, const KnownEnd& known) {
  return {endOf(paths, outline, known.atStart), known.isFault};
}

/// All findings of a drawing whose outlines are known.
std::vector<Finding> findingsOf(const Drawing& drawing, const OutlinePlaces& places, const KnownOutlines& all,
                                const MendSettings& settings) {
  const Paths paths = pathsOf(drawing);
  std::vector<Finding> findings;
  std::vector<Extent> extents;
  std::vector<LooseEnd> loose;
  std::vector<StrokePair> pairs;
  extents.reserve(all.size());
  for (std::size_t i = 0; i < all.size(); ++i) {
    const KnownOutline& own = *all[i];
    extents.push_back(own.extent);
    findings.insert(findings.end(), own.faults.begin(), own.faults.end());
    for (const KnownEnd& end : own.loose) loose.push_back(looseEndOf(paths, i, end));
    if (own.stroke) pairs.push_back({places.at(own.stroke->outer), i, own.stroke->widthMm, own.stroke->unlike});
  }
  for (Finding& f : wholeFaults(drawing, extents, loose, eachInOne(pairs), settings)) findings.push_back(std::move(f));
  return inOrder(std::move(findings), places);
}

}  // namespace

const std::vector<Finding>& Inspected::findings() const {
  static const std::vector<Finding> kNone;
  return state_ ? state_->findings : kNone;
}

std::size_t Inspected::lookedAt() const { return state_ ? state_->lookedAt : 0; }

Inspected inspected(const Drawing& drawing, const MendSettings& settings, const Inspected& before,
                    const std::stop_token& stop) {
  auto state = std::make_shared<Inspected::State>();
  state->settings = settings;
  state->layers = drawing.layers.size();
  state->places = placesOf(drawing);
  auto again = before.isThere() ? knownAgain(drawing, state->places, settings, *before.state(), stop) : std::nullopt;
  state->lookedAt = again ? again->lookedAt : drawing.outlines.size();
  state->all = again ? std::move(again->all) : knownAnew(drawing, settings, stop);
  state->findings = findingsOf(drawing, state->places, state->all, settings);
  return Inspected(std::move(state));
}

}  // namespace rim::mend
