#include "app/widgets/threshold_slider.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "app/look.h"

namespace rim::app {
namespace {

constexpr int kLevels = 256;
constexpr double kMargin = 9;
constexpr double kFoot = 20;  // below the chart: the handle and the levels

}  // namespace

ThresholdSlider::ThresholdSlider(QWidget* parent) : QAbstractSlider(parent) {
  setRange(0, kLevels - 1);
  setSingleStep(1);
  setPageStep(10);
  setOrientation(Qt::Horizontal);
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  setCursor(Qt::SizeHorCursor);
}

void ThresholdSlider::setHistogram(const picture::Histogram& histogram, std::optional<int> automatic) {
  histogram_ = histogram;
  automatic_ = automatic;
  update();
}

void ThresholdSlider::setLightIsInk(bool lightIsInk) {
  lightIsInk_ = lightIsInk;
  update();
}

QRectF ThresholdSlider::chart() const { return QRectF(rect()).adjusted(kMargin, 6, -kMargin, -kFoot); }

double ThresholdSlider::xOf(int level) const { return chart().left() + chart().width() * level / kLevels; }

int ThresholdSlider::levelAt(double x) const {
  return static_cast<int>(std::lround((x - chart().left()) / chart().width() * kLevels));
}

void ThresholdSlider::paintEvent(QPaintEvent*) {
  const Look& l = look();
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const QRectF area = chart();
  painter.fillRect(area, l.raised);

  // The fourth root: a few pixels beside a million stay visible.
  double highest = 1;
  for (const auto count : histogram_) highest = std::max(highest, std::sqrt(std::sqrt(static_cast<double>(count))));
  painter.setPen(Qt::NoPen);
  for (int level = 0; level < kLevels; ++level) {
    const double share =
        std::sqrt(std::sqrt(static_cast<double>(histogram_[static_cast<std::size_t>(level)]))) / highest;
    const bool ink = (level < value()) != lightIsInk_;
    const double top = area.bottom() - share * (area.height() - 4);
    painter.setBrush(isEnabled() && ink ? l.text : l.line);
    painter.drawRect(QRectF(xOf(level), top, xOf(level + 1) - xOf(level) + 0.3, area.bottom() - top));
  }
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(hasFocus() ? l.accent : l.line, hasFocus() ? 2 : 1));
  painter.drawRect(area);
  if (!isEnabled()) return;

  if (automatic_) {
    painter.setPen(QPen(l.quiet, 1, Qt::DotLine));
    painter.drawLine(QPointF(xOf(*automatic_), area.top()), QPointF(xOf(*automatic_), area.bottom()));
  }
  const double x = xOf(value());
  painter.setPen(QPen(l.accent, 2));
  painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom() + 3));
  QPainterPath handle;
  handle.addRoundedRect(QRectF(x - 8, area.bottom() + 2, 16, 14), 4, 4);
  painter.fillPath(handle, l.accent);
  painter.setPen(QPen(l.onAccent, 1.4));
  for (const int dx : {-3, 0, 3})
    painter.drawLine(QPointF(x + dx, area.bottom() + 6), QPointF(x + dx, area.bottom() + 12));
}

void ThresholdSlider::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  setSliderDown(true);
  setValue(levelAt(event->position().x()));
}

void ThresholdSlider::mouseMoveEvent(QMouseEvent* event) {
  if (isSliderDown()) setValue(levelAt(event->position().x()));
}

void ThresholdSlider::mouseReleaseEvent(QMouseEvent*) { setSliderDown(false); }

}  // namespace rim::app
