#include "app/steps/picture/step_text.h"

#include <QCoreApplication>
#include <QStringList>

#include "core/overloaded.h"

namespace rim::app {
namespace {

QString text(const char* source) { return QCoreApplication::translate("PictureSteps", source); }

}  // namespace

QString stepName(const Preparation& what) {
  return std::visit(Overloaded{
                        [](const Crop&) { return text("Crop"); },
                        [](const CropToInk&) { return text("Crop to ink"); },
                        [](const Turn&) { return text("Turn"); },
                        [](const Mirror&) { return text("Mirror"); },
                        [](const Straighten&) { return text("Straighten"); },
                        [](const EvenLight&) { return text("Even light"); },
                        [](const LiftShadows&) { return text("Lift shadows"); },
                        [](const Denoise&) { return text("Denoise"); },
                        [](const Thicken& s) { return s.px < 0 ? text("Thin") : text("Thicken"); },
                        [](const FillGaps&) { return text("Close gaps"); },
                        [](const FillPinholes&) { return text("Fill pinholes"); },
                        [](const DropSpecks&) { return text("Drop specks"); },
                        [](const Enlarge&) { return text("Enlarge"); },
                        [](const LocalThreshold&) { return text("Local threshold"); },
                        [](const SmoothEdges&) { return text("Smooth edges"); },
                        [](const TouchUp& s) {
                          return s.strokes.size() == 1 ? text("Touch up: 1 stroke")
                                                       : text("Touch up: %1 strokes").arg(s.strokes.size());
                        },
                        [](const ClearFrame& s) { return s.inside ? text("Clear inside") : text("Clear outside"); },
                        [](const PickColour& s) { return s.ink ? text("Colour to ink") : text("Colour to paper"); },
                    },
                    what);
}

std::optional<StepNumber> numberOf(const Preparation& what) {
  using Number = std::optional<StepNumber>;
  return std::visit(Overloaded{
                        [](const CropToInk& s) {
                          return Number({double(s.marginPx), 0, 500, 1, 0, text("px"), {}});
                        },
                        [](const Turn& s) {
                          return Number({s.degrees, -180, 180, 0.5, 1, text("°"), {}});
                        },
                        [](const Straighten& s) {
                          return Number({s.sideRatio, 0, 20, 0.01, 4, {}, text("estimated")});
                        },
                        [](const LiftShadows& s) {
                          return Number({s.reachPx, 3, 9999, 10, 0, text("px"), {}});
                        },
                        [](const Denoise& s) {
                          return Number({s.strength, 0.2, 5, 0.2, 1, text("×"), {}});
                        },
                        [](const Thicken& s) {
                          return Number({s.px, -50, 50, 0.5, 1, text("px"), {}});
                        },
                        [](const FillGaps& s) {
                          return Number({s.px, 0, 50, 0.5, 1, text("px"), {}});
                        },
                        [](const FillPinholes& s) {
                          return Number({s.areaPx2, 0, 1e6, 5, 0, text("px²"), {}});
                        },
                        [](const DropSpecks& s) {
                          return Number({s.areaPx2, 0, 1e6, 5, 0, text("px²"), {}});
                        },
                        [](const Enlarge& s) {
                          return Number({s.factor, 1, 8, 0.5, 1, text("×"), {}});
                        },
                        [](const LocalThreshold& s) {
                          return Number({s.sizePx, 3, 999, 4, 0, text("px"), {}});
                        },
                        [](const SmoothEdges& s) {
                          return Number({s.px, 0.3, 20, 0.2, 1, text("px"), {}});
                        },
                        [](const PickColour& s) {
                          return Number({s.tolerance, 0, 200, 2, 0, {}, {}});
                        },
                        [](const auto&) { return Number(); },
                    },
                    what);
}

Preparation withNumber(const Preparation& what, double value) {
  return std::visit(Overloaded{
                        [value](CropToInk s) -> Preparation { return s.marginPx = static_cast<int>(value), s; },
                        [value](Turn s) -> Preparation { return s.degrees = value, s; },
                        [value](Straighten s) -> Preparation { return s.sideRatio = value, s; },
                        [value](LiftShadows s) -> Preparation { return s.reachPx = value, s; },
                        [value](Denoise s) -> Preparation { return s.strength = value, s; },
                        [value](Thicken s) -> Preparation { return s.px = value, s; },
                        [value](FillGaps s) -> Preparation { return s.px = value, s; },
                        [value](FillPinholes s) -> Preparation { return s.areaPx2 = value, s; },
                        [value](DropSpecks s) -> Preparation { return s.areaPx2 = value, s; },
                        [value](Enlarge s) -> Preparation { return s.factor = value, s; },
                        [value](LocalThreshold s) -> Preparation { return s.sizePx = value, s; },
                        [value](SmoothEdges s) -> Preparation { return s.px = value, s; },
                        [value](PickColour s) -> Preparation { return s.tolerance = value, s; },
                        [](const auto& s) -> Preparation { return s; },
                    },
                    what);
}

QString cropText(const Crop& c) { return QStringLiteral("%1,%2,%3,%4").arg(c.x).arg(c.y).arg(c.width).arg(c.height); }

std::optional<Crop> cropFrom(const QString& text) {
  const QStringList parts = text.split(',');
  if (parts.size() != 4) return std::nullopt;
  int numbers[4] = {};
  for (int i = 0; i < 4; ++i) {
    bool whole = false;
    numbers[i] = parts[i].trimmed().toInt(&whole);
    if (!whole) return std::nullopt;
  }
  return Crop{numbers[0], numbers[1], numbers[2], numbers[3]};
}

}  // namespace rim::app
