#include "cli/trace_command.h"

#include <chrono>
#include <iostream>

#include "cli/colour_options.h"
#include "cli/command_parts.h"
#include "cli/preparation_options.h"
#include "cli/stroke_options.h"
#include "core/error.h"
#include "core/io/export.h"
#include "core/io/job/job_file.h"
#include "core/io/job/recipe_file.h"
#include "core/io/report.h"
#include "core/job/stages.h"
#include "core/picture/load.h"
#include "core/picture/recipes.h"
#include "core/picture/vips_library.h"
#include "core/trace/outline/rules.h"

namespace rim::cli {
namespace {

struct TraceOptions {
  std::string picture;
  std::string out;
  std::string threshold = "auto";
  std::string report;
  std::vector<std::string> exact;
  trace::TraceSettings trace;
  job::ExportSettings files;
  PreparationOptions preparation;
  ColourOptions colours;
  StrokeOptions strokes;
  double widthMm = 0;
  double heightMm = 0;
  double dpi = 0;
  int page = 1;
  std::string jobFile;
  std::string recipeFile;
  ReceiptWish receipt;
  bool quiet = false;
};

std::string checkThreshold(const std::string& text) {
  if (text == "auto") return {};
  return isWholeWithin(text, 0, 255) ? std::string{} : "--threshold takes auto or a number from 0 to 255";
}

void addShape(Command& command, TraceOptions& o) {
  command.add("--threshold", o.threshold, "what is darker than this is ink: auto or 0..255")
      .checkedBy(checkThreshold)
      .showsDefault();
  command.flag("--invert", o.trace.lightIsInk, "the light part is the ink");
  command.add("--tolerance", o.trace.tolerancePx, "how far an outline may leave the measured border, px")
      .within(0.05, 10.0)
      .showsDefault();
  command.add("--corners", o.trace.cornerReadiness, "0 rounds everything, 100 keeps every kink")
      .within(0.0, 100.0)
      .showsDefault();
  command
      .add("--exact", o.exact,
           "what is made exact where the border allows it: all, none, or some of level, parallel, radii, "
           "concentric, tangent")
      .separatedBy(',')
      .takes("RULE,...")
      .standsFor("all");
  command.add("--min-area", o.trace.minAreaPx2, "smaller islands and holes are left out, px2")
      .within(0.0, 1e9)
      .showsDefault();
}

void addFile(Command& command, TraceOptions& o) {
  addFileForm(command, o.files);
  const auto size = [&command](const char* name, double& mm, const char* help) {
    return command.add(name, mm, help).within(job::kSmallestSizeMm, job::kLargestSizeMm);
  };
  const Option width = size("--width-mm", o.widthMm, "width of the whole picture");
  const Option height = size("--height-mm", o.heightMm, "height of the whole picture");
  command.add("--dpi", o.dpi, "resolution (default: the picture's own, else 96)")
      .within(1.0, 100'000.0)
      .excludes(width)
      .excludes(height);
}

trace::Rules rulesOf(const std::vector<std::string>& names) {
  if (names == std::vector<std::string>{"all"}) return {};
  if (names == std::vector<std::string>{"none"}) return trace::outline::rulesNamed({});
  try {
    return trace::outline::rulesNamed(names);
  } catch (const InputError& error) {
    throw InputError("--exact: " + std::string(error.what()));
  }
}

job::SizeWish sizeWish(const TraceOptions& o, const picture::Picture& picture) {
  if (o.widthMm > 0 && o.heightMm > 0) {
    // Both may be said when they agree to a pixel; stretching would turn circles into ellipses.
    const double heightPx = o.heightMm / o.widthMm * picture.width();
    if (std::abs(heightPx - picture.height()) > 1) {
      throw InputError("--width-mm and --height-mm together would stretch the picture of " +
                       std::to_string(picture.width()) + " x " + std::to_string(picture.height()) +
                       " px. Give one of them.");
    }
  }
  if (o.widthMm > 0) return {job::SizeWish::Of::PictureWidth, o.widthMm};
  if (o.heightMm > 0) return {job::SizeWish::Of::PictureHeight, o.heightMm};
  return {job::SizeWish::Of::Resolution, o.dpi};
}

int run(TraceOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  picture::startVipsAlone();
  const io::FileKind kind = about(o.out, [&] { return io::fileKindOf(o.out); });
  if (!o.exact.empty()) o.trace.rules = rulesOf(o.exact);
  if (o.threshold != "auto") o.trace.threshold = std::stoi(o.threshold);
  job::Job job =
      about(o.picture, [&] { return job::jobOn(picture::loadPicture(std::filesystem::path(o.picture), o.page)); });
  if (o.preparation.makeTraceable)
    job.preparation = about(o.picture, [&] { return picture::stepsToMakeTraceable(job.original); });
  for (const picture::PreparationStep& step : stepsOf(o.preparation)) job.preparation.push_back(step);
  job = about(o.picture,
              [&] { return job::withKeys(job::withPreparedPicture(std::move(job)), job::StageKind::Prepare); });
  job = about(o.picture, [&] { return withColours(std::move(job), o.colours); });
  if (o.strokes.method != trace::TraceMethod::Outline && !o.colours.colours.empty())
    throw InputError("--method " + std::string(trace::kTraceMethodNames[static_cast<std::size_t>(o.strokes.method)]) +
                     " takes ink and paper alone, not --colours.");
  applyStrokes(o.trace, o.strokes);
  o.files.strokesAsDrawn = o.strokes.look == "width";
  job.trace = o.trace;
  job.size = about(o.picture, [&] { return sizeWish(o, job.picture); });
  job = about(o.picture, [&] { return job::workedOut(std::move(job), {progressOnTerminal("tracing", o.quiet)}); });
  if (job.tracing->outlines.empty() && !o.quiet) {
    std::cerr << "snugrim-cli: " << o.picture
              << (job.inks ? ": no ink is kept; the drawing has no outlines.\n"
                           : ": nothing is darker than the threshold; the drawing has no outlines.\n");
  }
  about(o.out, [&] { io::exportJob(job, o.out, o.files); });
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty()) {
    const std::string text = io::reportJson(io::drawingFor(job, kind, o.files), o.picture, seconds.count());
    writeReport(o.report, text);
  }
  if (!o.recipeFile.empty()) about(o.recipeFile, [&] { io::saveRecipe(job, o.recipeFile); });
  if (!o.jobFile.empty()) about(o.jobFile, [&] { io::saveJob(job, o.jobFile); });
  return withReceipt(o.receipt, o.out, io::drawingFor(job, kind, o.files), kDone);
}

}  // namespace

void addTraceCommand(Program& program) {
  auto options = std::make_shared<TraceOptions>();
  Command command = program.command("trace", "a picture becomes closed outlines in SVG or DXF");
  command.add("picture", options->picture, "PNG, JPEG, BMP, GIF, TIFF, WebP or PDF").required();
  command.add("-o,--out", options->out, "the file to write, .svg or .dxf").required();
  command.add("--page", options->page, "the page of a PDF or TIFF, from 1")
      .within(1, 100'000)
      .takes("N")
      .showsDefault();
  addPreparation(command, options->preparation);
  addShape(command, *options);
  addStrokes(command, options->strokes);
  addColours(command, options->colours);
  addFile(command, *options);
  command.add("--save-job", options->jobFile, "writes the job, too: picture, settings and outlines")
      .takes("FILE.snugrim");
  command.add("--save-recipe", options->recipeFile, "writes what was decided, for `batch`, without the picture")
      .takes("FILE.json");
  addReceipt(command, options->receipt);
  addTelling(command, options->report, options->quiet);
  command.does([options] { return runGuarded([&options] { return run(*options); }); });
}

}  // namespace rim::cli
