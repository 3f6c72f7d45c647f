#pragma once

#include "cli/options.h"

namespace rim::cli {

/// Adds `trace PICTURE -o OUT` to the tool. Running it writes the file and sets `result` to the
/// exit code: 0 done, 2 the picture cannot be read or the file not be written, with one line on
/// standard error.
void addTraceCommand(Program& program);

}  // namespace rim::cli
