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
constexpr int kHeightPx = 84;
constexpr int kColumns = 48;

}  // namespace

WidthChart::WidthChart(QWidget* parent) : LogChart(kNarrowestPx, kWidestPx, kHeightPx, parent) {
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::SizeHorCursor);
  setToolTip(
      tr("How much of the ink is how wide. Left of the handle strokes become lines, right of it ink keeps its "
         "borders."));
  setAccessibleName(tr("Widest stroke that becomes a line"));
}

void WidthChart::show(const std::vector<trace::WidthShare>& widths, double limitPx) {
  widths_ = widths;
  limit_ = limitPx;
  setAccessibleDescription(std::isfinite(limit_) ? tr("%1 px").arg(limit_, 0, 'f', 1) : tr("all strokes"));
  update();
}

void WidthChart::paintEvent(QPaintEvent*) {
  const Look& l = look();
  QPainter painter(this);
  paintFrame(painter);
  const double step = chart().width() / kColumns;
  std::vector<double> columns(kColumns);
  for (const trace::WidthShare& w : widths_) {
    const double at = (xOf(w.width) - chart().left()) / step;
    columns[static_cast<std::size_t>(std::min<double>(at, kColumns - 1))] += w.length;
  }
  const double most = std::max(1e-9, *std::max_element(columns.begin(), columns.end()));
  for (int i = 0; i < kColumns; ++i) {
    // Square roots: little of one width is still seen beside much of another.
    const double height = std::sqrt(columns[static_cast<std::size_t>(i)] / most) * (chart().height() - 4);
    const QRectF column(chart().left() + i * step, chart().bottom() - height, step - 1, height);
    const bool line = valueAt(column.center().x()) <= limit_;
    if (height > 0) painter.fillRect(column, line ? l.open : l.border);
  }
  paintMark(painter, limit_);
  const double x = xOf(limit_);
  painter.setBrush(l.accent);
  painter.drawPolygon(QPolygonF({{x - 5, chart().top()}, {x + 5, chart().top()}, {x, chart().top() + 7}}));
  paintFoot(painter, tr("lines"),
            std::isfinite(limit_) ? tr("up to %1 px").arg(limit_, 0, 'f', 1) : tr("all are lines"), tr("areas"));
}

void WidthChart::moveTo(double limitPx) {
  constexpr double kPerPx = 10;
  limit_ = std::clamp(std::round(limitPx * kPerPx) / kPerPx, kNarrowestPx, kWidestPx);
  update();
  emit moved(limit_);
}

void WidthChart::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) moveTo(valueAt(event->position().x()));
}

void WidthChart::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) moveTo(valueAt(event->position().x()));
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
