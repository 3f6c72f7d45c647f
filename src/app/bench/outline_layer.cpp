#include "app/bench/outline_layer.h"

#include <QPainter>
#include <algorithm>
#include <opencv2/imgproc.hpp>

#include "app/look.h"
#include "core/drawing/nested.h"
#include "core/geometry/curve_form.h"

namespace rim::app {
namespace {

constexpr std::size_t kMostNodesInSight = 6000;
constexpr std::size_t kInAPart = 50;  // fills or strokes; some 2 ms

QPen pen(const QColor& colour, double width, const QList<qreal>& pattern) {
  QPen p(colour, width);
  p.setCosmetic(true);
  p.setCapStyle(Qt::FlatCap);
  p.setJoinStyle(Qt::MiterJoin);
  if (!pattern.isEmpty()) p.setDashPattern(pattern);
  return p;
}

QPointF at(Point p) { return {p.x, p.y}; }

/// What is seen, upright px.
QRectF inSightOf(const Viewport& viewport, const QRectF& visible) {
  return QRectF(at(viewport.toPicture(visible.bottomLeft())), at(viewport.toPicture(visible.topRight()))).normalized();
}

/// Grown a little: the box of a straight outline has no width.
bool isInSight(const QRectF& box, const QRectF& inSight) { return box.adjusted(-1, -1, 1, 1).intersects(inSight); }

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
    if (path.closed) {
      addClosed(drawnOf(path), signedArea(path) < 0);
    } else {
      addStroke(drawnOf(path), kOpen);
    }
    addNodes(path);
  }
}

OutlineLayer::OutlineLayer(const Drawing& drawing) {
  // Drawings that were read run whichever way they were drawn: what lies in what says what is a hole.
  for (const std::vector<std::size_t>& area : areasOf(drawing)) {
    Fill fill;
    fill.path.setFillRule(Qt::OddEvenFill);
    for (const std::size_t i : area) {
      const Outline& outline = drawing.outlines[i];
      const bool drawnByPen = outline.stroke.usual > 0;
      const QPainterPath path = drawnOf(outline.path());
      addStroke(path, drawnByPen ? kPenLine : i == area.front() ? kBorder : kHole, outline.stroke.usual);
      addNodes(outline.path());
      if (!drawnByPen) fill.path.addPath(path);
    }
    fill.box = fill.path.boundingRect();
    if (!fill.path.isEmpty()) fills_.push_back(std::move(fill));
  }
  for (const Outline& outline : drawing.outlines) {
    if (outline.path().closed || outline.path().segments.empty()) continue;
    addStroke(drawnOf(outline.path()), outline.stroke.usual > 0 ? kPenLine : kOpen, outline.stroke.usual);
    addNodes(outline.path());
  }
}

OutlineLayer::OutlineLayer(const std::vector<trace::contour::Border>& borders, double tolerancePx) {
  for (const trace::contour::Border& border : borders) {
    std::vector<cv::Point2f> all;
    for (const Point p : border) all.emplace_back(static_cast<float>(p.x), static_cast<float>(p.y));
    std::vector<cv::Point2f> few;
    cv::approxPolyDP(all, few, tolerancePx, true);
    QPolygonF polygon;
    for (const cv::Point2f& p : few.size() < 3 ? all : few) polygon << QPointF(p.x, p.y);
    QPainterPath path;
    path.addPolygon(polygon);
    path.closeSubpath();
    addClosed(std::move(path), trace::contour::borderArea(border) < 0);
  }
}

bool OutlineLayer::hasPenLines() const {
  return std::any_of(strokes_.begin(), strokes_.end(), [](const Stroke& s) { return s.role == kPenLine; });
}

std::size_t OutlineLayer::elementsWithin(const QRectF& box) const {
  std::size_t elements = 0;
  for (const Stroke& stroke : strokes_) {
    if (isInSight(stroke.box, box)) elements += static_cast<std::size_t>(stroke.path.elementCount());
  }
  return elements;
}

void OutlineLayer::addClosed(QPainterPath path, bool hole) {
  constexpr std::ptrdiff_t kMostLookedAt = 2000;
  const QRectF box = path.boundingRect();
  // An island comes before what lies in it, so looking backwards finds the nearest one round it.
  const auto last = std::ssize(fills_) > kMostLookedAt ? fills_.rbegin() + kMostLookedAt : fills_.rend();
  const auto round = std::find_if(fills_.rbegin(), last, [&box](const Fill& f) { return f.box.contains(box); });
  if (round == last) {
    fills_.push_back({path, box});
    fills_.back().path.setFillRule(Qt::OddEvenFill);
  } else {
    round->path.addPath(path);
    round->box |= box;
  }
  addStroke(path, hole ? kHole : kBorder);
}

void OutlineLayer::addStroke(const QPainterPath& path, Role role, double penWidth) {
  // Plain lines of many parts are painted in pieces; where dashes run on or a band would overlap itself they stay
  // whole.
  constexpr int kLongest = 600;
  const int count = path.elementCount();
  elements_ += static_cast<std::size_t>(count);
  const auto push = [&](const QPainterPath& part) {
    const double half = penWidth / 2;
    strokes_.push_back({part, part.boundingRect().adjusted(-half, -half, half, half), role, penWidth});
  };
  if (role != kBorder || count <= kLongest) {
    push(path);
    return;
  }
  QPainterPath part(path.elementAt(0));
  for (int i = 1; i < count; ++i) {
    const QPainterPath::Element to = path.elementAt(i);
    if (to.type == QPainterPath::CurveToElement) {
      part.cubicTo(to, path.elementAt(i + 1), path.elementAt(i + 2));
      i += 2;
    } else {
      part.lineTo(to);
    }
    if (part.elementCount() < kLongest) continue;
    push(part);
    part = QPainterPath(part.currentPosition());
  }
  if (part.elementCount() > 1) push(part);
}

QPainterPath OutlineLayer::drawnOf(const Path& path) {
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
  return drawn;
}

void OutlineLayer::addNodes(const Path& path) {
  const std::vector<NodeMark> nodes = nodeMarksOf(path);
  nodes_.insert(nodes_.end(), nodes.begin(), nodes.end());
}

OutlineLayer::Some OutlineLayer::someOf(std::size_t count, std::size_t part) {
  return {std::min(count, part * kInAPart), std::min(count, (part + 1) * kInAPart)};
}

std::size_t OutlineLayer::fillParts() const { return (fills_.size() + kInAPart - 1) / kInAPart; }
std::size_t OutlineLayer::strokeParts() const { return (strokes_.size() + kInAPart - 1) / kInAPart; }

// Fills, bands, strokes.
std::size_t OutlineLayer::parts() const { return fillParts() + 2 * strokeParts(); }

void OutlineLayer::paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, bool filled) const {
  for (std::size_t part = 0; part < parts(); ++part) paint(painter, viewport, visible, filled, part);
}

void OutlineLayer::paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, bool filled,
                         std::size_t part) const {
  const QRectF inSight = inSightOf(viewport, visible);
  painter.save();
  painter.setTransform(viewport.transform(), true);
  painter.setRenderHint(QPainter::Antialiasing);
  if (part < fillParts()) {
    const Some some = someOf(fills_.size(), part);
    for (std::size_t i = some.from; filled && i < some.to; ++i)
      if (fills_[i].box.intersects(inSight)) painter.fillPath(fills_[i].path, look().fill);
  } else if (part < fillParts() + strokeParts()) {
    const Some some = someOf(strokes_.size(), part - fillParts());
    for (std::size_t i = some.from; filled && i < some.to; ++i) {
      const Stroke& stroke = strokes_[i];
      if (stroke.penWidth > 0 && stroke.box.intersects(inSight)) paintBand(painter, stroke.path, stroke.penWidth);
    }
  } else {
    const QPen pens[kRoles] = {borderPen(), holePen(), openPen(), penLinePen()};
    const Some some = someOf(strokes_.size(), part - fillParts() - strokeParts());
    for (std::size_t i = some.from; i < some.to; ++i)
      if (isInSight(strokes_[i].box, inSight)) painter.strokePath(strokes_[i].path, pens[strokes_[i].role]);
  }
  painter.restore();
}

void OutlineLayer::paintStrokes(QPainter& painter, const Viewport& viewport, const QRectF& visible, const QPen& pen,
                                Some some) const {
  const QRectF inSight = inSightOf(viewport, visible);
  painter.save();
  painter.setTransform(viewport.transform(), true);
  painter.setRenderHint(QPainter::Antialiasing);
  for (std::size_t i = some.from; i < some.to; ++i)
    if (isInSight(strokes_[i].box, inSight)) painter.strokePath(strokes_[i].path, pen);
  painter.restore();
}

void OutlineLayer::paintAsReference(QPainter& painter, const Viewport& viewport, const QRectF& visible,
                                    std::size_t part) const {
  constexpr double kBroad = 6;
  if (part >= strokeParts()) return;
  paintStrokes(painter, viewport, visible, pen(QColor(110, 110, 110, 120), kBroad, {}), someOf(strokes_.size(), part));
}

void OutlineLayer::paintAsPreview(QPainter& painter, const Viewport& viewport, const QRectF& visible) const {
  // Like a marker pen: it lies over the outline and lets it show.
  constexpr double kBroad = 9;
  paintStrokes(painter, viewport, visible, pen(QColor(240, 190, 60, 130), kBroad, {}), {0, strokes_.size()});
}

void OutlineLayer::paintAsGone(QPainter& painter, const Viewport& viewport, const QRectF& visible) const {
  QColor paper = look().sheet;
  constexpr int kNearlyAll = 205;
  paper.setAlpha(kNearlyAll);
  constexpr double kBroad = 5;
  paintStrokes(painter, viewport, visible, pen(paper, kBroad, {}), {0, strokes_.size()});
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
