#pragma once

#include "cli/options.h"

namespace rim::cli {

/// Adds the command that makes a drawing exact, combines and places it: its steps in the order in which they stand.
void addRefineCommand(Program& program);

}  // namespace rim::cli
