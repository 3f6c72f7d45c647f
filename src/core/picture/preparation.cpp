#include "core/picture/preparation.h"

#include "core/error.h"
#include "core/overloaded.h"
#include "core/picture/light.h"
#include "core/picture/reshape.h"
#include "core/picture/shadows.h"
#include "core/picture/straighten.h"
#include "core/picture/stroke.h"
#include "core/picture/touch_up.h"

namespace rim::picture {

Picture prepared(const Picture& p, const Preparation& what) {
  return std::visit(Overloaded{
                        [&p](const Crop& s) { return cropped(p, s); },
                        [&p](const CropToInk& s) { return cropped(p, cropToInk(p, s.marginPx)); },
                        [&p](const Turn& s) { return turned(p, s.degrees); },
                        [&p](const Mirror&) { return mirrored(p); },
                        [&p](const Straighten& s) { return straightened(p, s); },
                        [&p](const EvenLight&) { return withEvenLight(p); },
                        [&p](const LiftShadows& s) { return withoutShadows(p, s.reachPx); },
                        [&p](const Denoise& s) { return denoised(p, s.strength); },
                        [&p](const Thicken& s) { return thickened(p, s.px); },
                        [&p](const FillGaps& s) { return withGapsFilled(p, s.px); },
                        [&p](const FillPinholes& s) { return withPinholesFilled(p, s.areaPx2); },
                        [&p](const DropSpecks& s) { return withoutSpecks(p, s.areaPx2); },
                        [&p](const Enlarge& s) { return enlarged(p, s.factor); },
                        [&p](const LocalThreshold& s) { return withLocalThreshold(p, s); },
                        [&p](const SmoothEdges& s) { return withSmoothEdges(p, s.px); },
                        [&p](const TouchUp& s) { return touchedUp(p, s); },
                        [&p](const ClearFrame& s) { return cleared(p, s); },
                        [&p](const PickColour& s) { return withColourPicked(p, s); },
                    },
                    what);
}

bool isHandWork(const Preparation& what) {
  const auto* sheet = std::get_if<Straighten>(&what);
  return std::holds_alternative<Crop>(what) || std::holds_alternative<TouchUp>(what) ||
         std::holds_alternative<ClearFrame>(what) || std::holds_alternative<PickColour>(what) ||
         (sheet != nullptr && sheet->corners);
}

Picture prepared(const Picture& original, const std::vector<PreparationStep>& steps, std::stop_token stop) {
  Picture picture = original;
  for (const PreparationStep& step : steps) {
    if (stop.stop_requested()) throw Cancelled();
    if (step.on) picture = prepared(picture, step.what);
  }
  return picture;
}

}  // namespace rim::picture
