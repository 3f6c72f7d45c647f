// How the outline that is taken hold of shows on the bench.

#include <QPainter>

#include "app/bench/node_marks.h"
#include "app/look.h"
#include "app/steps/refine/hand/node_tool.h"
#include "core/geometry/segment.h"

namespace rim::app {
namespace {

constexpr std::size_t kMostNodesInSight = 3000;

void strokeTwice(QPainter& painter, const QPainterPath& path, const QColor& colour, double width) {
  QPen halo(QColor(255, 255, 255, 220), width + 2.5);
  halo.setCapStyle(Qt::FlatCap);
  painter.strokePath(path, halo);
  QPen ink(colour, width);
  ink.setCapStyle(Qt::FlatCap);
  painter.strokePath(path, ink);
}

/// Some segments by themselves.
std::vector<Path> alone(const Path& path, const std::set<std::size_t>& segments) {
  std::vector<Path> some;
  for (const std::size_t i : segments) some.push_back({segmentStart(path, i), {path.segments[i]}, false});
  return some;
}

}  // namespace

void NodeTool::paint(QPainter& painter, const ToolView& view) const {
  if (!active_ || path_->segments.empty()) {
    paintDrag(painter, view);
    return;
  }
  painter.save();
  const std::set<std::size_t> chosen = segments();
  if (hold_ != Hold::Segment) paintOver(painter, view, alone(*path_, chosen));
  paintDrag(painter, view);
  paintHandles(painter, view, *path_);
  paintNodes(painter, view, *path_);
  if (snap_) paintSnap(painter, view, *snap_);
  painter.restore();
}

/// What moves is shown as it would be; what stays is not painted again.
void NodeTool::paintDrag(QPainter& painter, const ToolView& view) const {
  if (!moved_) return;
  if (hold_ == Hold::Box) paintBox(painter, view, pressed_, now_);
  if (hold_ == Hold::Box || hold_ == Hold::Nothing || !active_) return;
  std::set<std::size_t> touched = handled();
  if (hold_ == Hold::Segment) {
    const std::size_t n = nodeCount(*path_);
    for (const std::size_t node : {held_.segment, (held_.segment + 1) % n}) {
      if (const auto before = refine::segmentBefore(*path_, node)) touched.insert(*before);
      if (const auto after = refine::segmentAfter(*path_, node)) touched.insert(*after);
    }
  }
  paintOver(painter, view, alone(dragged(), touched));
}

void NodeTool::paintHandles(QPainter& painter, const ToolView& view, const Path& path) const {
  constexpr double kHalf = 4;
  for (const std::size_t i : handled()) {
    const Segment& s = path.segments[i];
    if (s.kind != SegmentKind::Cubic) continue;
    for (const auto& [node, handle] : {std::pair(segmentStart(path, i), s.handle1), std::pair(s.end, s.handle2)}) {
      const QPointF from = view.viewport.toScreen(node);
      const QPointF to = view.viewport.toScreen(handle);
      QPainterPath arm(from);
      arm.lineTo(to);
      strokeTwice(painter, arm, look().node, 1);
      // A cross, so that nobody takes it for a node.
      QPainterPath cross(to - QPointF(kHalf, kHalf));
      cross.lineTo(to + QPointF(kHalf, kHalf));
      cross.moveTo(to - QPointF(kHalf, -kHalf));
      cross.lineTo(to + QPointF(kHalf, -kHalf));
      strokeTwice(painter, cross, look().node, 2);
    }
  }
}

void NodeTool::paintNodes(QPainter& painter, const ToolView& view, const Path& path) const {
  const QRectF sight = painter.viewport();
  const std::vector<NodeMark> nodes = nodeMarksOf(path);
  QPainterPath plain;
  QPainterPath chosen;
  QPainterPath rings;
  constexpr double kRing = 10;
  std::size_t shown = 0;
  for (std::size_t i = 0; i < nodes.size() && shown < kMostNodesInSight; ++i) {
    const QPointF place = view.viewport.toScreen(nodes[i].place);
    if (!sight.contains(place)) continue;
    ++shown;
    const bool isChosen = nodes_.count(i) != 0;
    addMark(isChosen ? chosen : plain, nodes[i], view.viewport);
    if (isChosen) rings.addEllipse(place, kRing, kRing);
  }
  strokeTwice(painter, plain, look().node, 3);
  strokeTwice(painter, rings, look().accent, 1.5);
  strokeTwice(painter, chosen, look().accent, 4);
}

}  // namespace rim::app
