#include "app/steps/trace/width_chart.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/look.h"

namespace rim::app {
namespace {

constexpr double kNarrowestPx = 1;
constexpr double kWidestPx = 400;
constexpr double kMargin = 9;
constexpr double kFoot = 16;
constexpr int kColumns = 48;

double shareOf(double width) {
  return std::log(std::clamp(width, kNarrowestPx, kWidestPx) / kNarrowestPx) / std::log(kWidestPx / kNarrowestPx);
}

}  // namespace

WidthChart::WidthChart(QWidget* parent) : QWidget(parent) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::SizeHorCursor);
  setToolTip(
      tr("How much of the ink is how wide. Left of the handle strokes become lines, right of it ink keeps its "
         "borders."));
  setAccessibleName(tr("Widest stroke that becomes a line"));
}

void WidthChart::show(const std::vector<WidthShare>& widths, double limitPx) {
  widths_ = widths;
  limit_ = limitPx;
  setAccessibleDescription(std::isfinite(limit_) ? tr("%1 px").arg(limit_, 0, 'f', 1) : tr("all strokes"));
  update();
}

QRectF WidthChart::chart() const { return QRectF(rect()).adjusted(kMargin, 4, -kMargin, -kFoot); }

double WidthChart::xOf(double width) const { return chart().left() + shareOf(width) * chart().width(); }

double WidthChart::widthAt(double x) const {
  const double share = std::clamp((x - chart().left()) / chart().width(), 0.0, 1.0);
  return kNarrowestPx * std::pow(kWidestPx / kNarrowestPx, share);
}

void WidthChart::paintEvent(QPaintEvent*) {
  const Look& l = look();
  QPainter painter(this);
  painter.fillRect(chart(), l.raised);
  painter.setPen(hasFocus() ? l.accent : l.line);
  painter.drawRect(chart());
  std::vector<double> columns(kColumns);
  for (const WidthShare& w : widths_)
    columns[static_cast<std::size_t>(std::min<double>(shareOf(w.width) * kColumns, kColumns - 1))] += w.length;
  const double most = std::max(1e-9, *std::max_element(columns.begin(), columns.end()));
  const double step = chart().width() / kColumns;
  for (int i = 0; i < kColumns; ++i) {
    // Square roots: little of one width is still seen beside much of another.
    const double height = std::sqrt(columns[static_cast<std::size_t>(i)] / most) * (chart().height() - 4);
    const QRectF column(chart().left() + i * step, chart().bottom() - height, step - 1, height);
    const bool line = widthAt(column.center().x()) <= limit_;
    if (height > 0) painter.fillRect(column, line ? l.open : l.border);
  }
  const double x = xOf(limit_);
  painter.setPen(QPen(l.accent, 2));
  painter.drawLine(QPointF(x, chart().top()), QPointF(x, chart().bottom() + 3));
  painter.setBrush(l.accent);
  painter.drawPolygon(QPolygonF({{x - 5, chart().top()}, {x + 5, chart().top()}, {x, chart().top() + 7}}));
  painter.setPen(l.quiet);
  QFont small = font();
  constexpr double kSmaller = 0.85;
  small.setPointSizeF(font().pointSizeF() * kSmaller);
  painter.setFont(small);
  const QRectF foot(chart().left(), chart().bottom() + 2, chart().width(), kFoot - 2);
  painter.drawText(foot, Qt::AlignLeft, tr("lines"));
  painter.drawText(foot, Qt::AlignHCenter,
                   std::isfinite(limit_) ? tr("up to %1 px").arg(limit_, 0, 'f', 1) : tr("all are lines"));
  painter.drawText(foot, Qt::AlignRight, tr("areas"));
}

void WidthChart::moveTo(double limitPx) {
  constexpr double kPerPx = 10;
  limit_ = std::clamp(std::round(limitPx * kPerPx) / kPerPx, kNarrowestPx, kWidestPx);
  update();
  emit moved(limit_);
}

void WidthChart::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) moveTo(widthAt(event->position().x()));
}

void WidthChart::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) moveTo(widthAt(event->position().x()));
}

void WidthChart::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) emit released();
}

void WidthChart::keyPressEvent(QKeyEvent* event) {
  const int by = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
  if (by == 0) {
    QWidget::keyPressEvent(event);
    return;
  }
  constexpr double kStep = 1.05;
  const double from = std::isfinite(limit_) ? limit_ : kWidestPx;
  moveTo(std::max(from * std::pow(kStep, by), from + by * 0.1));
  emit released();
}

}  // namespace rim::app
