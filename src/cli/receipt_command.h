#pragma once

#include "cli/options.h"

namespace rim::cli {

/// Adds the command that says what a stranger's reading of a file finds.
void addReceiptCommand(Program& program);

}  // namespace rim::cli
