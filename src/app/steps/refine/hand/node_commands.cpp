// What is done to the nodes that are chosen.

#include <array>

#include "app/steps/refine/hand/node_tool.h"
#include "core/error.h"
#include "core/refine/edit/ends.h"
#include "core/refine/edit/without_nodes.h"

namespace rim::app {

/// Says what has to be chosen first; `need` is whether it is.
bool NodeTool::nothingHeld(bool need) {
  if (active_ && need) return false;
  emit refused(active_ ? tr("Choose nodes or a segment of the outline first.")
                       : tr("Click the outline whose nodes you want to take hold of first."));
  return true;
}

void NodeTool::deleteNodes() {
  if (segment_) return deleteSegments();
  if (nothingHeld(!nodes_.empty())) return;
  try {
    refine::FittedAgain fitted = refine::withoutNodes(*path_, nodes_);
    const std::size_t gone = nodes_.size();
    nodes_.clear();
    const QString size = QString::number(fitted.off * mmPerPixel_, 'f', 3);
    said_ = gone == 1 ? tr("1 node less; the shape changed by up to %1 mm.").arg(size)
                      : tr("%1 nodes less; the shape changed by up to %2 mm.").arg(gone).arg(size);
    becomeOne(tr("Take nodes out"), std::move(fitted.path));
  } catch (const InputError& e) {
    emit refused(tr("Nothing was taken out: %1").arg(QString::fromUtf8(e.what())));
  }
}

void NodeTool::deleteSegments() {
  const std::set<std::size_t> which = segments();
  if (nothingHeld(!which.empty())) return;
  std::vector<Path> paths = refine::withoutSegments(*path_, which);
  if (paths.empty() && outlines_->outlines.size() == 1) {
    emit refused(tr("That would leave no outline at all."));
    return;
  }
  nodes_.clear();
  segment_.reset();
  said_ = tr("A segment less: the outline is open there.");
  become(tr("Take segments out"), std::move(paths));
}

void NodeTool::makeSegments(SegmentKind kind) {
  const std::set<std::size_t> which = segments();
  if (nothingHeld(!which.empty())) return;
  const std::array<QString, 3> names{tr("Make lines"), tr("Make arcs"), tr("Make curves")};
  Path path = refine::withSegmentsAs(*path_, which, kind);
  // With more segments than before the numbers of what is chosen mean others.
  if (path.segments.size() != path_->segments.size()) nodes_.clear(), segment_.reset();
  becomeOne(names[static_cast<std::size_t>(kind)], std::move(path));
}

void NodeTool::makeSmooth() {
  if (nothingHeld(!nodes_.empty())) return;
  becomeOne(tr("Make smooth"), refine::smoothedAt(*path_, nodes_));
}

void NodeTool::makeCorner() {
  if (nothingHeld(!nodes_.empty())) return;
  becomeOne(tr("Make a corner"), refine::corneredAt(*path_, nodes_));
}

void NodeTool::part() {
  if (nothingHeld(!nodes_.empty())) return;
  std::vector<Path> parts = refine::partedAt(*path_, *nodes_.begin());
  nodes_.clear();
  said_ = tr("Parted there.");
  become(tr("Part"), std::move(parts));
}

void NodeTool::close() {
  if (nothingHeld(true)) return;
  if (path_->closed) {
    emit refused(tr("This outline is closed; parts are joined at open ends."));
    return;
  }
  nodes_.clear();
  said_ = tr("Closed.");
  becomeOne(tr("Close"), refine::closedUp(*path_, kTogetherMm / mmPerPixel_));
}

void NodeTool::turnRound() {
  if (nothingHeld(true)) return;
  nodes_.clear();
  segment_.reset();
  said_ = tr("It runs the other way round now.");
  becomeOne(tr("Turn round"), reversed(*path_));
}

void NodeTool::startHere() {
  if (nothingHeld(!nodes_.empty())) return;
  const std::size_t node = *nodes_.begin();
  nodes_ = {0};
  said_ = path_->closed ? tr("It starts here now.") : tr("An open outline starts at its end.");
  becomeOne(tr("Start here"), refine::startingAt(*path_, node));
}

void NodeTool::lineUp(refine::LineUp how) {
  if (nothingHeld(nodes_.size() > 1)) return;
  becomeOne(tr("Line nodes up"), refine::linedUp(*path_, nodes_, how));
}

void NodeTool::spread() {
  if (nothingHeld(nodes_.size() > 2)) return;
  becomeOne(tr("Spread nodes evenly"), refine::spreadEvenly(*path_, nodes_));
}

}  // namespace rim::app
