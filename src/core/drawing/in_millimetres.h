#pragma once

#include <memory>
#include <vector>

#include "core/drawing/drawing.h"

namespace rim {

/// An outline whose lengths are `factor` (> 0) times as large; with 1 its path stays shared.
Outline scaled(const Outline& outline, double factor);

/// A drawing in its own frame, and the same in mm.
struct InMillimetres {
  std::shared_ptr<const Drawing> own;
  double mmPerUnit = 0;
  std::shared_ptr<const Drawing> mm;
};

/// A drawing in mm, whose units measure `mmPerUnit` (> 0). An outline that shares its path with one of a drawing that
/// is known at the same scale shares it in mm as well, so that what did not change is known not to have changed.
InMillimetres inMillimetres(std::shared_ptr<const Drawing> own, double mmPerUnit,
                            const std::vector<const InMillimetres*>& known = {});

}  // namespace rim
