#pragma once

#include <string>
#include <vector>

#include "cli/options.h"
#include "core/picture/preparation.h"

namespace rim::cli {

/// What is done to the picture first; applied in the order in which it stands here.
struct PreparationOptions {
  std::vector<int> crop;  ///< x, y, width, height
  bool autoCrop = false;
  bool makeTraceable = false;  ///< what is worked out stands before all that follows
  bool straighten = false;
  double sideRatio = 0;
  bool evenLight = false;
  double liftShadowsPx = 0;
  bool denoise = false;
  double thickenPx = 0;
  double fillGapsPx = 0;
  double enlarge = 1;
};

/// Adds the options to a command. `options` must outlive it.
void addPreparation(Command& command, PreparationOptions& options);

std::vector<picture::PreparationStep> stepsOf(const PreparationOptions& options);

}  // namespace rim::cli
