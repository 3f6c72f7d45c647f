#pragma once

#include "cli/options.h"

namespace rim::cli {

/// Adds `sketch DRAWING`: what a CAD program can extrude of a drawing.
void addSketchCommand(Program& program);

}  // namespace rim::cli
