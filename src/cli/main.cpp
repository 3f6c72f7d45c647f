#include "cli/batch_command.h"
#include "cli/check_command.h"
#include "cli/convert_command.h"
#include "cli/mend_command.h"
#include "cli/receipt_command.h"
#include "cli/refine_command.h"
#include "cli/sketch_command.h"
#include "cli/trace_command.h"

int main(int argc, char** argv) {
  rim::cli::Program program("snugrim-cli", SNUGRIM_VERSION, "Turns pictures into closed outlines of a known size.");
  rim::cli::addTraceCommand(program);
  rim::cli::addCheckCommand(program);
  rim::cli::addMendCommand(program);
  rim::cli::addConvertCommand(program);
  rim::cli::addRefineCommand(program);
  rim::cli::addReceiptCommand(program);
  rim::cli::addSketchCommand(program);
  rim::cli::addBatchCommand(program);
  return program.run(argc, argv);
}
