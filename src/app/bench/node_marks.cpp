#include "app/bench/node_marks.h"

#include <numbers>

namespace rim::app {
namespace {

constexpr double kArmPx = 9;  // screen length of a chevron's arm
constexpr double kBarPx = 6;  // half the screen length of a smooth node's bar
constexpr double kTickPx = 7;
constexpr double kSmoothDegrees = 2;

/// Screen direction of an upright one.
QPointF onScreen(Point direction) { return {direction.x, -direction.y}; }

bool isSmooth(Point in, Point out) { return std::abs(angleBetween(in, out)) < kSmoothDegrees * std::numbers::pi / 180; }

}  // namespace

std::vector<NodeMark> nodeMarksOf(const Path& path) {
  std::vector<NodeMark> nodes;
  const std::size_t n = path.segments.size();
  for (std::size_t i = 0; i < n; ++i) {
    const Point place = segmentStart(path, i);
    Point in{};
    if (i > 0 || path.closed) {
      const std::size_t before = (i + n - 1) % n;
      in = endTangent(segmentStart(path, before), path.segments[before]);
    }
    nodes.push_back({place, in, startTangent(place, path.segments[i]), i == 0});
  }
  if (!path.closed && n > 0)
    nodes.push_back({path.segments.back().end, endTangent(segmentStart(path, n - 1), path.segments.back()), {}, false});
  return nodes;
}

void addMark(QPainterPath& marks, const NodeMark& node, const Viewport& viewport) {
  const QPointF place = viewport.toScreen(node.place);
  const QPointF in = onScreen(node.in);
  const QPointF out = onScreen(node.out);
  if (isSmooth(node.in, node.out)) {
    marks.moveTo(place - out * kBarPx);
    marks.lineTo(place + out * kBarPx);
  } else {
    marks.moveTo(place - in * kArmPx);
    marks.lineTo(place);
    marks.lineTo(place + out * kArmPx);
  }
  if (node.start) {
    const QPointF across(-out.y(), out.x());
    marks.moveTo(place - across * kTickPx);
    marks.lineTo(place + across * kTickPx);
  }
}

}  // namespace rim::app
