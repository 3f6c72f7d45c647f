#pragma once

#include <vector>

#include "core/trace/contour/tones.h"
#include "core/work_control.h"

namespace rim::trace::contour {

/// The ink of a picture in two tones, and its borders where the coverage says that they are.
struct MeasuredInk {
  Tones tones;
  std::vector<Border> borders;
};

/// Throws what followBorders() throws; Cancelled.
MeasuredInk measureInk(const picture::Picture& picture, const TraceSettings& settings, const WorkControl& control);

}  // namespace rim::trace::contour
