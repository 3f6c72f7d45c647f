#include "app/steps/refine/hand/node_tool.h"

#include <QApplication>
#include <cmath>

#include "app/widgets/counted.h"
#include "core/geometry/segment.h"

namespace rim::app {
namespace {

/// Whether Alt is held: the two sides of a smooth node part.
bool breaks() { return (QApplication::keyboardModifiers() & Qt::AltModifier) != 0; }

}  // namespace

void NodeTool::setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) {
  HandTool::setOutlines(std::move(outlines), mmPerPixel);
  if (!active_) return;
  const auto place = outlines_ ? placeOf(*outlines_, *active_) : std::nullopt;
  if (!place) {
    active_.reset();
    path_ = std::make_shared<const Path>();
    choose({});
    return;
  }
  const Path& now = outlines_->path(*place);
  if (now == *path_) return;
  const bool other = now.segments.size() != path_->segments.size() || now.closed != path_->closed;
  path_ = std::make_shared<const Path>(now);
  if (other) choose({});
  emit changed();
}

void NodeTool::choose(std::set<std::size_t> nodes, std::optional<std::size_t> segment) {
  nodes_ = std::move(nodes);
  segment_ = segment;
  emit changed();
  emit chosenChanged();
}

void NodeTool::takeHold(OutlineId outline, std::set<std::size_t> nodes) {
  const auto place = outlines_ ? placeOf(*outlines_, outline) : std::nullopt;
  if (!place) return;
  active_ = outline;
  path_ = std::make_shared<const Path>(outlines_->path(*place));
  said_.clear();
  nodes.erase(nodes.lower_bound(nodeCount(*path_)), nodes.end());
  choose(std::move(nodes));
}

void NodeTool::chooseAllNodes() {
  std::set<std::size_t> all;
  for (std::size_t i = 0; active_ && i < nodeCount(*path_); ++i) all.insert(i);
  choose(std::move(all));
}

std::set<std::size_t> NodeTool::segments() const {
  if (segment_) return {*segment_};
  std::set<std::size_t> between;
  if (!active_ || nodes_.size() < 2) return between;
  const std::size_t count = nodeCount(*path_);
  for (const std::size_t node : nodes_) {
    if (node < path_->segments.size() && nodes_.count((node + 1) % count) != 0) between.insert(node);
  }
  return between;
}

std::set<std::size_t> NodeTool::handled() const {
  std::set<std::size_t> some;
  if (segment_) some.insert(*segment_);
  for (const std::size_t node : nodes_) {
    if (const auto before = refine::segmentBefore(*path_, node)) some.insert(*before);
    if (const auto after = refine::segmentAfter(*path_, node)) some.insert(*after);
  }
  return some;
}

std::optional<NodeTool::Handle> NodeTool::handleAt(Point place, double reach) const {
  std::optional<Handle> best;
  for (const std::size_t i : handled()) {
    const Segment& s = path_->segments[i];
    if (s.kind != SegmentKind::Cubic) continue;
    for (const bool first : {true, false}) {
      const double off = distance(place, first ? s.handle1 : s.handle2);
      if (off > reach) continue;
      reach = off;
      best = Handle{i, first};
    }
  }
  return best;
}

std::optional<std::size_t> NodeTool::nodeNear(Point place, double reach) const {
  if (!active_) return std::nullopt;
  const std::size_t node = refine::nearestNode(*path_, place);
  return distance(refine::nodeAt(*path_, node), place) <= reach ? std::optional(node) : std::nullopt;
}

std::set<std::size_t> NodeTool::nodesWithin(const Box& box) const {
  std::set<std::size_t> within;
  for (std::size_t i = 0; active_ && i < nodeCount(*path_); ++i) {
    if (box.contains(refine::nodeAt(*path_, i))) within.insert(i);
  }
  return within;
}

void NodeTool::press(Point place, const ToolView& view) {
  pressed_ = now_ = upright(place, view);
  moved_ = false;
  hold_ = Hold::Box;
  if (!outlines_) return;
  if (const auto handle = handleAt(pressed_, view.reach())) {
    handle_ = *handle;
    hold_ = Hold::Handle;
    return;
  }
  if (const auto node = nodeNear(pressed_, view.reach())) {
    std::set<std::size_t> next = adds() || nodes_.count(*node) != 0 ? nodes_ : std::set<std::size_t>{};
    if (adds() && nodes_.count(*node) != 0) {
      next.erase(*node);
    } else {
      next.insert(*node);
    }
    hold_ = next.count(*node) != 0 ? Hold::Nodes : Hold::Nothing;
    choose(std::move(next));
    return;
  }
  const auto other = outlineAt(*outlines_, pressed_, view.reach(), false);
  if (active_ && path_->segments.size() > 0) {
    held_ = nearestOn(*path_, pressed_);
    if (held_.off <= view.reach() && (!other || *other == *active_)) {
      hold_ = Hold::Segment;
      choose({}, held_.segment);
      return;
    }
  }
  if (other) {
    takeHold(*other);
    hold_ = Hold::Nothing;
  }
}

void NodeTool::doublePress(Point place, const ToolView& view) {
  const Point at = upright(place, view);
  if (!active_ || path_->segments.empty() || nodeNear(at, view.reach())) return press(place, view);
  const PathPlace where = nearestOn(*path_, at);
  if (where.off > view.reach()) return press(place, view);
  hold_ = Hold::Nothing;
  Path more = refine::withNodeAt(*path_, where);
  if (more.segments.size() == path_->segments.size()) return;
  choose({where.segment + 1});
  said_ = tr("A node more.");
  becomeOne(tr("Put a node"), std::move(more));
}

void NodeTool::move(Point place, const ToolView& view) {
  now_ = upright(place, view);
  if (hold_ == Hold::Nothing) return;
  moved_ = moved_ || isDrag(pressed_, now_, view);
  snap_.reset();
  if (hold_ == Hold::Nodes && moved_ && nodes_.size() == 1 && snapping_ != nullptr) {
    // The node itself comes there, not the place where it was taken hold of.
    const Point held = refine::nodeAt(*path_, *nodes_.begin());
    snap_ = snapping_->snapped(around(), held + (now_ - pressed_), view.reach(), {*active_});
    if (snap_) now_ = pressed_ + (snap_->place - held);
  }
  emit changed();
}

Path NodeTool::dragged() const {
  switch (hold_) {
    case Hold::Nodes:
      return refine::withNodesMoved(*path_, nodes_, now_ - pressed_);
    case Hold::Handle:
      return refine::withHandleAt(*path_, handle_.segment, handle_.first, now_, !breaks());
    case Hold::Segment:
      return refine::withSegmentPulled(*path_, held_, held_.place + (now_ - pressed_));
    default:
      return *path_;
  }
}

void NodeTool::release(Point place, const ToolView& view) {
  move(place, view);
  const Hold held = hold_;
  if (held == Hold::Box) {
    Box box;
    box.include(pressed_);
    box.include(now_);
    std::set<std::size_t> next = moved_ ? nodesWithin(box) : std::set<std::size_t>{};
    if (adds()) next.insert(nodes_.begin(), nodes_.end());
    hold_ = Hold::Nothing;
    choose(std::move(next));
    return;
  }
  if (held != Hold::Nothing && moved_) {
    said_.clear();
    becomeOne(held == Hold::Nodes    ? tr("Move nodes")
              : held == Hold::Handle ? tr("Move a handle")
                                     : tr("Pull a segment"),
              dragged());
  }
  hold_ = Hold::Nothing;
  snap_.reset();
  emit changed();
}

bool NodeTool::nudge(Point step) {
  if (!active_ || nodes_.empty()) return false;
  become(tr("Move nodes"), {refine::withNodesMoved(*path_, nodes_, nudgeBy(step))}, "nudge nodes");
  return true;
}

bool NodeTool::chooseNext() {
  if (!outlines_ || outlines_->outlines.empty()) return false;
  if (!active_) {
    takeHold(outlines_->outlines.front().id, {0});
  } else {
    choose({nodes_.empty() ? 0 : (*nodes_.rbegin() + 1) % nodeCount(*path_)});
  }
  return true;
}

QString NodeTool::chosenText() const {
  if (!active_) return {};
  if (segment_) return tr("segment %1 of %2").arg(*segment_ + 1).arg(path_->segments.size());
  return tr("%1 of %2 chosen").arg(nodes_.size()).arg(counted(nodeCount(*path_), tr("1 node"), tr("%1 nodes")));
}

QString NodeTool::hint() const {
  if (!said_.isEmpty()) return said_;
  if (!active_) return tr("Click the outline whose nodes you want to take hold of.");
  if (hold_ == Hold::Handle) return tr("Alt lets the other side stay.");
  if (segment_) return tr("Drag it to bend it; a double click puts a node there.");
  if (nodes_.empty()) return tr("Click a node or a segment, or draw a box round some.");
  return tr("Drag to move; arrow keys move by %1 mm; Del takes out.").arg(nudgeMm_);
}

bool NodeTool::leave() {
  said_.clear();
  if (hold_ != Hold::Nothing) {
    hold_ = Hold::Nothing;
    emit changed();
    return true;
  }
  if (!nodes_.empty() || segment_) {
    choose({});
    return true;
  }
  if (!active_) return false;
  active_.reset();
  path_ = std::make_shared<const Path>();
  choose({});
  return true;
}

void NodeTool::become(const QString& name, std::vector<Path> paths, const QString& mergeKey) {
  const auto place = active_ && outlines_ ? placeOf(*outlines_, *active_) : std::nullopt;
  if (!place) return;
  const OutlineMark was = markOf(outlines_->outlines[*place].with(*path_));
  if (!paths.empty()) path_ = std::make_shared<const Path>(paths.front());
  emit made(name, {refine::madeByHand(was, std::move(paths))}, mergeKey);
  emit changed();
  emit chosenChanged();
}

}  // namespace rim::app
