#pragma once

#include <optional>
#include <string>

#include "cli/options.h"
#include "core/io/read_drawing.h"
#include "core/job/stock.h"

namespace rim::cli {

/// The drawing that a command reads.
struct DrawingInput {
  std::string file;
  std::string unit;  ///< of a file that names none; empty: its format's usual one
};

/// Adds the drawing and `--in-units`.
void addDrawingInput(Command& command, DrawingInput& in);

/// What was read: a job also says what it is cut from.
struct InputDrawing : io::ReadResult {
  std::optional<job::Stock> stock;
};

/// Reads it. What was left out or assumed is told on standard error unless `quiet`. Throws InputError that names the
/// file and, where there is one, the line.
InputDrawing readInput(const DrawingInput& in, bool quiet);

}  // namespace rim::cli
