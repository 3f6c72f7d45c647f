#pragma once

#include "cli/options.h"

namespace rim::cli {

/// Adds `convert`: a drawing in one format becomes the same in another.
void addConvertCommand(Program& program);

}  // namespace rim::cli
