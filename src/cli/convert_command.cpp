#include "cli/convert_command.h"

#include <chrono>

#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "core/io/report.h"

namespace rim::cli {
namespace {

struct ConvertOptions {
  DrawingInput in;
  std::string out;
  std::string report;
  ExportSettings files;
  double toleranceMm = 0.001;
  ReceiptWish receipt;
  bool quiet = false;
};

int run(const ConvertOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  const FileKind kind = about(o.out, [&] { return fileKindOf(o.out); });
  const Drawing drawing = inFormFor(readInput(o.in, o.quiet).drawing, kind, o.files, o.toleranceMm);
  about(o.out, [&] { writeDrawing(drawing, o.out, o.files); });
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty()) writeReport(o.report, reportJson(drawing, o.in.file, seconds.count()));
  return withReceipt(o.receipt, o.out, asWritten(drawing, kind), kDone);
}

}  // namespace

void addConvertCommand(Program& program) {
  auto options = std::make_shared<ConvertOptions>();
  Command command = program.command("convert", "a drawing becomes SVG or DXF, made of what you choose");
  addDrawingInput(command, options->in);
  command.add("-o,--out", options->out, "the file to write, .svg or .dxf").required();
  addFileForm(command, options->files);
  const std::map<std::string, Unit> units{{"mm", Unit::Millimetre}, {"in", Unit::Inch}};
  command.choice("--units", options->files.unit, units, "mm or in, of the file that is written (default: mm)")
      .takes("UNIT");
  command.add("--tolerance", options->toleranceMm, "how far curves may move when they become arcs or lines, mm")
      .within(1e-6, 10.0)
      .showsDefault();
  addReceipt(command, options->receipt);
  addTelling(command, options->report, options->quiet);
  command.does([options] { return runGuarded([&] { return run(*options); }); });
}

}  // namespace rim::cli
