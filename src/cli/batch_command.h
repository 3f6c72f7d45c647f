#pragma once

#include "cli/options.h"

namespace rim::cli {

/// Adds `batch RECIPE PICTURE... -o DIR`: what a recipe says, done to many pictures. Exit code 1 when any of them
/// failed; the others are done all the same.
void addBatchCommand(Program& program);

}  // namespace rim::cli
