#include "app/bench/outline_layer.h"

#include <QPainter>
#include <algorithm>
#include <numbers>
#include <numeric>
#include <opencv2/imgproc.hpp>

#include "app/look.h"
#include "core/drawing/nested.h"
#include "core/geometry/curve_form.h"

namespace rim::app {
namespace {

constexpr std::size_t kMostNodesInSight = 6000;

QPen pen(const QColor& colour, double width, const QList<qreal>& pattern) {
  QPen p(colour, width);
  p.setCosmetic(true);
  p.setCapStyle(Qt::FlatCap);
  p.setJoinStyle(Qt::MiterJoin);
  if (!pattern.isEmpty()) p.setDashPattern(pattern);
  return p;
}

QPointF at(Point p) { return {p.x, p.y}; }

/// The stroke of a pen, as wide as it was drawn.
void paintBand(QPainter& painter, const QPainterPath& path, double width) {
  constexpr int kSoft = 62;
  QColor colour = look().open;
  colour.setAlpha(kSoft);
  painter.strokePath(path, QPen(colour, width, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
}

}  // namespace

QPen borderPen() { return pen(look().border, 2.0, {}); }
QPen holePen() { return pen(look().hole, 2.0, {5, 2}); }
QPen openPen() { return pen(look().open, 2.4, {1, 1.5}); }
QPen penLinePen() { return pen(look().open, 2.0, {7, 1.5, 1, 1.5}); }

OutlineLayer::OutlineLayer(const Paths& outlines) {
  for (const Path& path : outlines) {
    if (path.segments.empty()) continue;
    add(path, 0, signedArea(path) < 0);
    addNodes(path);
  }
}

OutlineLayer::OutlineLayer(const Drawing& drawing) {
  // Drawings that were read run whichever way they were drawn: what lies in what says what is a hole.
  const std::vector<int> depths = depthsOf(drawing);
  std::vector<std::size_t> outermostFirst(depths.size());
  std::iota(outermostFirst.begin(), outermostFirst.end(), std::size_t{0});
  std::stable_sort(outermostFirst.begin(), outermostFirst.end(),
                   [&depths](std::size_t a, std::size_t b) { return depths[a] < depths[b]; });
  for (const std::size_t i : outermostFirst) {
    const Outline& outline = drawing.outlines[i];
    if (outline.path().segments.empty()) continue;
    add(outline.path(), outline.stroke.usual, depths[i] % 2 != 0);
    addNodes(outline.path());
  }
}

OutlineLayer::OutlineLayer(const std::vector<Border>& borders, double tolerancePx) {
  for (const Border& border : borders) {
    std::vector<cv::Point2f> all;
    for (const Point p : border) all.emplace_back(static_cast<float>(p.x), static_cast<float>(p.y));
    std::vector<cv::Point2f> few;
    cv::approxPolyDP(all, few, tolerancePx, true);
    QPolygonF polygon;
    for (const cv::Point2f& p : few.size() < 3 ? all : few) polygon << QPointF(p.x, p.y);
    QPainterPath path;
    path.addPolygon(polygon);
    path.closeSubpath();
    addClosed(std::move(path), borderArea(border) < 0);
  }
}

bool OutlineLayer::hasPenLines() const {
  return std::any_of(strokes_.begin(), strokes_.end(), [](const Stroke& s) { return s.role == kPenLine; });
}

void OutlineLayer::addClosed(QPainterPath path, bool hole) {
  constexpr std::size_t kMostFills = 2000;
  const QRectF box = path.boundingRect();
  // An island comes before what lies in it, so looking backwards finds the nearest one round it.
  auto round = std::find_if(fills_.rbegin(), fills_.rend(), [&box](const Fill& f) { return f.box.contains(box); });
  if (round == fills_.rend() && fills_.size() >= kMostFills) round = fills_.rbegin();
  if (round == fills_.rend()) {
    fills_.push_back({path, box});
    fills_.back().path.setFillRule(Qt::OddEvenFill);
  } else {
    round->path.addPath(path);
    round->box |= box;
  }
  strokes_.push_back({std::move(path), box, hole ? kHole : kBorder});
}

void OutlineLayer::add(const Path& path, double penWidth, bool hole) {
  const Path cubic = inForm(path, CurveForm::Beziers, 0.02);
  QPainterPath drawn(at(cubic.start));
  for (const Segment& s : cubic.segments) {
    if (s.kind == SegmentKind::Cubic) {
      drawn.cubicTo(at(s.handle1), at(s.handle2), at(s.end));
    } else {
      drawn.lineTo(at(s.end));
    }
  }
  if (path.closed) drawn.closeSubpath();
  if (penWidth > 0 || !path.closed) {
    const double half = penWidth / 2;
    const QRectF box = drawn.boundingRect().adjusted(-half, -half, half, half);
    strokes_.push_back({std::move(drawn), box, penWidth > 0 ? kPenLine : kOpen, penWidth});
    return;
  }
  addClosed(std::move(drawn), hole);
}

void OutlineLayer::addNodes(const Path& path) {
  const std::vector<NodeMark> nodes = nodeMarksOf(path);
  nodes_.insert(nodes_.end(), nodes.begin(), nodes.end());
}

void OutlineLayer::paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, bool filled) const {
  const Point low = viewport.toPicture(visible.bottomLeft());
  const Point high = viewport.toPicture(visible.topRight());
  const QRectF inSight = QRectF(at(low), at(high)).normalized();
  painter.save();
  painter.setTransform(viewport.transform(), true);
  painter.setRenderHint(QPainter::Antialiasing);
  for (const Fill& fill : fills_) {
    if (filled && fill.box.intersects(inSight)) painter.fillPath(fill.path, look().fill);
  }
  for (const Stroke& stroke : strokes_) {
    if (filled && stroke.penWidth > 0 && stroke.box.intersects(inSight))
      paintBand(painter, stroke.path, stroke.penWidth);
  }
  const QPen pens[kRoles] = {borderPen(), holePen(), openPen(), penLinePen()};
  for (const Stroke& stroke : strokes_) {
    // Grown a little: the box of a straight outline has no width.
    if (stroke.box.adjusted(-1, -1, 1, 1).intersects(inSight)) painter.strokePath(stroke.path, pens[stroke.role]);
  }
  painter.restore();
}

void OutlineLayer::paintStrokes(QPainter& painter, const Viewport& viewport, const QRectF& visible,
                                const QPen& pen) const {
  const QRectF inSight =
      QRectF(at(viewport.toPicture(visible.bottomLeft())), at(viewport.toPicture(visible.topRight()))).normalized();
  painter.save();
  painter.setTransform(viewport.transform(), true);
  painter.setRenderHint(QPainter::Antialiasing);
  for (const Stroke& stroke : strokes_) {
    if (stroke.box.adjusted(-1, -1, 1, 1).intersects(inSight)) painter.strokePath(stroke.path, pen);
  }
  painter.restore();
}

void OutlineLayer::paintAsReference(QPainter& painter, const Viewport& viewport, const QRectF& visible) const {
  constexpr double kBroad = 6;
  paintStrokes(painter, viewport, visible, pen(QColor(110, 110, 110, 120), kBroad, {}));
}

void OutlineLayer::paintAsPreview(QPainter& painter, const Viewport& viewport, const QRectF& visible) const {
  // Like a marker pen: it lies over the outline and lets it show.
  constexpr double kBroad = 9;
  paintStrokes(painter, viewport, visible, pen(QColor(240, 190, 60, 130), kBroad, {}));
}

void OutlineLayer::paintAsGone(QPainter& painter, const Viewport& viewport, const QRectF& visible) const {
  QColor paper = look().sheet;
  constexpr int kNearlyAll = 205;
  paper.setAlpha(kNearlyAll);
  constexpr double kBroad = 5;
  paintStrokes(painter, viewport, visible, pen(paper, kBroad, {}));
}

bool OutlineLayer::paintNodes(QPainter& painter, const Viewport& viewport, const QRectF& visible) const {
  std::vector<const NodeMark*> inSight;
  for (const NodeMark& node : nodes_) {
    if (visible.contains(viewport.toScreen(node.place))) inSight.push_back(&node);
    if (inSight.size() > kMostNodesInSight) return false;
  }
  QPainterPath marks;
  for (const NodeMark* node : inSight) addMark(marks, *node, viewport);
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  QPen halo(QColor(255, 255, 255, 220), 5.5);
  halo.setCapStyle(Qt::FlatCap);
  painter.strokePath(marks, halo);
  QPen ink(look().node, 3);
  ink.setCapStyle(Qt::FlatCap);
  painter.strokePath(marks, ink);
  painter.restore();
  return true;
}

}  // namespace rim::app
