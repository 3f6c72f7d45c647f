#include "core/picture/preview.h"

#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/overloaded.h"

namespace rim::picture {
namespace {

/// Rounded down: what lay within the picture does so still.
int scaledPx(int px, double scale) { return static_cast<int>(std::floor(px * scale)); }

Crop scaledFrame(const Crop& frame, double scale) {
  return {scaledPx(frame.x, scale), scaledPx(frame.y, scale), std::max(1, scaledPx(frame.width, scale)),
          std::max(1, scaledPx(frame.height, scale))};
}

Straighten scaledCorners(Straighten step, double scale) {
  if (step.corners) {
    for (Point& corner : *step.corners) corner = corner * scale;
  }
  return step;
}

TouchUp scaledStrokes(TouchUp step, double scale) {
  for (BrushStroke& stroke : step.strokes) {
    stroke.diameterPx *= scale;
    for (Point& place : stroke.places) place = place * scale;
  }
  return step;
}

}  // namespace

Preparation scaledStep(const Preparation& what, double scale) {
  const double area = scale * scale;
  return std::visit(
      Overloaded{
          [=](const Crop& s) -> Preparation { return scaledFrame(s, scale); },
          [=](const CropToInk& s) -> Preparation { return CropToInk{scaledPx(s.marginPx, scale)}; },
          [=](const Straighten& s) -> Preparation { return scaledCorners(s, scale); },
          [=](const LiftShadows& s) -> Preparation { return LiftShadows{std::max(3.0, s.reachPx * scale)}; },
          [=](const Thicken& s) -> Preparation { return Thicken{s.px * scale}; },
          [=](const FillGaps& s) -> Preparation { return FillGaps{s.px * scale}; },
          [=](const FillPinholes& s) -> Preparation { return FillPinholes{s.areaPx2 * area}; },
          [=](const DropSpecks& s) -> Preparation { return DropSpecks{s.areaPx2 * area}; },
          [=](const LocalThreshold& s) -> Preparation {
            return LocalThreshold{std::max(3.0, s.sizePx * scale), s.bias};
          },
          [=](const SmoothEdges& s) -> Preparation { return SmoothEdges{s.px * scale}; },
          [=](const TouchUp& s) -> Preparation { return scaledStrokes(s, scale); },
          [=](const ClearFrame& s) -> Preparation {
            return ClearFrame{scaledFrame(s.frame, scale), s.inside};
          },
          [=](PickColour s) -> Preparation {
            s.place = s.place * scale;
            return s;
          },
          [](const auto& s) -> Preparation { return s; },
      },
      what);
}

bool PreviewMaker::isWorthWhile(const Picture& original) {
  return std::max(original.width(), original.height()) > 3 * kLongerSidePx / 2;
}

Preview PreviewMaker::preview(const Picture& original, const std::vector<PreparationStep>& steps,
                              const std::stop_token& stop) {
  const double scale =
      std::min(1.0, kLongerSidePx / static_cast<double>(std::max(original.width(), original.height())));
  if (original.id != original_) {
    cv::Mat small;
    cv::resize(*original.bgr, small, {}, scale, scale, cv::INTER_AREA);
    small_ = withPixels(original, small);
    original_ = original.id;
  }
  // The factor of an enlarging step makes what follows it larger too.
  double reached = scale;
  std::vector<PreparationStep> small;
  for (const PreparationStep& step : steps) {
    PreparationStep scaled{scaledStep(step.what, reached), step.on};
    const auto* enlarge = std::get_if<Enlarge>(&step.what);
    if (enlarge != nullptr && step.on) {
      // The small picture need not grow: only the scale says what became of it.
      reached /= enlarge->factor;
      scaled.on = false;
    }
    small.push_back(scaled);
  }
  return {cache_.prepared(small_, small, stop), reached};
}

}  // namespace rim::picture
