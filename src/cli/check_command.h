#pragma once

#include "cli/options.h"

namespace rim::cli {

/// Adds `check`: finds every fault in a drawing; exit 1 when there are any.
void addCheckCommand(Program& program);

}  // namespace rim::cli
