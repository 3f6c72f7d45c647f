#include "cli/check_command.h"

#include <chrono>

#include "cli/between.h"
#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "cli/finding_table.h"
#include "core/io/report.h"
#include "core/mend/inspect.h"

namespace rim::cli {
namespace {

struct CheckOptions {
  DrawingInput in;
  MendSettings settings;
  std::string report;
  bool quiet = false;
};

int run(const CheckOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  const Drawing drawing = readInput(o.in, o.quiet);
  const std::vector<Finding> findings = inspect(drawing, o.settings);
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty()) writeReport(o.report, reportJson(drawing, o.in.file, seconds.count(), findings));
  if (o.report != "-") printTable(std::cout, findings, drawing.paths);
  return findings.empty() ? kDone : kFoundSomething;
}

}  // namespace

void addCheckCommand(CLI::App& app, int& result) {
  auto options = std::make_shared<CheckOptions>();
  CLI::App* command = app.add_subcommand("check", "finds every fault in a drawing; exit 1 when there are any");
  addDrawingInput(*command, options->in);
  command->add_option("--gap", options->settings.gapMm, "open ends nearer than this belong together, mm")
      ->check(between(0.0, 1000.0))
      ->capture_default_str();
  addTelling(*command, options->report, options->quiet);
  command->callback([options, &result] { result = runGuarded([&] { return run(*options); }); });
}

}  // namespace rim::cli
