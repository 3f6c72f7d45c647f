#include "cli/receipt_command.h"

#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "core/io/receipt.h"

namespace rim::cli {
namespace {

struct ReceiptOptions {
  std::string file;
  DrawingInput against;
  std::string report;
  bool quiet = false;
};

int run(const ReceiptOptions& o) {
  std::optional<Drawing> meant;
  if (!o.against.file.empty()) meant = readInput(o.against, true).drawing;
  const io::Receipt receipt = about(o.file, [&] { return io::receiptOf(o.file, meant ? &*meant : nullptr); });
  if (!o.report.empty()) writeReport(o.report, io::receiptJson(receipt));
  if (o.report != "-" && !o.quiet) std::cout << io::receiptText(receipt);
  return receipt.clean ? kDone : kFoundSomething;
}

}  // namespace

void addReceiptCommand(Program& program) {
  auto options = std::make_shared<ReceiptOptions>();
  Command command =
      program.command("receipt", "says what a fresh reading of a file finds; exit 1 when it is not clean");
  command.add("file", options->file, "the SVG or DXF").required();
  command.add("--against", options->against.file, "the drawing that it should hold").takes("DRAWING");
  addTelling(command, options->report, options->quiet);
  command.does([options] { return runGuarded([&] { return run(*options); }); });
}

}  // namespace rim::cli
