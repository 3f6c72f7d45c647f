#include "app/steps/refine/hand/measure_tool.h"

#include <QPainter>
#include <QRegularExpression>
#include <cmath>
#include <numbers>

#include "app/look.h"
#include "core/geometry/arc.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"

namespace rim::app {
namespace {

QString number(double value, int decimals = 2) { return QString::number(value, 'f', decimals); }

}  // namespace

void MeasureTool::press(Point place, const ToolView& view) {
  move(place, view);
  if (!from_ || to_) {
    from_ = now_.place;
    to_.reset();
  } else {
    to_ = now_.place;
  }
  typed_.clear();
  text_ = between();
  emit changed();
}

void MeasureTool::move(Point place, const ToolView& view) {
  now_ = {upright(place, view), {}};
  const auto snap =
      outlines_ ? snapping_.snapped(around(), now_.place, view.reach(), {}, to_ ? std::nullopt : from_) : std::nullopt;
  snaps_ = snap.has_value();
  if (snap) now_ = *snap;
  text_ = from_ ? between() : underPointer(view.reach());
  if (text_.isEmpty()) text_ = tr("Click two places to measure between them, or point at an outline.");
  emit changed();
}

QString MeasureTool::between() const {
  const Point by = (to_.value_or(now_.place) - *from_) * mmPerPixel_;
  const double angle = std::atan2(by.y, by.x) * 180 / std::numbers::pi;
  if (!typed_.isEmpty()) return tr("%1 mm in truth: Return sizes the drawing by it.").arg(typed_);
  const QString way = tr("%1 mm   across %2, up %3 mm   at %4°")
                          .arg(number(length(by), 3), number(by.x, 3), number(by.y, 3), number(angle, 1));
  return to_ ? tr("%1   Type what it is in truth, and Return: the drawing is sized by it.").arg(way) : way;
}

bool MeasureTool::type(const QString& text, int key) {
  if (!to_) return false;
  static const QRegularExpression allowed("^[0-9.,]$");
  if (isReturn(key)) {
    const double wanted = QString(typed_).replace(',', '.').toDouble();
    const double now = distance(*from_, *to_) * mmPerPixel_;
    if (!(wanted > 0) || !(now > 0)) return false;
    leave();
    emit sizedBy(wanted / now);
    return true;
  }
  if (!typeInto(typed_, text, key, allowed)) return false;
  text_ = between();
  emit changed();
  return true;
}

QString MeasureTool::underPointer(double reach) const {
  const auto id = outlines_ ? outlineAt(*outlines_, now_.place, reach, true) : std::nullopt;
  if (!id) return {};
  const Path& path = outlines_->path(*placeOf(*outlines_, *id));
  const double k = mmPerPixel_;
  QStringList parts;
  const PathPlace place = nearestOn(path, now_.place);
  if (place.off <= reach) {
    const Piece piece = pieceOf(path, place.segment);
    const QString size = number(lengthOf(piece) * k);
    if (isArc(piece.segment)) {
      const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
      parts << tr("arc of radius %1 mm, %2 mm long").arg(number(arc.radius * k), size);
    } else {
      parts << (isLine(piece.segment) ? tr("line of %1 mm") : tr("curve of %1 mm")).arg(size);
    }
  }
  const Box box = boxOf(path);
  parts << tr("outline %1 × %2 mm, %3 mm long")
               .arg(number(box.width() * k), number(box.height() * k), number(pathLength(path) * k));
  if (path.closed) parts << tr("%1 mm² inside").arg(number(std::abs(signedArea(path)) * k * k));
  return parts.join("   ");
}

void MeasureTool::paint(QPainter& painter, const ToolView& view) const {
  if (snaps_ && !to_) paintSnap(painter, view, now_);
  if (!from_) return;
  const QPointF from = view.viewport.toScreen(*from_);
  const QPointF to = view.viewport.toScreen(to_.value_or(now_.place));
  for (const auto& [colour, width] : {std::pair(QColor(Qt::white), 4.0), std::pair(look().text, 1.5)}) {
    painter.setPen(QPen(colour, width));
    painter.drawLine(from, to);
    for (const QPointF end : {from, to}) {
      painter.drawLine(end - QPointF(6, 0), end + QPointF(6, 0));
      painter.drawLine(end - QPointF(0, 6), end + QPointF(0, 6));
    }
  }
}

QString MeasureTool::chosenText() const {
  return from_ ? tr("%1 mm").arg(number(distance(*from_, to_.value_or(now_.place)) * mmPerPixel_, 3)) : QString();
}

bool MeasureTool::leave() {
  if (!from_) return false;
  from_.reset();
  to_.reset();
  typed_.clear();
  text_.clear();
  emit changed();
  return true;
}

}  // namespace rim::app
