#include "app/steps/refine/offers.h"

#include <cmath>
#include <numbers>

#include "app/steps/refine/refine_text.h"
#include "core/refine/propose/symmetry.h"

namespace rim::app {
namespace {

std::set<refine::TrueUpKind> allKinds() {
  std::set<refine::TrueUpKind> kinds;
  for (std::size_t k = 0; k < refine::kTrueUpKinds; ++k) kinds.insert(static_cast<refine::TrueUpKind>(k));
  return kinds;
}

Offer offerOf(const refine::Proposal& proposal, const Drawing& mm, const Drawing& px, double pxPerMm, double withinMm) {
  Offer offer;
  offer.group = trueUpText(proposal.kind);
  offer.at = proposal.at * pxPerMm;
  offer.movedMm = proposal.movedMm;
  offer.places = proposal.paths.size();
  offer.all = refine::TrueUp{{proposal.kind}, withinMm};
  refine::Replace replace{refine::nameOf(proposal.kind), {}};
  for (const auto* proposed : {&proposal.paths, &proposal.along}) {
    for (const refine::ProposedPath& one : *proposed) {
      const auto place = placeOf(mm, one.outline);
      if (!place) continue;
      Path path = scaled(one.path, pxPerMm);
      offer.preview.goes.push_back(px.path(*place));
      offer.preview.comes.push_back(path);
      replace.outlines.push_back({markOf(px.outlines[*place]), std::move(path)});
    }
  }
  offer.preview.most = offer.at;
  offer.one = std::move(replace);
  return offer;
}

/// What a step would change, as one offer; none when it changes nothing.
std::optional<Offer> offerOf(const refine::Step& step, const refine::Refined& refined, const QString& group,
                             const Drawing& mm, double pxPerMm) {
  if (refined.changes.empty()) return {};
  Offer offer;
  offer.group = group;
  offer.places = refined.changes.size();
  offer.one = offer.all = step;
  for (const refine::Change& c : refined.changes) {
    if (c.movedMm < offer.movedMm) continue;
    offer.movedMm = c.movedMm;
    offer.at = c.at * pxPerMm;
  }
  offer.preview.most = offer.at;
  for (const Outline& outline : changedOutlines(mm, refined.drawing))
    offer.preview.comes.push_back(scaled(outline.path(), pxPerMm));
  for (const Outline& outline : changedOutlines(refined.drawing, mm))
    offer.preview.goes.push_back(scaled(outline.path(), pxPerMm));
  return offer;
}

/// The axis or axes that a drawing would be mirrored about, or arms round the centre that it would be turned about, a
/// little longer than the drawing; upright px.
std::vector<std::pair<Point, Point>> axesOf(const std::vector<refine::Symmetry>& about, const Box& mm, double pxPerMm) {
  std::vector<std::pair<Point, Point>> axes;
  constexpr double kLonger = 0.6;
  const double reach = kLonger * distance(mm.low, mm.high);
  const auto direction = [reach](double angle) { return Point{std::cos(angle), std::sin(angle)} * reach; };
  for (const refine::Symmetry& symmetry : about) {
    if (symmetry.turns == 0) {
      const Point way = direction(symmetry.axisAngle);
      axes.emplace_back((symmetry.centre - way) * pxPerMm, (symmetry.centre + way) * pxPerMm);
    }
    for (int k = 0; k < symmetry.turns; ++k) {
      const Point way = direction(std::numbers::pi * (0.5 + 2.0 * k / symmetry.turns));
      axes.emplace_back(symmetry.centre * pxPerMm, (symmetry.centre + way) * pxPerMm);
    }
  }
  return axes;
}

}  // namespace

std::vector<Offer> offersFor(const job::Job& job, double withinMm, const std::stop_token& stop) {
  std::vector<Offer> offers;
  const auto outlines = job::outlinesOf(job);
  if (!outlines) return offers;
  const Drawing mm = job::drawingOf(job);
  const double pxPerMm = 1 / job::mmPerPixel(job);
  constexpr double kSeenMm = 0.0005;  // what moves less is exact for every reader
  for (const refine::Proposal& proposal : refine::proposalsFor(mm, allKinds(), withinMm, stop)) {
    if (proposal.movedMm >= kSeenMm) offers.push_back(offerOf(proposal, mm, *outlines, pxPerMm, withinMm));
  }
  constexpr double kMissing = 2;
  const refine::Step sharpen = refine::Sharpen{kMissing * withinMm};
  const auto corners =
      offerOf(sharpen, refine::done(mm, sharpen, stop), refineText("Corners rounded or cut off"), mm, pxPerMm);
  if (corners) offers.push_back(*corners);
  const refine::Symmetrized made =
      refine::madeSymmetric(mm, refine::SymmetryWish::Auto, refine::SymmetryFrom::Best, withinMm, stop);
  auto symmetric = offerOf(refine::Symmetrize{refine::SymmetryWish::Auto, refine::SymmetryFrom::Best, withinMm},
                           made.refined, refineText("Nearly symmetric"), mm, pxPerMm);
  if (symmetric && symmetric->movedMm >= kSeenMm) {
    symmetric->preview.axes = axesOf(made.about, boxOf(mm), pxPerMm);
    offers.push_back(*symmetric);
  }
  return offers;
}

}  // namespace rim::app
