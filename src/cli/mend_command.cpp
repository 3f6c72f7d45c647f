#include "cli/mend_command.h"

#include <algorithm>
#include <chrono>

#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "cli/finding_table.h"
#include "core/io/report.h"
#include "core/mend/find/inspect.h"

namespace rim::cli {
namespace {

constexpr double kWriteToleranceMm = 0.0005;  // how far curves may move when they become arcs or lines

struct MendOptions {
  DrawingInput in;
  std::string out;
  mend::MendSettings settings;
  job::ExportSettings files;
  std::string report;
  bool strict = false;
  ReceiptWish receipt;
  bool quiet = false;
};

void addRepairs(Command& command, mend::MendSettings& settings) {
  const std::map<std::string, mend::DoubleRule> rules{{"one", mend::DoubleRule::One},
                                                      {"outer", mend::DoubleRule::Outer},
                                                      {"inner", mend::DoubleRule::Inner},
                                                      {"centre", mend::DoubleRule::Centre},
                                                      {"leave", mend::DoubleRule::Leave}};
  command.add("--gap", settings.gapMm, "open ends nearer than this are joined, mm").within(0.0, 1000.0).showsDefault();
  command
      .choice("--double", settings.doubles, rules,
              "a line drawn twice becomes one; of the two edges of a stroke keep the outer, the inner, or the line "
              "between (centre); or leave both (default: one, only true repeats)")
      .takes("RULE");
  const std::map<std::string, mend::BorderRule> borders{{"once", mend::BorderRule::Once},
                                                        {"twice", mend::BorderRule::Twice}};
  command
      .choice("--borders", settings.borders, borders,
              "a border that two closed outlines share is drawn once (for parts cut apart) or stays twice (for "
              "fills; default)")
      .takes("once|twice");
  const std::map<std::string, mend::BowTieRule> bowTies{{"split", mend::BowTieRule::Split},
                                                        {"untangle", mend::BowTieRule::Untangle}};
  command
      .choice("--bow-ties", settings.bowTies, bowTies,
              "an outline that crosses itself: its lobes part and all stay (split; default), or its nodes are put in "
              "order (untangle)")
      .takes("split|untangle");
  command.add("--stroke-width", settings.strokeWidthMm, "the widest stroke that outer, inner, centre take for one, mm")
      .within(0.001, 1000.0)
      .showsDefault();
  command
      .add("--smaller-than", settings.smallerThanMm,
           "drop closed outlines whose larger side is below this, mm; 0 keeps all")
      .within(0.0, 1000.0)
      .showsDefault();
  command.flag("--drop-frame", settings.dropFrame, "drop an outline that only frames all the others");
  command.flag("--drop-strays", settings.dropStrays, "drop leftovers far outside everything else");
  command.add("--simplify", settings.simplifyMm, "fewest nodes within this distance, mm; 0 leaves them")
      .within(0.0, 100.0)
      .showsDefault();
}

/// What was put together when the drawing was read counts as joined.
void addJoined(const std::vector<mend::JoinedOutline>& joined, std::vector<mend::RepairCount>& repairs) {
  std::size_t joints = 0;
  for (const mend::JoinedOutline& outline : joined) joints += outline.joints;
  if (joints == 0) return;
  const auto known =
      std::find_if(repairs.begin(), repairs.end(), [](const mend::RepairCount& r) { return r.kind == "joined"; });
  if (known == repairs.end()) {
    repairs.insert(repairs.begin(), {"joined", joints});
  } else {
    known->count += joints;
  }
}

void tell(const mend::Mended& mended, const std::vector<mend::Finding>& left) {
  for (const mend::RepairCount& r : mended.repairs) std::cout << r.kind << ": " << r.count << '\n';
  printTable(std::cout, left, mended.drawing);
}

int run(const MendOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  const io::FileKind kind = about(o.out, [&] { return io::fileKindOf(o.out); });
  const io::ReadResult read = readInput(o.in, o.quiet);
  mend::Mended result = about(o.in.file, [&] { return mend::mended(read.drawing, o.settings); });
  addJoined(read.joined, result.repairs);
  const std::vector<mend::Finding> left = about(o.in.file, [&] { return mend::inspect(result.drawing, o.settings); });
  const Drawing written = io::inFormFor(result.drawing, kind, o.files, kWriteToleranceMm);
  about(o.out, [&] { io::writeDrawing(written, o.out, o.files); });
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty())
    writeReport(o.report, io::reportJson(written, o.in.file, seconds.count(), left, result.repairs));
  if (o.report != "-" && !o.quiet) tell(result, left);
  ReceiptWish wish = o.receipt;
  wish.strict = o.strict;
  return withReceipt(wish, o.out, io::asWritten(written, kind), o.strict && !left.empty() ? kFoundSomething : kDone);
}

}  // namespace

void addMendCommand(Program& program) {
  auto options = std::make_shared<MendOptions>();
  Command command = program.command("mend", "repairs the faults of a drawing");
  addDrawingInput(command, options->in);
  command.add("-o,--out", options->out, "the file to write, .svg or .dxf").required();
  addRepairs(command, options->settings);
  addFileForm(command, options->files);
  command.flag("--strict", options->strict, "exit 1 when something is left unmended");
  addReceipt(command, options->receipt, false);
  addTelling(command, options->report, options->quiet);
  command.does([options] { return runGuarded([&] { return run(*options); }); });
}

}  // namespace rim::cli
