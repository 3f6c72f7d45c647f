#include "app/steps/trace/part_tool.h"

#include <QApplication>
#include <QPainter>
#include <cmath>

#include "app/look.h"

namespace rim::app {
namespace {

bool whole() { return (QApplication::keyboardModifiers() & Qt::ShiftModifier) != 0; }

}  // namespace

void PartTool::set(std::vector<Point> places) {
  places_ = std::move(places);
  emit changed();
}

void PartTool::paint(QPainter& painter, const ToolView& view) const {
  constexpr double kMark = 5;  // half the width of a mark on the screen
  painter.setBrush(Qt::NoBrush);
  for (const auto& [colour, width] : {std::pair(QColor(Qt::white), 4.0), std::pair(look().accent, 2.0)}) {
    painter.setPen(QPen(colour, width));
    // Two halves the other way round: what was one is the other.
    for (const Point place : places_) {
      const QPointF at = view.toScreen(place);
      const QRectF round(at - QPointF(kMark, kMark), QSizeF(2 * kMark, 2 * kMark));
      painter.drawArc(round, 45 * 16, 135 * 16);
      painter.drawArc(round, 225 * 16, 135 * 16);
    }
    if (!byKeys_) continue;
    const QPointF at = view.toScreen(cross_);
    painter.drawLine(at - QPointF(2 * kMark, 0), at + QPointF(2 * kMark, 0));
    painter.drawLine(at - QPointF(0, 2 * kMark), at + QPointF(0, 2 * kMark));
  }
}

void PartTool::press(Point place, const ToolView&) {
  byKeys_ = false;
  cross_ = place;
  emit pointedAt(place, whole());
}

bool PartTool::nudge(Point step) {
  byKeys_ = true;
  cross_ = cross_ + step;
  emit changed();
  return true;
}

bool PartTool::chooseNext() {
  byKeys_ = true;
  emit pointedAt(cross_, whole());
  return true;
}

QString PartTool::chosenText() const {
  if (!byKeys_) return {};
  return tr("At %1, %2 (Space switches the part there)").arg(std::floor(cross_.x)).arg(std::floor(cross_.y));
}

QString PartTool::hint() const {
  return tr("Click on a part: lines become areas, areas lines; with Shift all ink that hangs together.");
}

}  // namespace rim::app
