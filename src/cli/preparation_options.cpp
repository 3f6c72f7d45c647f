#include "cli/preparation_options.h"

namespace rim::cli {
namespace {

constexpr const char* kGroup = "Preparation of the picture, applied in this order";

}  // namespace

void addPreparation(Command& command, PreparationOptions& o) {
  command.add("--crop", o.crop, "keep this rectangle: X,Y,W,H in px from the upper left corner")
      .separatedBy(',')
      .values(4)
      .takes("X,Y,W,H")
      .under(kGroup);
  command.flag("--auto-crop", o.autoCrop, "keep what has ink, and 8 px round it").under(kGroup);
  command
      .flag("--make-traceable", o.makeTraceable,
            "straighten, even out the light, calm noise, enlarge: what the picture needs")
      .under(kGroup);
  command.flag("--straighten", o.straighten, "find a photographed sheet and bring it to a rectangle").under(kGroup);
  command.add("--side-ratio", o.sideRatio, "with --straighten: the sheet's true width by height (default: estimated)")
      .within(0.05, 20)
      .under(kGroup);
  command.flag("--even-light", o.evenLight, "divide uneven light away").under(kGroup);
  command
      .add("--lift-shadows", o.liftShadowsPx,
           "make the paper equally bright in shadow and light; dark parts wider than this become hollow, px")
      .within(3, 9999)
      .takes("PX")
      .under(kGroup);
  command.flag("--denoise", o.denoise, "calm noise and keep edges").under(kGroup);
  command.add("--thicken", o.thickenPx, "make strokes wider by this, or thinner when negative, px")
      .within(-50, 50)
      .takes("PX")
      .under(kGroup);
  command.add("--fill-gaps", o.fillGapsPx, "close breaks in the ink up to this wide, px")
      .within(0, 50)
      .takes("PX")
      .under(kGroup);
  command.add("--enlarge", o.enlarge, "more pixels by this factor before tracing")
      .within(1, 8)
      .takes("K")
      .under(kGroup);
}

std::vector<picture::PreparationStep> stepsOf(const PreparationOptions& o) {
  std::vector<picture::PreparationStep> steps;
  const auto add = [&steps](bool wanted, const picture::Preparation& what) {
    if (wanted) steps.push_back({what});
  };
  if (o.crop.size() == 4) add(true, picture::Crop{o.crop[0], o.crop[1], o.crop[2], o.crop[3]});
  add(o.autoCrop, picture::CropToInk{});
  add(o.straighten, picture::Straighten{std::nullopt, o.sideRatio});
  add(o.evenLight, picture::EvenLight{});
  add(o.liftShadowsPx > 0, picture::LiftShadows{o.liftShadowsPx});
  add(o.denoise, picture::Denoise{});
  add(o.thickenPx != 0, picture::Thicken{o.thickenPx});
  add(o.fillGapsPx > 0, picture::FillGaps{o.fillGapsPx});
  add(o.enlarge > 1, picture::Enlarge{o.enlarge});
  return steps;
}

}  // namespace rim::cli
