#include "app/steps/refine/offers.h"

#include <cmath>
#include <map>
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
  // What lines end on keeps its size, as they would not come along.
  const auto size = refine::sizeOf(proposal.kind, proposal.paths.front().path);
  if (size && proposal.along.empty() && replace.outlines.size() == 1)
    offer.shape = {proposal.kind, replace.outlines.front().was, proposal.paths.front().path, *size};
  offer.one = std::move(replace);
  return offer;
}

/// What makes one drawing of the other, by the outlines that differ; both mm.
refine::Step replacing(const std::string& kind, const Drawing& was, const Drawing& becomes, double pxPerMm) {
  refine::Replace replace{kind, {}};
  for (const Outline& outline : changedOutlines(was, becomes)) {
    const auto place = placeOf(was, outline.id);
    if (place)
      replace.outlines.push_back({scaled(markOf(was.outlines[*place]), pxPerMm), scaled(outline.path(), pxPerMm)});
  }
  return replace;
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

/// Looks for everything that can be offered for a drawing, or for some of its outlines.
class Looking {
 public:
  Looking(const Drawing& mm, const Drawing& px, double pxPerMm, double withinMm,
          const std::optional<std::set<OutlineId>>& only, const std::stop_token& stop)
      : mm_(mm), px_(px), pxPerMm_(pxPerMm), within_(withinMm), only_(only), stop_(stop) {}

  Offers run() {
    offerShapes();
    const Drawing some = only_ ? onlyOutlines(mm_, *only_) : mm_;
    if (some.outlines.empty()) return {};
    const refine::Refined sharp = refine::done(some, sharpen(), stop_);
    if (auto corners = offerOf(sharpen(), sharp, refineText("Corners rounded or cut off"), some, pxPerMm_))
      add(std::move(*corners), some, sharp.drawing);
    const refine::Symmetrized made = symmetric(some);
    auto offer = offerOf(symmetrize(), made.refined, refineText("Nearly symmetric"), some, pxPerMm_);
    if (offer && offer->movedMm >= kSeenMm) {
      offer->preview.axes = axesOf(made.about, boxOf(some), pxPerMm_);
      add(std::move(*offer), some, made.refined.drawing);
    }
    if (!offers_.list.empty()) offers_.all = only_ ? std::vector<refine::Step>{allOfThese(sharp.drawing)} : allSteps();
    return std::move(offers_);
  }

 private:
  static constexpr double kSeenMm = 0.0005;  // what moves less is exact for every reader

  refine::Step sharpen() const {
    constexpr double kMissing = 2;
    return refine::Sharpen{kMissing * within_};
  }

  refine::Step symmetrize() const {
    return refine::Symmetrize{refine::SymmetryWish::Auto, refine::SymmetryFrom::Best, within_};
  }

  refine::Symmetrized symmetric(const Drawing& drawing) const {
    return refine::madeSymmetric(drawing, refine::SymmetryWish::Auto, refine::SymmetryFrom::Best, within_, stop_);
  }

  void offerShapes() {
    for (const refine::Proposal& proposal : refine::proposalsFor(mm_, allKinds(), within_, stop_)) {
      if (proposal.movedMm < kSeenMm || (only_ && !refine::isAboutOnly(proposal, *only_))) continue;
      Offer offer = offerOf(proposal, mm_, px_, pxPerMm_, within_);
      if (only_) offer.all = allOfKind(proposal.kind);
      offers_.list.push_back(std::move(offer));
    }
  }

  /// An offer that is a step for a whole drawing; of some outlines it is what that step makes of them.
  void add(Offer offer, const Drawing& was, const Drawing& becomes) {
    if (only_) offer.one = offer.all = replacing(refine::nameOf(offer.one), was, becomes, pxPerMm_);
    offers_.list.push_back(std::move(offer));
  }

  /// All of a kind, for outlines that are chosen.
  refine::Step allOfKind(refine::TrueUpKind kind) {
    auto& step = ofKind_[kind];
    if (!step) {
      const Drawing becomes = refine::truedUp(mm_, {kind}, within_, stop_, &*only_).drawing;
      step = replacing(refine::nameOf(kind), mm_, becomes, pxPerMm_);
    }
    return *step;
  }

  std::vector<refine::Step> allSteps() const {
    std::vector<refine::Step> steps;
    std::set<refine::TrueUpKind> kinds;
    for (const Offer& one : offers_.list) {
      if (const auto* trueUp = std::get_if<refine::TrueUp>(&one.all)) {
        kinds.insert(trueUp->kinds.begin(), trueUp->kinds.end());
      } else {
        steps.push_back(one.all);
      }
    }
    if (!kinds.empty()) steps.push_back(refine::TrueUp{kinds, within_});
    return steps;
  }

  /// Everything for outlines that are chosen, of which corners are `sharp`, one after the other, in one step.
  refine::Step allOfThese(const Drawing& sharp) const {
    Drawing becomes = mm_;
    const auto take = [&becomes](const Drawing& changed) {
      for (const Outline& outline : changed.outlines) {
        if (const auto place = placeOf(becomes, outline.id)) becomes.setPath(*place, outline.path());
      }
    };
    take(sharp);
    take(symmetric(sharp).refined.drawing);
    becomes = refine::truedUp(becomes, allKinds(), within_, stop_, &*only_).drawing;
    return replacing("exact", mm_, becomes, pxPerMm_);
  }

  const Drawing& mm_;
  const Drawing& px_;
  double pxPerMm_;
  double within_;
  const std::optional<std::set<OutlineId>>& only_;
  const std::stop_token& stop_;
  std::map<refine::TrueUpKind, std::optional<refine::Step>> ofKind_;
  Offers offers_;
};

}  // namespace

Offers offersFor(const job::Job& job, double withinMm, const std::optional<std::set<OutlineId>>& only,
                 const std::stop_token& stop) {
  const auto outlines = job::outlinesOf(job);
  if (!outlines) return {};
  const Drawing mm = job::drawingOf(job);
  return Looking{mm, *outlines, 1 / job::mmPerPixel(job), withinMm, only, stop}.run();
}

refine::Step resized(const Offer::Shape& shape, const refine::ShapeSize& size, double pxPerMm) {
  const Path path = refine::withSize(shape.kind, shape.path, size);
  return refine::Replace{refine::nameOf(shape.kind), {{shape.was, scaled(path, pxPerMm)}}};
}

refine::Step resizedAlike(const std::vector<Offer>& list, const Offer& offer, const refine::ShapeSize& size,
                          double pxPerMm) {
  refine::Replace all{refine::nameOf(offer.shape->kind), {}};
  for (const Offer& other : list) {
    if (other.group != offer.group) continue;
    const bool alike = other.shape && refine::nearlyOneSize(other.shape->size, offer.shape->size);
    const refine::Step one = alike ? resized(*other.shape, size, pxPerMm) : other.one;
    const auto& outlines = std::get<refine::Replace>(one).outlines;
    all.outlines.insert(all.outlines.end(), outlines.begin(), outlines.end());
  }
  return all;
}

}  // namespace rim::app
