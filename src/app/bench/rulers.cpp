#include "app/bench/rulers.h"

#include <QPainter>
#include <cmath>

#include "app/bench/furniture.h"
#include "app/look.h"
#include "app/widgets/length_text.h"
#include "core/geometry/units.h"

namespace rim::app {
namespace {

constexpr double kNotch = 5;       // half the width of a guide's notch, screen px
constexpr double kLeastTick = 56;  // from number to number
constexpr int kSmallTicks = 10;    // between two numbers

double screenPerUnit(const LayerView& view) {
  return view.at.scale / view.mmPerPixel * (view.unit == Unit::Inch ? kMmPerInch : 1);
}

void paintRule(QPainter& painter, const LayerView& view, bool upright) {
  constexpr double kWidth = Rulers::kWidth;
  const QRectF& bench = view.visible;
  const Viewport& viewport = view.at;
  const double perUnit = screenPerUnit(view);
  const double step = tickStep(perUnit, kLeastTick);
  const double small = step / kSmallTicks;
  const double unit = perUnit / viewport.scale;
  const Point low = viewport.toPicture(QPointF(0, bench.height()));
  const Point high = viewport.toPicture(QPointF(bench.width(), 0));
  const double from = (upright ? low.y : low.x) / unit;
  const double to = (upright ? high.y : high.x) / unit;
  painter.setFont(fontLike(-3));
  for (double k = std::ceil(from / small); k * small <= to; ++k) {
    const bool numbered = std::abs(std::remainder(k, kSmallTicks)) < 0.5;
    const bool half = std::abs(std::remainder(k, kSmallTicks / 2)) < 0.5;
    const double value = k * small;
    const QPointF at = viewport.toScreen(Point{value * unit, value * unit});
    const double length = numbered ? 11 : half ? 7 : 4;
    painter.setPen(QPen(numbered ? look().text : look().quiet, 1));
    if (!upright) {
      painter.drawLine(QPointF(at.x(), kWidth - length), QPointF(at.x(), kWidth));
    } else {
      painter.drawLine(QPointF(kWidth - length, at.y()), QPointF(kWidth, at.y()));
    }
    if (!numbered) continue;
    const QString text = QString::number(std::abs(value) < small / 2 ? 0 : value, 'g', 6);
    painter.save();
    if (!upright) {
      painter.drawText(QPointF(at.x() + 3, 10), text);
    } else {
      painter.translate(10, at.y() - 3);
      painter.rotate(-90);
      painter.drawText(QPointF(0, 0), text);
    }
    painter.restore();
  }
}

}  // namespace

// The round lengths are those whose reciprocals are.
double tickStep(double screenPerUnit, double leastPx) { return 1 / roundAtMost(screenPerUnit / leastPx); }

void Rulers::setShown(bool shown) {
  if (shown == shown_) return;
  shown_ = shown;
  if (!shown) letGo();
  emit changed();
}

void Rulers::setGuides(std::vector<Guide> guides) {
  if (guides == guides_) return;
  letGo();
  guides_ = std::move(guides);
  emit changed();
}

bool Rulers::covers(QPointF place) const {
  return shown_ && place.x() >= 0 && place.y() >= 0 && (place.x() < kWidth || place.y() < kWidth);
}

QPointF Rulers::onScreen(const Guide& guide, const Viewport& viewport) const {
  return viewport.toScreen(guide.upright ? Point{guide.at, 0} : Point{0, guide.at});
}

std::optional<std::size_t> Rulers::notchAt(QPointF place, const Viewport& viewport) const {
  if (!covers(place)) return {};
  const bool above = place.y() < kWidth;
  for (std::size_t i = guides_.size(); i-- > 0;) {
    const QPointF at = onScreen(guides_[i], viewport);
    const double off = guides_[i].upright ? at.x() - place.x() : at.y() - place.y();
    if (guides_[i].upright == above && std::abs(off) <= kNotch) return i;
  }
  return {};
}

bool Rulers::press(QPointF place, const LayerView& view) {
  if (!covers(place)) return false;
  const auto notch = notchAt(place, view.at);
  if (!notch && guides_.size() >= kMostGuides) return true;
  // Out of the upper rule comes a level one.
  held_ = notch ? Held{guides_[*notch], notch} : Held{Guide{place.y() >= kWidth, 0}, {}};
  drag(place, view);
  return true;
}

bool Rulers::doublePress(QPointF place, const LayerView& view) {
  const auto notch = notchAt(place, view.at);
  if (notch) emit guideToBeTyped(*notch);
  return notch.has_value();
}

std::optional<Qt::CursorShape> Rulers::cursorAt(QPointF place, const LayerView& /*view*/) const {
  if (!covers(place)) return {};
  return place.y() < kWidth ? Qt::SizeVerCursor : Qt::SizeHorCursor;
}

void Rulers::drag(QPointF place, const LayerView& view) {
  if (!held_) return;
  held_->dropped = (held_->guide.upright ? place.x() : place.y()) < kWidth;
  const Point at = view.at.toPicture(place);
  // A round length, as far as a pixel of the screen can tell.
  const double perUnit = screenPerUnit(view);
  const double unit = perUnit / view.at.scale;  // px of the picture are so many units each
  const double round = tickStep(perUnit, 2);
  const double value = (held_->guide.upright ? at.x : at.y) / unit;
  held_->guide.at = std::round(value / round) * round * unit;
}

void Rulers::release() {
  const auto guides = letGoAs();
  letGo();
  if (guides) emit guidesChanged(*guides);
}

std::optional<std::vector<Guide>> Rulers::letGoAs() const {
  if (!held_) return {};
  const Held& held = *held_;
  std::vector<Guide> guides = guides_;
  if (held.dropped) {
    if (!held.was) return {};
    guides.erase(guides.begin() + static_cast<std::ptrdiff_t>(*held.was));
  } else if (held.was) {
    guides[*held.was] = held.guide;
  } else {
    guides.push_back(held.guide);
  }
  if (guides == guides_) return {};
  return guides;
}

void Rulers::paint(QPainter& painter, const LayerView& view, std::size_t /*part*/) const {
  if (!shown_ || !(screenPerUnit(view) > 0)) return;
  const QRectF& bench = view.visible;
  painter.setRenderHint(QPainter::Antialiasing, false);
  paintGuides(painter, view);
  painter.fillRect(QRectF(0, 0, bench.width(), kWidth), look().panel);
  painter.fillRect(QRectF(0, 0, kWidth, bench.height()), look().panel);
  paintRule(painter, view, false);
  paintRule(painter, view, true);
  painter.fillRect(QRectF(0, 0, kWidth, kWidth), look().panel);
  painter.setPen(QPen(look().quiet, 1));
  painter.setFont(fontLike(-3));
  painter.drawText(QRectF(0, 0, kWidth, kWidth), Qt::AlignCenter, unitName(view.unit));
  painter.setPen(QPen(look().line, 1));
  painter.drawLine(QPointF(0, kWidth), QPointF(bench.width(), kWidth));
  painter.drawLine(QPointF(kWidth, 0), QPointF(kWidth, bench.height()));
  painter.setRenderHint(QPainter::Antialiasing);
  paintNotches(painter, view.at);
  if (const auto& pointer = view.pointer) {
    painter.setPen(QPen(look().text, 1.5));
    painter.drawLine(QPointF(pointer->x(), 2), QPointF(pointer->x(), kWidth - 2));
    painter.drawLine(QPointF(2, pointer->y()), QPointF(kWidth - 2, pointer->y()));
  }
}

void Rulers::paintNotches(QPainter& painter, const Viewport& viewport) const {
  for (const Guide& guide : guides_) {
    const QPointF at = onScreen(guide, viewport);
    const QPolygonF notch =
        guide.upright ? QPolygonF({{at.x() - kNotch, kWidth - 9}, {at.x() + kNotch, kWidth - 9}, {at.x(), kWidth}})
                      : QPolygonF({{kWidth - 9, at.y() - kNotch}, {kWidth - 9, at.y() + kNotch}, {kWidth, at.y()}});
    painter.setPen(Qt::NoPen);
    painter.setBrush(look().accent);
    if (guide.upright ? at.x() > kWidth : at.y() > kWidth) painter.drawPolygon(notch);
  }
}

void Rulers::paintGuides(QPainter& painter, const LayerView& view) const {
  const QRectF& bench = view.visible;
  const Viewport& viewport = view.at;
  const auto line = [&](const Guide& guide, const QPen& pen) {
    const QPointF at = onScreen(guide, viewport);
    painter.setPen(pen);
    if (guide.upright) {
      painter.drawLine(QPointF(at.x(), kWidth), QPointF(at.x(), bench.height()));
    } else {
      painter.drawLine(QPointF(kWidth, at.y()), QPointF(bench.width(), at.y()));
    }
  };
  QPen pen(look().accent, 1);
  pen.setDashPattern({12, 3, 3, 3});
  for (std::size_t i = 0; i < guides_.size(); ++i) {
    if (!held_ || held_->was != i) line(guides_[i], pen);
  }
  if (!held_ || held_->dropped) return;
  line(held_->guide, QPen(look().accent, 1.5));
  const QPointF at = onScreen(held_->guide, viewport);
  const QString text = (held_->guide.upright ? QStringLiteral("x ") : QStringLiteral("y ")) +
                       lengthWithUnit(held_->guide.at * view.mmPerPixel, view.unit);
  const QPointF corner = held_->guide.upright ? QPointF(at.x() + 6, kWidth + 8) : QPointF(kWidth + 8, at.y() - 24);
  paintWords(painter, corner, text);
}

}  // namespace rim::app
