#include "core/refine/propose/proposal_guard.h"

#include <algorithm>
#include <set>

#include "core/error.h"
#include "core/geometry/flatten.h"
#include "core/mend/find/local_faults.h"
#include "core/mend/find/small_faults.h"

namespace rim::refine {
namespace {

constexpr double kChordErrorMm = 0.05;
constexpr double kTouchMm = 0.01;

/// The boxes of chords along a path: those of long arcs would hold all that lies within them.
std::vector<Box> chordBoxes(const Path& path) {
  std::vector<Point> places = flatten(path, kChordErrorMm);
  if (path.closed) places.push_back(path.start);
  std::vector<Box> boxes;
  for (std::size_t i = 0; i + 1 < places.size(); ++i) {
    boxes.emplace_back();
    boxes.back().include(places[i]);
    boxes.back().include(places[i + 1]);
  }
  return boxes;
}

std::vector<Box> chordBoxes(const Drawing& drawing, std::vector<std::size_t>& outlineOf) {
  std::vector<Box> boxes;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const std::vector<Box> own = chordBoxes(drawing.path(i));
    boxes.insert(boxes.end(), own.begin(), own.end());
    outlineOf.resize(boxes.size(), i);
  }
  return boxes;
}

std::size_t faultsOf(const Drawing& drawing, const std::stop_token& stop) {
  const mend::MendSettings settings;
  return mend::trackFaults(drawing, settings, stop).size() + mend::spikes(pathsOf(drawing), settings.doubleMm).size();
}

}  // namespace

ProposalGuard::ProposalGuard(const Drawing& drawing, double withinMm)
    : withinMm_(withinMm), chords_(chordBoxes(drawing, outlineOf_)) {}

std::vector<std::size_t> ProposalGuard::beside(const Path& path) const {
  std::set<std::size_t> found;
  for (const Box& chord : chordBoxes(path))
    chords_.near(chord, withinMm_ + 2 * kChordErrorMm + kTouchMm,
                 [&](std::size_t other) { found.insert(outlineOf_[other]); });
  return {found.begin(), found.end()};
}

bool ProposalGuard::breaks(const Drawing& now, const Proposal& proposal, const std::stop_token& stop) const {
  std::set<std::size_t> all;
  for (const auto* proposed : {&proposal.paths, &proposal.along}) {
    for (const ProposedPath& one : *proposed) {
      if (const auto place = placeOf(now, one.outline)) all.insert(*place);
      for (const std::size_t outline : beside(one.path)) all.insert(outline);
    }
  }
  Drawing before = now;
  before.outlines.clear();
  for (const std::size_t outline : all) before.outlines.push_back(now.outlines[outline]);
  try {
    return faultsOf(withProposal(before, proposal), stop) > faultsOf(before, stop);
  } catch (const InputError&) {
    return false;
  }
}

}  // namespace rim::refine
