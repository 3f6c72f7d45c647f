#include "cli/preparation_options.h"

#include <CLI/CLI.hpp>

#include "cli/between.h"

namespace rim::cli {
namespace {

constexpr const char* kGroup = "Preparation of the picture, applied in this order";

}  // namespace

void addPreparation(CLI::App& command, PreparationOptions& o) {
  command.add_option("--crop", o.crop, "keep this rectangle: X,Y,W,H in px from the upper left corner")
      ->delimiter(',')
      ->expected(4)
      ->type_name("X,Y,W,H")
      ->group(kGroup);
  command.add_flag("--auto-crop", o.autoCrop, "keep what has ink, and 8 px round it")->group(kGroup);
  command.add_flag("--straighten", o.straighten, "find a photographed sheet and bring it to a rectangle")
      ->group(kGroup);
  command
      .add_option("--side-ratio", o.sideRatio,
                  "with --straighten: the sheet's true width by height (default: estimated)")
      ->check(between(0.05, 20))
      ->group(kGroup);
  command.add_flag("--even-light", o.evenLight, "divide uneven light away")->group(kGroup);
  command.add_flag("--denoise", o.denoise, "calm noise and keep edges")->group(kGroup);
  command.add_option("--thicken", o.thickenPx, "make strokes wider by this, or thinner when negative, px")
      ->check(between(-50, 50))
      ->type_name("PX")
      ->group(kGroup);
  command.add_option("--fill-gaps", o.fillGapsPx, "close breaks in the ink up to this wide, px")
      ->check(between(0, 50))
      ->type_name("PX")
      ->group(kGroup);
  command.add_option("--enlarge", o.enlarge, "more pixels by this factor before tracing")
      ->check(between(1, 8))
      ->type_name("K")
      ->group(kGroup);
}

std::vector<PreparationStep> stepsOf(const PreparationOptions& o) {
  std::vector<PreparationStep> steps;
  const auto add = [&steps](bool wanted, const Preparation& what) {
    if (wanted) steps.push_back({what});
  };
  if (o.crop.size() == 4) add(true, Crop{o.crop[0], o.crop[1], o.crop[2], o.crop[3]});
  add(o.autoCrop, CropToInk{});
  add(o.straighten, Straighten{std::nullopt, o.sideRatio});
  add(o.evenLight, EvenLight{});
  add(o.denoise, Denoise{});
  add(o.thickenPx != 0, Thicken{o.thickenPx});
  add(o.fillGapsPx > 0, FillGaps{o.fillGapsPx});
  add(o.enlarge > 1, Enlarge{o.enlarge});
  return steps;
}

}  // namespace rim::cli
