#include "cli/refine_command.h"

#include <chrono>

#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "cli/finding_table.h"
#include "cli/refine_steps.h"
#include "core/error.h"
#include "core/io/report.h"
#include "core/job/faults.h"
#include "core/mend/find/inspect.h"

namespace rim::cli {
namespace {

constexpr double kWriteToleranceMm = 0.0005;  // how far curves may move when they become arcs or lines

struct RefineOptions {
  DrawingInput in;
  std::string out;
  RefineSteps steps;
  job::ExportSettings files;
  std::string report;
  ReceiptWish receipt;
  bool quiet = false;
};

/// The steps with what they need of files, and of what is written.
std::vector<refine::Step> readyToDo(const RefineOptions& o, io::FileKind kind) {
  std::vector<refine::Step> steps = o.steps.steps;
  for (refine::Step& step : steps) {
    if (auto* combine = std::get_if<refine::CombineWith>(&step)) {
      DrawingInput other = o.in;
      other.file = combine->name;
      combine->other = std::make_shared<const Drawing>(readInput(other, o.quiet).drawing);
    }
    if (auto* simplify = std::get_if<refine::Simplify>(&step))
      simplify->form = o.files.curves.value_or(kind == io::FileKind::Svg ? CurveForm::Beziers : CurveForm::Arcs);
  }
  return steps;
}

/// The faults that refining brought; none, with a word, where a drawing cannot be inspected: it was refined all the
/// same.
std::vector<mend::Finding> brokenBy(const Drawing& before, const Drawing& after, bool quiet) {
  try {
    return job::newFaults(before, mend::inspect(before, {}), after, mend::inspect(after, {}));
  } catch (const InputError& error) {
    if (!quiet) std::cerr << "What the steps broke was not looked for: " << error.what() << '\n';
    return {};
  }
}

void tell(const refine::Refined& refined, const std::vector<mend::Finding>& broken) {
  for (const refine::Change& c : refined.changes)
    std::cout << c.kind << " at " << c.at.x << ", " << c.at.y << ": moved by " << mend::sizeText(c.movedMm) << '\n';
  if (broken.empty()) return;
  std::cout << "These faults were not there before:\n";
  printTable(std::cout, broken, refined.drawing);
}

int run(const RefineOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  const io::FileKind kind = about(o.out, [&] { return io::fileKindOf(o.out); });
  const io::ReadResult read = readInput(o.in, o.quiet);
  const std::vector<refine::Step> steps = readyToDo(o, kind);
  const refine::Refined refined = about(o.in.file, [&] { return refine::done(read.drawing, steps); });
  const Drawing written = io::inFormFor(refined.drawing, kind, o.files, kWriteToleranceMm);
  about(o.out, [&] { io::writeDrawing(written, o.out, o.files); });
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  const bool told = o.report != "-" && !o.quiet;
  std::vector<mend::Finding> broken;
  if (told || !o.report.empty()) broken = brokenBy(read.drawing, refined.drawing, o.quiet);
  if (!o.report.empty())
    writeReport(o.report, io::reportJson(written, o.in.file, seconds.count(), broken, {}, &refined.changes));
  if (told) tell(refined, broken);
  return withReceipt(o.receipt, o.out, io::asWritten(written, kind), kDone);
}

}  // namespace

void addRefineCommand(Program& program) {
  auto options = std::make_shared<RefineOptions>();
  Command command = program.command("refine", "makes a drawing exact, combines and places it, step by step");
  addDrawingInput(command, options->in);
  command.add("-o,--out", options->out, "the file to write, .svg or .dxf").required();
  addRefineSteps(command, options->steps);
  addFileForm(command, options->files);
  addReceipt(command, options->receipt);
  addTelling(command, options->report, options->quiet);
  command.does([options] { return runGuarded([&] { return run(*options); }); });
}

}  // namespace rim::cli
