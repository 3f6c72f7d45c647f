#include "cli/check_command.h"

#include <chrono>

#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "cli/finding_table.h"
#include "core/io/report.h"
#include "core/mend/find/inspect.h"

namespace rim::cli {
namespace {

struct CheckOptions {
  DrawingInput in;
  mend::MendSettings settings;
  std::string report;
  bool quiet = false;
};

int run(const CheckOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  const io::ReadResult read = readInput(o.in, o.quiet);
  const Drawing& drawing = read.drawing;
  std::vector<mend::Finding> findings = io::unjoined(read);
  const std::vector<mend::Finding> inspected = about(o.in.file, [&] { return mend::inspect(drawing, o.settings); });
  findings.insert(findings.end(), inspected.begin(), inspected.end());
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty()) writeReport(o.report, io::reportJson(drawing, o.in.file, seconds.count(), findings));
  if (o.report != "-") printTable(std::cout, findings, drawing);
  return findings.empty() ? kDone : kFoundSomething;
}

}  // namespace

void addCheckCommand(Program& program) {
  auto options = std::make_shared<CheckOptions>();
  Command command = program.command("check", "finds every fault in a drawing; exit 1 when there are any");
  addDrawingInput(command, options->in);
  command.add("--gap", options->settings.gapMm, "open ends nearer than this belong together, mm")
      .within(0.0, 1000.0)
      .showsDefault();
  command.add("--speck", options->settings.speckMm, "closed outlines whose larger side is below this are specks, mm")
      .within(0.0, 1000.0)
      .showsDefault();
  addTelling(command, options->report, options->quiet);
  command.does([options] { return runGuarded([&] { return run(*options); }); });
}

}  // namespace rim::cli
