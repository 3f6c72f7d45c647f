#include "cli/mend_command.h"

#include <chrono>

#include "cli/between.h"
#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "cli/finding_table.h"
#include "core/io/report.h"
#include "core/mend/inspect.h"

namespace rim::cli {
namespace {

constexpr double kWriteToleranceMm = 0.0005;  // how far curves may move when they become arcs or lines

struct MendOptions {
  DrawingInput in;
  std::string out;
  MendSettings settings;
  ExportSettings files;
  std::string report;
  bool strict = false;
  bool quiet = false;
};

void addRepairs(CLI::App& command, MendSettings& settings) {
  const std::map<std::string, DoubleRule> rules{{"one", DoubleRule::One},
                                                {"outer", DoubleRule::Outer},
                                                {"inner", DoubleRule::Inner},
                                                {"centre", DoubleRule::Centre},
                                                {"leave", DoubleRule::Leave}};
  const auto lengthMm = between(0.0, 1000.0);
  command.add_option("--gap", settings.gapMm, "open ends nearer than this are joined, mm")
      ->check(lengthMm)
      ->capture_default_str();
  command
      .add_option("--double", settings.doubles,
                  "a line drawn twice becomes one; of the two edges of a stroke keep the outer, the inner, or the line "
                  "between (centre); or leave both (default: one, only true repeats)")
      ->transform(CLI::CheckedTransformer(rules, CLI::ignore_case))
      ->type_name("RULE");
  const std::map<std::string, BorderRule> borders{{"once", BorderRule::Once}, {"twice", BorderRule::Twice}};
  command
      .add_option("--borders", settings.borders,
                  "a border that two closed outlines share is drawn once (for parts cut apart) or stays twice (for "
                  "fills; default)")
      ->transform(CLI::CheckedTransformer(borders, CLI::ignore_case))
      ->type_name("once|twice");
  command
      .add_option("--stroke-width", settings.strokeWidthMm,
                  "the widest stroke that outer, inner, centre take for one, mm")
      ->check(between(0.001, 1000.0))
      ->capture_default_str();
  command
      .add_option("--smaller-than", settings.smallerThanMm,
                  "drop closed outlines whose larger side is below this, mm; 0 keeps all")
      ->check(lengthMm)
      ->capture_default_str();
  command.add_flag("--drop-frame", settings.dropFrame, "drop an outline that only frames all the others");
  command.add_flag("--drop-strays", settings.dropStrays, "drop leftovers far outside everything else");
  command.add_option("--simplify", settings.simplifyMm, "fewest nodes within this distance, mm; 0 leaves them")
      ->check(between(0.0, 100.0))
      ->capture_default_str();
}

void tell(const Mended& mended, const std::vector<Finding>& left) {
  for (const RepairCount& r : mended.repairs) std::cout << r.kind << ": " << r.count << '\n';
  printTable(std::cout, left, mended.drawing.paths);
}

int run(const MendOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  const FileKind kind = about(o.out, [&] { return fileKindOf(o.out); });
  const Drawing drawing = readInput(o.in, o.quiet);
  const Mended result = mended(drawing, o.settings);
  const std::vector<Finding> left = inspect(result.drawing, o.settings);
  const Drawing written = inFormFor(result.drawing, kind, o.files, kWriteToleranceMm);
  about(o.out, [&] { writeDrawing(written, o.out, o.files); });
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty()) writeReport(o.report, reportJson(written, o.in.file, seconds.count(), left, result.repairs));
  if (o.report != "-" && !o.quiet) tell(result, left);
  return o.strict && !left.empty() ? kFoundSomething : kDone;
}

}  // namespace

void addMendCommand(CLI::App& app, int& result) {
  auto options = std::make_shared<MendOptions>();
  CLI::App* command = app.add_subcommand("mend", "repairs the faults of a drawing");
  addDrawingInput(*command, options->in);
  command->add_option("-o,--out", options->out, "the file to write, .svg or .dxf")->required();
  addRepairs(*command, options->settings);
  addFileForm(*command, options->files);
  command->add_flag("--strict", options->strict, "exit 1 when something is left unmended");
  addTelling(*command, options->report, options->quiet);
  command->callback([options, &result] { result = runGuarded([&] { return run(*options); }); });
}

}  // namespace rim::cli
