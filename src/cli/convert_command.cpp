#include "cli/convert_command.h"

#include <chrono>

#include "cli/between.h"
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
  bool quiet = false;
};

int run(const ConvertOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  const FileKind kind = about(o.out, [&] { return fileKindOf(o.out); });
  const Drawing drawing = inFormFor(readInput(o.in, o.quiet), kind, o.files, o.toleranceMm);
  about(o.out, [&] { writeDrawing(drawing, o.out, o.files); });
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty()) writeReport(o.report, reportJson(drawing, o.in.file, seconds.count()));
  return kDone;
}

}  // namespace

void addConvertCommand(CLI::App& app, int& result) {
  auto options = std::make_shared<ConvertOptions>();
  CLI::App* command = app.add_subcommand("convert", "a drawing becomes SVG or DXF, made of what you choose");
  addDrawingInput(*command, options->in);
  command->add_option("-o,--out", options->out, "the file to write, .svg or .dxf")->required();
  addFileForm(*command, options->files);
  const std::map<std::string, Unit> units{{"mm", Unit::Millimetre}, {"in", Unit::Inch}};
  command->add_option("--units", options->files.unit, "mm or in, of the file that is written (default: mm)")
      ->transform(CLI::CheckedTransformer(units, CLI::ignore_case))
      ->type_name("UNIT");
  command->add_option("--tolerance", options->toleranceMm, "how far curves may move when they become arcs or lines, mm")
      ->check(between(1e-6, 10.0))
      ->capture_default_str();
  addTelling(*command, options->report, options->quiet);
  command->callback([options, &result] { result = runGuarded([&] { return run(*options); }); });
}

}  // namespace rim::cli
