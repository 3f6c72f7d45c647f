#include "core/refine/propose/proposal.h"

#include <array>
#include <iterator>

#include "core/error.h"
#include "core/refine/propose/exact_lines.h"
#include "core/refine/propose/exact_shapes.h"
#include "core/refine/propose/held_ends.h"
#include "core/refine/propose/likes.h"
#include "core/refine/propose/proposal_guard.h"
#include "core/refine/propose/repeats.h"
#include "core/refine/propose/tangents.h"

namespace rim::refine {
namespace {

constexpr std::array<const char*, kTrueUpKinds> kNames{
    "circle", "ellipse",  "rectangle", "rounded-rectangle", "polygon", "slot",    "straight",
    "level",  "parallel", "radii",     "concentric",        "spacing", "tangent", "repeats"};

const std::set<TrueUpKind>& shapeKinds() {
  static const std::set<TrueUpKind> kKinds{TrueUpKind::Circle,           TrueUpKind::Ellipse, TrueUpKind::Rectangle,
                                           TrueUpKind::RoundedRectangle, TrueUpKind::Polygon, TrueUpKind::Slot};
  return kKinds;
}

void addFor(const Outline& outline, const std::optional<ExactShape>& exact, std::vector<Proposal>& found) {
  if (exact) found.push_back({exact->kind, outline.id, exact->at, exact->movedMm, {{outline.id, exact->path}}, {}});
}

/// The proposals of one kind; all shapes count as one, as each outline becomes one of them at most.
std::vector<Proposal> proposalsOf(const Drawing& drawing, TrueUpKind kind, const std::set<TrueUpKind>& shapes,
                                  double withinMm, const std::stop_token& stop) {
  if (kind == TrueUpKind::Radii) return equalRadii(drawing, withinMm);
  if (kind == TrueUpKind::Concentric) return concentric(drawing, withinMm);
  if (kind == TrueUpKind::Spacing) return evenlySpaced(drawing, withinMm);
  if (kind == TrueUpKind::Repeats) return repeatedParts(drawing, withinMm, stop);
  std::vector<Proposal> found;
  const std::vector<HeldEnd> ends = endsIn(drawing);
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    if (stop.stop_requested()) throw Cancelled();
    const Outline& outline = drawing.outlines[i];
    const Path& path = outline.path();
    if (path.segments.empty()) continue;
    if (kind == TrueUpKind::Straight) {
      addFor(outline, straightened(path, withinMm), found);
    } else if (kind == TrueUpKind::Level) {
      addFor(outline, levelled(path, withinMm), found);
    } else if (kind == TrueUpKind::Tangent) {
      addFor(outline, madeTangent(path, withinMm), found);
    } else if (kind == TrueUpKind::Parallel) {
      addFor(outline, squared(path, withinMm), found);
    } else {
      addFor(outline, exactShapeOf(path, shapes, withinMm, endsOn(ends, drawing, i).size()), found);
    }
  }
  return found;
}

/// The kinds in the order in which they are done: one for all shapes, first.
std::vector<std::set<TrueUpKind>> inOrder(const std::set<TrueUpKind>& kinds) {
  std::vector<std::set<TrueUpKind>> order(1);
  for (const TrueUpKind kind : kinds) {
    if (shapeKinds().count(kind) != 0) {
      order.front().insert(kind);
    } else {
      order.push_back({kind});
    }
  }
  if (order.front().empty()) order.erase(order.begin());
  return order;
}

}  // namespace

std::string nameOf(TrueUpKind kind) { return kNames[static_cast<std::size_t>(kind)]; }

std::vector<Proposal> proposalsFor(const Drawing& drawing, const std::set<TrueUpKind>& kinds, double withinMm,
                                   const std::stop_token& stop) {
  std::vector<Proposal> found;
  for (const std::set<TrueUpKind>& some : inOrder(kinds)) {
    std::vector<Proposal> more = proposalsOf(drawing, *some.begin(), some, withinMm, stop);
    found.insert(found.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
  }
  const std::vector<HeldEnd> ends = endsIn(drawing);
  for (Proposal& proposal : found) proposal = withHeldEnds(std::move(proposal), drawing, ends);
  const ProposalGuard guard(drawing, withinMm);
  std::erase_if(found, [&](const Proposal& proposal) { return guard.breaks(drawing, proposal, stop); });
  return found;
}

Drawing withProposal(const Drawing& drawing, const Proposal& proposal) {
  Drawing out = drawing;
  for (const auto* proposed : {&proposal.paths, &proposal.along}) {
    for (const ProposedPath& one : *proposed) {
      if (const auto place = placeOf(out, one.outline)) out.setPath(*place, one.path);
    }
  }
  return out;
}

void append(Refined& all, Refined next) {
  all.drawing = std::move(next.drawing);
  all.changes.insert(all.changes.end(), next.changes.begin(), next.changes.end());
  all.kept.insert(all.kept.end(), next.kept.begin(), next.kept.end());
  all.lost.insert(all.lost.end(), next.lost.begin(), next.lost.end());
}

bool isAboutOnly(const Proposal& proposal, const std::set<OutlineId>& outlines) {
  return std::all_of(proposal.paths.begin(), proposal.paths.end(),
                     [&outlines](const ProposedPath& one) { return outlines.contains(one.outline); });
}

Refined truedUp(const Drawing& drawing, const std::set<TrueUpKind>& kinds, double withinMm, const std::stop_token& stop,
                const std::set<OutlineId>* only) {
  Refined refined{drawing, {}};
  for (const std::set<TrueUpKind>& some : inOrder(kinds)) {
    std::vector<Proposal> proposals = proposalsOf(refined.drawing, *some.begin(), some, withinMm, stop);
    if (only != nullptr)
      std::erase_if(proposals, [only](const Proposal& proposal) { return !isAboutOnly(proposal, *only); });
    if (proposals.empty()) continue;
    const ProposalGuard guard(refined.drawing, withinMm);
    for (const Proposal& found : proposals) {
      const Proposal proposal = withHeldEnds(found, refined.drawing, endsIn(refined.drawing));
      if (guard.breaks(refined.drawing, proposal, stop)) continue;
      refined.drawing = withProposal(refined.drawing, proposal);
      refined.changes.push_back({nameOf(proposal.kind), proposal.outline, proposal.at, proposal.movedMm});
    }
  }
  return refined;
}

}  // namespace rim::refine
