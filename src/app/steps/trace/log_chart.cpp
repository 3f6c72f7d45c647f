#include "app/steps/trace/log_chart.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/look.h"

namespace rim::app {
namespace {

constexpr double kMargin = 9;
constexpr double kFoot = 16;

}  // namespace

LogChart::LogChart(double least, double most, int heightPx, QWidget* parent)
    : QWidget(parent), least_(least), most_(most), heightPx_(heightPx) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QRectF LogChart::chart() const { return QRectF(rect()).adjusted(kMargin, 4, -kMargin, -kFoot); }

double LogChart::xOf(double value) const {
  const double share = std::log(std::clamp(value, least_, most_) / least_) / std::log(most_ / least_);
  return chart().left() + share * chart().width();
}

double LogChart::valueAt(double x) const {
  const double share = std::clamp((x - chart().left()) / chart().width(), 0.0, 1.0);
  return least_ * std::pow(most_ / least_, share);
}

void LogChart::paintFrame(QPainter& painter) const {
  painter.fillRect(chart(), look().raised);
  painter.setPen(hasFocus() ? look().accent : look().line);
  painter.drawRect(chart());
}

void LogChart::paintMark(QPainter& painter, double value) const {
  painter.setPen(QPen(look().accent, 2));
  painter.drawLine(QPointF(xOf(value), chart().top()), QPointF(xOf(value), chart().bottom() + 3));
}

void LogChart::paintFoot(QPainter& painter, const QString& left, const QString& middle, const QString& right) const {
  painter.setPen(look().quiet);
  QFont small = font();
  constexpr double kSmaller = 0.85;
  small.setPointSizeF(font().pointSizeF() * kSmaller);
  painter.setFont(small);
  const QRectF foot(chart().left(), chart().bottom() + 2, chart().width(), kFoot - 2);
  painter.drawText(foot, Qt::AlignLeft, left);
  painter.drawText(foot, Qt::AlignHCenter, middle);
  painter.drawText(foot, Qt::AlignRight, right);
}

}  // namespace rim::app
