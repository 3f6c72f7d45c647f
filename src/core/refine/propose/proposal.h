#pragma once

#include <set>
#include <stop_token>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/drawing/mark.h"

namespace rim::refine {

/// What is nearly so and can be made exactly so (`--true-up`).
enum class TrueUpKind {
  Circle,
  Ellipse,
  Rectangle,
  RoundedRectangle,
  Polygon,  ///< regular
  Slot,
  Straight,    ///< a stretch between two corners that is nearly a line
  Level,       ///< lines that are nearly level or upright
  Parallel,    ///< lines of an outline that are nearly parallel or square to its main direction
  Radii,       ///< circles of nearly one radius
  Concentric,  ///< circles with nearly one centre
  Spacing,     ///< like outlines nearly evenly spaced in a row or on a circle
  Tangent,     ///< lines that nearly touch the arcs that they lead into
  Repeats,     ///< parts that are nearly one part
};

inline constexpr std::size_t kTrueUpKinds = 14;

/// As on the command line: "rounded-rectangle".
std::string nameOf(TrueUpKind kind);

/// An outline as it would be.
struct ProposedPath {
  OutlineId outline = OutlineId::None;
  Path path;
};

/// Something that is nearly so, and what would make it exactly so.
struct Proposal {
  TrueUpKind kind = TrueUpKind::Circle;
  OutlineId outline = OutlineId::None;  ///< the first that it is about
  Point at;                             ///< mm, where it would move most
  double movedMm = 0;                   ///< the most that anything would move
  std::vector<ProposedPath> paths;
  std::vector<ProposedPath> along;  ///< lines that end on these, which come along
};

/// All proposals of these kinds for a drawing (mm), by kind and then by outline: nothing moves farther than `withinMm`
/// (> 0), nor farther than some hundredths of the smaller side of what it belongs to, so that what was drawn otherwise
/// on purpose stays. Lines that end on what is moved come along, and end at a node of it. Nothing is proposed by which
/// more lines would cross, run back or lie on each other than do. Throws Cancelled.
std::vector<Proposal> proposalsFor(const Drawing& drawing, const std::set<TrueUpKind>& kinds, double withinMm,
                                   const std::stop_token& stop = {});

/// The drawing with a proposal taken.
Drawing withProposal(const Drawing& drawing, const Proposal& proposal);

/// What was done to a drawing, place by place.
struct Change {
  std::string kind;
  OutlineId outline = OutlineId::None;
  Point at;
  double movedMm = 0;
};

struct Refined {
  Drawing drawing;
  std::vector<Change> changes;
  /// The outlines that handwork is about of which none is there any more as it was then, as what made them is set
  /// otherwise now: what was made of them by hand counts nevertheless.
  std::vector<OutlineMark> kept{};
  /// Those that handwork took out, joined to others or put somewhere, of which nothing is found any more though other
  /// outlines lie where they did: nothing was done to these.
  std::vector<OutlineMark> lost{};
};

/// What was done next, added to all that was done before.
void append(Refined& all, Refined next);

/// Whether a proposal is about none but these outlines; lines that come along do not count.
bool isAboutOnly(const Proposal& proposal, const std::set<OutlineId>& outlines);

/// The drawing with all proposals of these kinds taken, one kind after the other; with `only` those alone that are
/// about none but these outlines. Throws Cancelled.
Refined truedUp(const Drawing& drawing, const std::set<TrueUpKind>& kinds, double withinMm,
                const std::stop_token& stop = {}, const std::set<OutlineId>* only = nullptr);

}  // namespace rim::refine
