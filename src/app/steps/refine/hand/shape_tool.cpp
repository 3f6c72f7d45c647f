#include "app/steps/refine/hand/shape_tool.h"

#include <QPainter>
#include <QRegularExpression>
#include <cmath>

#include "app/steps/refine/hand/typed_way.h"
#include "core/error.h"

namespace rim::app {
namespace {

constexpr double kShapeToleranceMm = 0.001;

/// The numbers that were typed, mm.
std::vector<double> numbersIn(const QString& typed) {
  static const QRegularExpression between("[x×*; ]+");
  std::vector<double> numbers;
  for (const QString& part : typed.split(between, Qt::SkipEmptyParts)) {
    bool isNumber = false;
    const double value = QString(part).replace(',', '.').toDouble(&isNumber);
    if (!isNumber || !(value > 0)) return {};
    numbers.push_back(value);
  }
  return numbers;
}

}  // namespace

void ShapeTool::setWish(const refine::ShapeWish& wish) {
  wish_ = wish;
  leave();
  emit changed();
}

bool ShapeTool::hasOneSize() const {
  return wish_.kind == refine::ShapeKind::Circle || wish_.kind == refine::ShapeKind::Polygon ||
         wish_.kind == refine::ShapeKind::Star || wish_.kind == refine::ShapeKind::Line;
}

Point ShapeTool::second() const {
  const std::vector<double> numbers = numbersIn(typed_);
  const bool isLine = wish_.kind == refine::ShapeKind::Line;
  if (!from_ || (!isLine && numbers.empty())) return now_;
  const Point way = now_ - *from_;
  if (isLine) {
    const auto typed = typedWay(typed_, way);
    return typed ? *from_ + *typed * (1 / mmPerPixel_) : now_;
  }
  if (hasOneSize()) {
    const Point along = length(way) > 0 ? unit(way) : Point{1, 0};
    return *from_ + along * (numbers[0] / mmPerPixel_);
  }
  const double width = numbers[0] / mmPerPixel_;
  const double height = (numbers.size() > 1 ? numbers[1] : numbers[0]) / mmPerPixel_;
  return *from_ + Point{std::copysign(width, way.x), std::copysign(height, way.y)};
}

std::optional<Path> ShapeTool::shape() const {
  if (!from_) return std::nullopt;
  try {
    refine::ShapeWish inPx = wish_;
    inPx.rounding /= mmPerPixel_;
    return refine::shapeBetween(inPx, *from_, second(), kShapeToleranceMm / mmPerPixel_);
  } catch (const InputError&) {
    return std::nullopt;  // not yet
  }
}

void ShapeTool::finish() {
  const auto path = shape();
  if (!path) return;
  from_.reset();
  emit drawn(*path);
  emit changed();
}

bool ShapeTool::type(const QString& text, int key) {
  if (!from_) return false;
  static const QRegularExpression allowed("^[0-9.,x× <-]$");
  if (isReturn(key)) {
    finish();
  } else if (!typeInto(typed_, text, key, allowed)) {
    return false;
  }
  emit changed();
  return true;
}

void ShapeTool::paint(QPainter& painter, const ToolView& view) const {
  if (const auto path = shape()) paintOver(painter, view, {*path});
  if (snap_) paintSnap(painter, view, *snap_);
}

QString ShapeTool::chosenText() const {
  if (!from_) return {};
  const Point by = (second() - *from_) * mmPerPixel_;
  if (hasOneSize()) return tr("%1 mm").arg(length(by), 0, 'f', 2);
  return tr("%1 × %2 mm").arg(std::abs(by.x), 0, 'f', 2).arg(std::abs(by.y), 0, 'f', 2);
}

QString ShapeTool::hint() const {
  if (!from_) {
    const bool outwards = hasOneSize() && wish_.kind != refine::ShapeKind::Line;
    return outwards ? tr("Drag from the middle outwards, or click twice.")
                    : tr("Drag from one end to the other, or click twice.");
  }
  if (!typed_.isEmpty()) return tr("%1 mm: Return takes it.").arg(typed_);
  if (wish_.kind == refine::ShapeKind::Line)
    return tr("Type a length, or a length and an angle, as 40<30, and Return, or click.");
  return hasOneSize() ? tr("Type a length in mm and Return, or click.")
                      : tr("Type width and height in mm, as 40 x 25, and Return, or click.");
}

}  // namespace rim::app
