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
constexpr double kMargin = 9;
constexpr double kFoot = 16;  // below the chart: what the tolerances are

}  // namespace

SmoothnessCurve::SmoothnessCurve(QWidget* parent) : QWidget(parent) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  setCursor(Qt::PointingHandCursor);
  setToolTip(tr("How many nodes the outlines have at each smoothness. Click to set it."));
  setAccessibleName(tr("Nodes along the smoothness"));
  hide();
}

void SmoothnessCurve::setNodes(std::vector<NodesAt> along) {
  along_ = std::move(along);
  setVisible(!along_.empty());
  QStringList said;
  for (const NodesAt& at : along_) said << tr("%1 px: %2").arg(at.tolerancePx, 0, 'g', 2).arg(at.nodes);
  setAccessibleDescription(said.join(", "));
  update();
}

void SmoothnessCurve::setTolerance(double px) {
  tolerance_ = px;
  update();
}

QRectF SmoothnessCurve::chart() const { return QRectF(rect()).adjusted(kMargin, 4, -kMargin, -kFoot); }

double SmoothnessCurve::xOf(double tolerancePx) const {
  const double share = std::log(std::clamp(tolerancePx, kLeastPx, kMostPx) / kLeastPx) / std::log(kMostPx / kLeastPx);
  return chart().left() + share * chart().width();
}

double SmoothnessCurve::yOf(double nodes) const {
  std::size_t most = 1;
  for (const NodesAt& at : along_) most = std::max(most, at.nodes);
  constexpr double kHighest = 0.9;
  return chart().bottom() - kHighest * chart().height() * nodes / static_cast<double>(most);
}

void SmoothnessCurve::paintEvent(QPaintEvent*) {
  const Look& l = look();
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(chart(), l.raised);
  painter.setPen(l.line);
  painter.drawRect(chart());
  if (along_.empty()) return;
  QPainterPath below(chart().bottomLeft());
  for (const NodesAt& at : along_) below.lineTo(xOf(at.tolerancePx), yOf(static_cast<double>(at.nodes)));
  below.lineTo(chart().bottomRight());
  painter.setPen(Qt::NoPen);
  painter.setBrush(l.line);
  painter.drawPath(below);
  painter.setPen(QPen(l.accent, 2));
  painter.drawLine(QPointF(xOf(tolerance_), chart().top()), QPointF(xOf(tolerance_), chart().bottom() + 3));
  painter.setPen(l.quiet);
  QFont small = font();
  constexpr double kSmaller = 0.85;
  small.setPointSizeF(font().pointSizeF() * kSmaller);
  painter.setFont(small);
  const QRectF foot(chart().left(), chart().bottom() + 2, chart().width(), kFoot - 2);
  painter.drawText(foot, Qt::AlignLeft, tr("%1 nodes at 0.1 px").arg(along_.front().nodes));
  painter.drawText(foot, Qt::AlignRight, tr("%1 at 10 px").arg(along_.back().nodes));
}

void SmoothnessCurve::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || along_.empty()) return;
  const double share = std::clamp((event->position().x() - chart().left()) / chart().width(), 0.0, 1.0);
  constexpr double kStepPx = 0.05;
  const double px = kLeastPx * std::pow(kMostPx / kLeastPx, share);
  emit chosen(std::max(kStepPx, std::round(px / kStepPx) * kStepPx));
}

}  // namespace rim::app
