#include "cli/trace_command.h"

#include <CLI/CLI.hpp>
#include <chrono>
#include <iostream>

#include "cli/between.h"
#include "cli/colour_options.h"
#include "cli/command_parts.h"
#include "cli/preparation_options.h"
#include "core/error.h"
#include "core/io/export.h"
#include "core/io/report.h"
#include "core/picture/load.h"

namespace rim::cli {
namespace {

struct TraceOptions {
  std::string picture;
  std::string out;
  std::string threshold = "auto";
  std::string report;
  std::vector<std::string> exact;
  TraceSettings trace;
  ExportSettings files;
  PreparationOptions preparation;
  ColourOptions colours;
  double widthMm = 0;
  double heightMm = 0;
  double dpi = 0;
  int page = 1;
  bool quiet = false;
};

std::string checkThreshold(const std::string& text) {
  if (text == "auto") return {};
  return CLI::Range(0, 255)(text).empty() ? std::string{} : "--threshold takes auto or a number from 0 to 255";
}

void addShape(CLI::App& command, TraceOptions& o) {
  command.add_option("--threshold", o.threshold, "what is darker than this is ink: auto or 0..255")
      ->check(checkThreshold)
      ->capture_default_str();
  command.add_flag("--invert", o.trace.lightIsInk, "the light part is the ink");
  command.add_option("--tolerance", o.trace.tolerancePx, "how far an outline may leave the measured border, px")
      ->check(between(0.05, 10.0))
      ->capture_default_str();
  command.add_option("--corners", o.trace.cornerReadiness, "0 rounds everything, 100 keeps every kink")
      ->check(between(0.0, 100.0))
      ->capture_default_str();
  command
      .add_option("--exact", o.exact,
                  "what is made exact where the border allows it: all, none, or some of level, parallel, radii, "
                  "concentric, tangent")
      ->delimiter(',')
      ->type_name("RULE,...")
      ->default_str("all");
  command.add_option("--min-area", o.trace.minAreaPx2, "smaller islands and holes are left out, px2")
      ->check(between(0.0, 1e9))
      ->capture_default_str();
}

void addFile(CLI::App& command, TraceOptions& o) {
  addFileForm(command, o.files);
  const auto size = between(kSmallestSizeMm, kLargestSizeMm);
  auto* width = command.add_option("--width-mm", o.widthMm, "width of the whole picture")->check(size);
  auto* height = command.add_option("--height-mm", o.heightMm, "height of the whole picture")->check(size);
  command.add_option("--dpi", o.dpi, "resolution (default: the picture's own, else 96)")
      ->check(between(1.0, 100'000.0))
      ->excludes(width)
      ->excludes(height);
}

Rules rulesOf(const std::vector<std::string>& names) {
  if (names == std::vector<std::string>{"all"}) return {};
  if (names == std::vector<std::string>{"none"}) return rulesNamed({});
  try {
    return rulesNamed(names);
  } catch (const InputError& error) {
    throw InputError("--exact: " + std::string(error.what()));
  }
}

SizeWish sizeWish(const TraceOptions& o, const Picture& picture) {
  if (o.widthMm > 0 && o.heightMm > 0) {
    // Both may be said when they agree to a pixel; stretching would turn circles into ellipses.
    const double heightPx = o.heightMm / o.widthMm * picture.width();
    if (std::abs(heightPx - picture.height()) > 1) {
      throw InputError("--width-mm and --height-mm together would stretch the picture of " +
                       std::to_string(picture.width()) + " x " + std::to_string(picture.height()) +
                       " px. Give one of them.");
    }
  }
  if (o.widthMm > 0) return {SizeWish::Of::PictureWidth, o.widthMm};
  if (o.heightMm > 0) return {SizeWish::Of::PictureHeight, o.heightMm};
  return {SizeWish::Of::Resolution, o.dpi};
}

void run(TraceOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  const FileKind kind = about(o.out, [&] { return fileKindOf(o.out); });
  if (!o.exact.empty()) o.trace.rules = rulesOf(o.exact);
  if (o.threshold != "auto") o.trace.threshold = std::stoi(o.threshold);
  Job job = about(o.picture, [&] { return jobOn(loadPicture(std::filesystem::path(o.picture), o.page)); });
  job.preparation = stepsOf(o.preparation);
  job = about(o.picture, [&] { return withPreparedPicture(std::move(job)); });
  job = about(o.picture, [&] { return withColours(std::move(job), o.colours); });
  job.trace = o.trace;
  job.size = about(o.picture, [&] { return sizeWish(o, job.picture); });
  job = traced(std::move(job), progressOnTerminal("tracing", o.quiet));
  if (job.tracing->outlines.empty() && !o.quiet) {
    std::cerr << "snugrim-cli: " << o.picture
              << (job.inks ? ": no ink is kept; the drawing has no outlines.\n"
                           : ": nothing is darker than the threshold; the drawing has no outlines.\n");
  }
  about(o.out, [&] { exportJob(job, o.out, o.files); });
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty()) {
    const std::string text = reportJson(drawingFor(job, kind, o.files), o.picture, seconds.count());
    writeReport(o.report, text);
  }
}

}  // namespace

void addTraceCommand(CLI::App& app, int& result) {
  auto options = std::make_shared<TraceOptions>();
  CLI::App* command = app.add_subcommand("trace", "a picture becomes closed outlines in SVG or DXF");
  command->add_option("picture", options->picture, "PNG, JPEG, BMP, GIF, TIFF, WebP or PDF")->required();
  command->add_option("-o,--out", options->out, "the file to write, .svg or .dxf")->required();
  command->add_option("--page", options->page, "the page of a PDF or TIFF, from 1")
      ->check(between(1, 100'000))
      ->type_name("N")
      ->capture_default_str();
  addPreparation(*command, options->preparation);
  addShape(*command, *options);
  addColours(*command, options->colours);
  addFile(*command, *options);
  addTelling(*command, options->report, options->quiet);
  command->callback([options, &result] {
    result = runGuarded([&options] {
      run(*options);
      return 0;
    });
  });
}

}  // namespace rim::cli
