#include "cli/sketch_command.h"

#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "core/io/report.h"
#include "core/io/stl.h"

namespace rim::cli {
namespace {

struct SketchOptions {
  DrawingInput drawing;
  std::string out;
  double thicknessMm = 3;
  double chordMm = 0.01;
  std::string report;
  bool quiet = false;
};

void printSketch(const sketch::Sketch& sketch, double thicknessMm) {
  for (const sketch::Profile& p : sketch.profiles) {
    std::cout << "profile " << p.outer << ": " << p.holes.size() << (p.holes.size() == 1 ? " hole, " : " holes, ")
              << p.areaMm2 << " mm2, " << p.areaMm2 * thicknessMm << " mm3\n";
  }
  for (const sketch::UnfitOutline& u : sketch.unfit) {
    std::cout << "outline " << u.outline << " cannot be extruded: "
              << (u.why == sketch::Unfit::Open ? "it is open.\n" : "it crosses itself or another one.\n");
  }
  if (sketch.profiles.empty()) std::cout << "Nothing in this drawing can be extruded.\n";
}

int run(const SketchOptions& o) {
  if (!o.out.empty() && io::endingOf(o.out) != ".stl") throw InputError(o.out + ": solids are written as .stl.");
  const Drawing drawing = readInput(o.drawing, o.quiet).drawing;
  const sketch::Sketch sketch = about(o.drawing.file, [&] { return sketch::sketchOf(drawing); });
  if (!o.out.empty()) {
    if (sketch.profiles.empty())
      throw InputError(o.drawing.file + ": nothing in it can be extruded; no solid is written.");
    about(o.out, [&] { io::writeStl(sketch::extruded(drawing, sketch, o.thicknessMm, o.chordMm), o.out); });
  }
  if (!o.report.empty()) writeReport(o.report, io::sketchJson(sketch, o.thicknessMm));
  if (o.report != "-" && !o.quiet) printSketch(sketch, o.thicknessMm);
  return kDone;
}

}  // namespace

void addSketchCommand(Program& program) {
  auto options = std::make_shared<SketchOptions>();
  Command command = program.command("sketch", "says what a CAD program can extrude of a drawing, and writes the solid");
  addDrawingInput(command, options->drawing);
  command.add("-o,--out", options->out, "the solid to write, .stl");
  constexpr double kThinnestMm = 0.001;
  command.add("--thickness", options->thicknessMm, "how far profiles are pulled up, mm")
      .within(kThinnestMm, 100'000.0)
      .showsDefault();
  command.add("--chord", options->chordMm, "how far the solid may leave curves, mm")
      .within(0.0001, 10.0)
      .showsDefault();
  addTelling(command, options->report, options->quiet);
  command.does([options] { return runGuarded([&options] { return run(*options); }); });
}

}  // namespace rim::cli
