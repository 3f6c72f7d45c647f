#include "app/steps/trace/smoothness_curve.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/look.h"

namespace rim::app {
namespace {

constexpr double kLeastPx = 0.1;
constexpr double kMostPx = 10;
constexpr int kCurveHeightPx = 64;

}  // namespace

SmoothnessCurve::SmoothnessCurve(QWidget* parent) : LogChart(kLeastPx, kMostPx, kCurveHeightPx, parent) {
  setCursor(Qt::PointingHandCursor);
  setToolTip(tr("How many nodes the outlines have at each smoothness. Click to set it."));
  setAccessibleName(tr("Nodes along the smoothness"));
  hide();
}

void SmoothnessCurve::setNodes(std::vector<trace::NodesAt> along) {
  along_ = std::move(along);
  setVisible(!along_.empty());
  QStringList said;
  for (const trace::NodesAt& at : along_) said << tr("%1 px: %2").arg(at.tolerancePx, 0, 'g', 2).arg(at.nodes);
  setAccessibleDescription(said.join(", "));
  update();
}

void SmoothnessCurve::setTolerance(double px) {
  tolerance_ = px;
  update();
}

double SmoothnessCurve::yOf(double nodes) const {
  std::size_t most = 1;
  for (const trace::NodesAt& at : along_) most = std::max(most, at.nodes);
  constexpr double kHighest = 0.9;
  return chart().bottom() - kHighest * chart().height() * nodes / static_cast<double>(most);
}

void SmoothnessCurve::paintEvent(QPaintEvent*) {
  const Look& l = look();
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  paintFrame(painter);
  if (along_.empty()) return;
  QPainterPath below(chart().bottomLeft());
  for (const trace::NodesAt& at : along_) below.lineTo(xOf(at.tolerancePx), yOf(static_cast<double>(at.nodes)));
  below.lineTo(chart().bottomRight());
  painter.setPen(Qt::NoPen);
  painter.setBrush(l.line);
  painter.drawPath(below);
  paintMark(painter, tolerance_);
  paintFoot(painter, tr("%1 nodes at 0.1 px").arg(along_.front().nodes), {},
            tr("%1 at 10 px").arg(along_.back().nodes));
}

void SmoothnessCurve::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || along_.empty()) return;
  constexpr double kStepPx = 0.05;
  const double px = valueAt(event->position().x());
  emit chosen(std::max(kStepPx, std::round(px / kStepPx) * kStepPx));
}

}  // namespace rim::app
