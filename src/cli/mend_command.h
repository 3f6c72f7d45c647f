#pragma once

#include "cli/options.h"

namespace rim::cli {

/// Adds `mend`: repairs the faults of a drawing.
void addMendCommand(Program& program);

}  // namespace rim::cli
