#include "cli/convert_command.h"

#include <algorithm>
#include <chrono>

#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "core/io/arrange.h"
#include "core/io/deliver.h"
#include "core/io/job/job_file.h"
#include "core/io/report.h"

namespace rim::cli {
namespace {

enum class PageOf { Artwork, Stock };

struct ConvertOptions {
  DrawingInput in;
  std::string out;
  std::string report;
  job::ExportSettings files;
  double toleranceMm = 0.001;
  std::optional<PageOf> page;
  double marginMm = -1;
  std::string layer;
  bool fileEach = false;
  ReceiptWish receipt;
  bool quiet = false;
};

void expectKnownEnding(const std::string& out) {
  if (io::isPrint(out) || io::endingOf(out) == io::kJobEnding) return;
  if (io::endingOf(out) == ".svg" || io::endingOf(out) == ".dxf") return;
  throw InputError(out + ": the ending says what to write: use .svg, .dxf, .pdf, .eps, .png or .snugrim.");
}

/// What the options make of the drawing, before it is written.
Drawing chosen(const InputDrawing& read, const ConvertOptions& o) {
  const Drawing drawing =
      o.layer.empty() ? read.drawing : about(o.in.file, [&] { return io::onlyLayer(read.drawing, o.layer); });
  return io::arranged(drawing, o.files, read.stock);
}

/// Writes one file. Returns the drawing as it stands there.
Drawing written(const Drawing& drawing, const std::string& out, const ConvertOptions& o) {
  if (io::endingOf(out) == io::kJobEnding) {
    about(out, [&] { io::saveJob(job::jobOn(drawing, std::filesystem::path(o.in.file).filename().string()), out); });
    return drawing;
  }
  return about(out, [&] { return io::deliver(drawing, out, o.files, o.toleranceMm).drawing; });
}

int convertEach(const Drawing& drawing, const ConvertOptions& o) {
  int code = kDone;
  for (const io::Delivered& one : io::byLayerFiles(drawing, o.out)) {
    const Drawing made = written(one.drawing, one.file.string(), o);
    code = std::max(code, withReceipt(o.receipt, one.file.string(), made, kDone));
    if (!o.quiet) std::cout << one.file.string() << '\n';
  }
  return code;
}

int run(ConvertOptions o) {
  const auto begin = std::chrono::steady_clock::now();
  expectKnownEnding(o.out);
  if (o.marginMm >= 0 && o.page != PageOf::Artwork) throw InputError("--margin goes with --page artwork.");
  if (o.page == PageOf::Artwork) o.files.marginMm = std::max(0.0, o.marginMm);
  o.files.onStock = o.page == PageOf::Stock;
  const bool read = !io::isPrint(o.out) && io::endingOf(o.out) != io::kJobEnding;
  if (!read && (!o.receipt.file.empty() || o.receipt.strict))
    throw InputError("a receipt is taken of an SVG or DXF only.");
  const Drawing drawing = chosen(readInput(o.in, o.quiet), o);
  if (o.fileEach) return convertEach(drawing, o);
  const Drawing made = written(drawing, o.out, o);
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty()) writeReport(o.report, io::reportJson(made, o.in.file, seconds.count()));
  return withReceipt(o.receipt, o.out, made, kDone);
}

void addLook(Command& command, ConvertOptions& o) {
  const std::map<std::string, job::OriginAt> origins{
      {"lower-left", job::OriginAt::LowerLeft}, {"centre", job::OriginAt::Centre}, {"drawing", job::OriginAt::Drawing}};
  command
      .choice("--origin", o.files.origin, origins,
              "where the coordinates begin: lower-left or centre of the outlines, or drawing: they stay (default)")
      .takes("WHERE");
  const std::map<std::string, PageOf> pages{{"artwork", PageOf::Artwork}, {"stock", PageOf::Stock}};
  command
      .choice("--page", o.page, pages,
              "the page: artwork, the box round it; or stock: that of a job, else as it is (default)")
      .takes("PAGE");
  command.add("--margin", o.marginMm, "with --page artwork: room on every side, mm").within(0.0, 10'000.0);
  const std::map<std::string, bool> fills{{"none", false}, {"ink", true}};
  command.choice("--fill", o.files.filled, fills, "closed outlines as hairlines (none) or filled (ink)").takes("FILL");
  const std::map<std::string, job::SvgElement> elements{
      {"layer", job::SvgElement::Layer}, {"part", job::SvgElement::Part}, {"outline", job::SvgElement::Outline}};
  command
      .choice("--paths", o.files.element, elements,
              "a path of an SVG holds all of a layer (default), a part: a border with its holes, or one outline")
      .takes("WHAT");
  const std::map<std::string, bool> layers{{"drawing", false}, {"role", true}};
  command
      .choice("--layers", o.files.byRole, layers,
              "the drawing's own layers (default), or role: what is cut outside, inside, or along a line")
      .takes("WHICH");
  command.add("--layer", o.layer, "only this layer").takes("NAME");
  command.flag("--file-each", o.fileEach, "one file a layer, named OUT-NAME");
  command.add("--dpi", o.files.dpi, "of a PNG").within(1, 10'000).showsDefault();
}

}  // namespace

void addConvertCommand(Program& program) {
  auto options = std::make_shared<ConvertOptions>();
  Command command = program.command("convert", "a drawing becomes another file, made of what you choose");
  addDrawingInput(command, options->in);
  command.add("-o,--out", options->out, "the file to write: .svg, .dxf, .pdf, .eps, .png or .snugrim").required();
  addFileForm(command, options->files);
  command.add("--tolerance", options->toleranceMm, "how far curves may move when they become arcs or lines, mm")
      .within(1e-6, 10.0)
      .showsDefault();
  addLook(command, *options);
  addReceipt(command, options->receipt);
  addTelling(command, options->report, options->quiet);
  command.does([options] { return runGuarded([&] { return run(*options); }); });
}

}  // namespace rim::cli
