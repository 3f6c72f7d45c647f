#include "app/steps/picture/step_text.h"

#include <QCoreApplication>
#include <QStringList>

#include "core/overloaded.h"

namespace rim::app {
namespace {

QString text(const char* source) { return QCoreApplication::translate("PictureSteps", source); }

}  // namespace

QString stepName(const picture::Preparation& what) {
  return std::visit(
      Overloaded{
          [](const picture::Crop&) { return text("Crop"); },
          [](const picture::CropToInk&) { return text("Crop to ink"); },
          [](const picture::Turn&) { return text("Turn"); },
          [](const picture::Mirror&) { return text("Mirror"); },
          [](const picture::Straighten&) { return text("Straighten"); },
          [](const picture::EvenLight&) { return text("Even light"); },
          [](const picture::LiftShadows&) { return text("Lift shadows"); },
          [](const picture::Denoise&) { return text("Denoise"); },
          [](const picture::Thicken& s) { return s.px < 0 ? text("Thin") : text("Thicken"); },
          [](const picture::FillGaps&) { return text("Close gaps"); },
          [](const picture::FillPinholes&) { return text("Fill pinholes"); },
          [](const picture::DropSpecks&) { return text("Drop specks"); },
          [](const picture::Enlarge&) { return text("Enlarge"); },
          [](const picture::LocalThreshold&) { return text("Local threshold"); },
          [](const picture::SmoothEdges&) { return text("Smooth edges"); },
          [](const picture::TouchUp& s) {
            return s.strokes.size() == 1 ? text("Touch up: 1 stroke")
                                         : text("Touch up: %1 strokes").arg(s.strokes.size());
          },
          [](const picture::ClearFrame& s) { return s.inside ? text("Clear inside") : text("Clear outside"); },
          [](const picture::PickColour& s) { return s.ink ? text("Colour to ink") : text("Colour to paper"); },
      },
      what);
}

std::optional<StepNumber> numberOf(const picture::Preparation& what) {
  using Number = std::optional<StepNumber>;
  return std::visit(Overloaded{
                        [](const picture::CropToInk& s) {
                          return Number({double(s.marginPx), 0, 500, 1, 0, text("px"), {}});
                        },
                        [](const picture::Turn& s) {
                          return Number({s.degrees, -180, 180, 0.5, 1, text("°"), {}});
                        },
                        [](const picture::Straighten& s) {
                          return Number({s.sideRatio, 0, 20, 0.01, 4, {}, text("estimated")});
                        },
                        [](const picture::LiftShadows& s) {
                          return Number({s.reachPx, 3, 9999, 10, 0, text("px"), {}});
                        },
                        [](const picture::Denoise& s) {
                          return Number({s.strength, 0.2, 5, 0.2, 1, text("×"), {}});
                        },
                        [](const picture::Thicken& s) {
                          return Number({s.px, -50, 50, 0.5, 1, text("px"), {}});
                        },
                        [](const picture::FillGaps& s) {
                          return Number({s.px, 0, 50, 0.5, 1, text("px"), {}});
                        },
                        [](const picture::FillPinholes& s) {
                          return Number({s.areaPx2, 0, 1e6, 5, 0, text("px²"), {}});
                        },
                        [](const picture::DropSpecks& s) {
                          return Number({s.areaPx2, 0, 1e6, 5, 0, text("px²"), {}});
                        },
                        [](const picture::Enlarge& s) {
                          return Number({s.factor, 1, 8, 0.5, 1, text("×"), {}});
                        },
                        [](const picture::LocalThreshold& s) {
                          return Number({s.sizePx, 3, 999, 4, 0, text("px"), {}});
                        },
                        [](const picture::SmoothEdges& s) {
                          return Number({s.px, 0.3, 20, 0.2, 1, text("px"), {}});
                        },
                        [](const picture::PickColour& s) {
                          return Number({s.tolerance, 0, 200, 2, 0, {}, {}});
                        },
                        [](const auto&) { return Number(); },
                    },
                    what);
}

picture::Preparation withNumber(const picture::Preparation& what, double value) {
  return std::visit(
      Overloaded{
          [value](picture::CropToInk s) -> picture::Preparation { return s.marginPx = static_cast<int>(value), s; },
          [value](picture::Turn s) -> picture::Preparation { return s.degrees = value, s; },
          [value](picture::Straighten s) -> picture::Preparation { return s.sideRatio = value, s; },
          [value](picture::LiftShadows s) -> picture::Preparation { return s.reachPx = value, s; },
          [value](picture::Denoise s) -> picture::Preparation { return s.strength = value, s; },
          [value](picture::Thicken s) -> picture::Preparation { return s.px = value, s; },
          [value](picture::FillGaps s) -> picture::Preparation { return s.px = value, s; },
          [value](picture::FillPinholes s) -> picture::Preparation { return s.areaPx2 = value, s; },
          [value](picture::DropSpecks s) -> picture::Preparation { return s.areaPx2 = value, s; },
          [value](picture::Enlarge s) -> picture::Preparation { return s.factor = value, s; },
          [value](picture::LocalThreshold s) -> picture::Preparation { return s.sizePx = value, s; },
          [value](picture::SmoothEdges s) -> picture::Preparation { return s.px = value, s; },
          [value](picture::PickColour s) -> picture::Preparation { return s.tolerance = value, s; },
          [](const auto& s) -> picture::Preparation { return s; },
      },
      what);
}

QString cropText(const picture::Crop& c) {
  return QStringLiteral("%1,%2,%3,%4").arg(c.x).arg(c.y).arg(c.width).arg(c.height);
}

std::optional<picture::Crop> cropFrom(const QString& text) {
  const QStringList parts = text.split(',');
  if (parts.size() != 4) return std::nullopt;
  int numbers[4] = {};
  for (int i = 0; i < 4; ++i) {
    bool whole = false;
    numbers[i] = parts[i].trimmed().toInt(&whole);
    if (!whole) return std::nullopt;
  }
  return picture::Crop{numbers[0], numbers[1], numbers[2], numbers[3]};
}

}  // namespace rim::app
