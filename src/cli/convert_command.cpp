#include "cli/convert_command.h"

#include <algorithm>
#include <chrono>

#include "cli/command_parts.h"
#include "cli/drawing_input.h"
#include "core/io/arrange.h"
#include "core/io/job/job_file.h"
#include "core/io/print/print.h"
#include "core/io/report.h"

namespace rim::cli {
namespace {

enum class PageOf { Artwork, Stock };

struct ConvertOptions {
  DrawingInput in;
  std::string out;
  std::string report;
  ExportSettings files;
  double toleranceMm = 0.001;
  OriginAt origin = OriginAt::Drawing;
  std::optional<PageOf> page;
  double marginMm = -1;
  std::optional<bool> filled;
  std::string layer;
  bool fileEach = false;
  double dpi = 300;
  ReceiptWish receipt;
  bool quiet = false;
};

std::optional<PrintKind> printKindOf(const std::filesystem::path& file) {
  const std::string ending = endingOf(file);
  if (ending == ".pdf") return PrintKind::Pdf;
  if (ending == ".eps") return PrintKind::Eps;
  if (ending == ".png") return PrintKind::Png;
  return {};
}

void expectKnownEnding(const std::string& out) {
  if (printKindOf(out) || endingOf(out) == kJobEnding) return;
  if (endingOf(out) == ".svg" || endingOf(out) == ".dxf") return;
  throw InputError(out + ": the ending says what to write: use .svg, .dxf, .pdf, .eps, .png or .snugrim.");
}

/// What the options make of the drawing, before it is written.
Drawing arranged(Drawing drawing, const ConvertOptions& o) {
  if (!o.layer.empty()) drawing = about(o.in.file, [&] { return onlyLayer(drawing, o.layer); });
  drawing = withOrigin(drawing, o.origin);
  if (o.page == PageOf::Artwork) drawing = onArtworkPage(drawing, std::max(0.0, o.marginMm));
  return drawing;
}

/// Writes one file. Returns the drawing as it stands there.
Drawing written(const Drawing& drawing, const std::string& out, const ConvertOptions& o) {
  if (const auto kind = printKindOf(out)) {
    const Drawing page =
        drawing.pageWidth > 0 && drawing.pageHeight > 0 ? onItsPage(drawing) : onArtworkPage(drawing, 1);
    about(out, [&] { print(page, out, *kind, {o.filled.value_or(*kind == PrintKind::Png), o.dpi}); });
    return page;
  }
  if (endingOf(out) == kJobEnding) {
    about(out, [&] { saveJob(jobOn(drawing, std::filesystem::path(o.in.file).filename().string()), out); });
    return drawing;
  }
  const FileKind kind = fileKindOf(out);
  ExportSettings files = o.files;
  files.filled = o.filled;
  const Drawing formed = inFormFor(drawing, kind, files, o.toleranceMm);
  about(out, [&] { writeDrawing(formed, out, files); });
  return asWritten(formed, kind);
}

/// A layer's name as a part of a file's name: what a path would be taken for is left out.
std::string fileName(const std::string& layer) {
  std::string name;
  for (const char c : layer) name += c == '/' || c == '\\' || c == '\0' || c == ':' ? '_' : c;
  if (name == "." || name == "..") name = "_";
  return name;
}

int convertEach(const Drawing& drawing, const ConvertOptions& o) {
  const std::filesystem::path out(o.out);
  int code = kDone;
  std::vector<std::string> used;
  for (const auto& [name, alone] : byLayer(drawing)) {
    std::string own = out.stem().string() + (name.empty() ? "" : "-" + fileName(name));
    for (int k = 2; std::find(used.begin(), used.end(), own) != used.end(); ++k)
      own = out.stem().string() + "-" + fileName(name) + "-" + std::to_string(k);
    used.push_back(own);
    const std::string file = (out.parent_path() / (own + out.extension().string())).string();
    const Drawing made = written(alone, file, o);
    code = std::max(code, withReceipt(o.receipt, file, made, kDone));
    if (!o.quiet) std::cout << file << '\n';
  }
  return code;
}

int run(const ConvertOptions& o) {
  const auto begin = std::chrono::steady_clock::now();
  expectKnownEnding(o.out);
  if (o.marginMm >= 0 && o.page != PageOf::Artwork) throw InputError("--margin goes with --page artwork.");
  const bool read = !printKindOf(o.out) && endingOf(o.out) != kJobEnding;
  if (!read && (!o.receipt.file.empty() || o.receipt.strict))
    throw InputError("a receipt is taken of an SVG or DXF only.");
  const Drawing drawing = arranged(readInput(o.in, o.quiet).drawing, o);
  if (o.fileEach) return convertEach(drawing, o);
  const Drawing made = written(drawing, o.out, o);
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  if (!o.report.empty()) writeReport(o.report, reportJson(made, o.in.file, seconds.count()));
  return withReceipt(o.receipt, o.out, made, kDone);
}

void addLook(Command& command, ConvertOptions& o) {
  const std::map<std::string, OriginAt> origins{
      {"lower-left", OriginAt::LowerLeft}, {"centre", OriginAt::Centre}, {"drawing", OriginAt::Drawing}};
  command
      .choice("--origin", o.origin, origins,
              "where the coordinates begin: lower-left or centre of the outlines, or drawing: they stay (default)")
      .takes("WHERE");
  const std::map<std::string, PageOf> pages{{"artwork", PageOf::Artwork}, {"stock", PageOf::Stock}};
  command.choice("--page", o.page, pages, "the page: artwork, the box round it; or stock, as it is (default)")
      .takes("PAGE");
  command.add("--margin", o.marginMm, "with --page artwork: room on every side, mm").within(0.0, 10'000.0);
  const std::map<std::string, bool> fills{{"none", false}, {"ink", true}};
  command.choice("--fill", o.filled, fills, "closed outlines as hairlines (none) or filled (ink)").takes("FILL");
  command.add("--layer", o.layer, "only this layer").takes("NAME");
  command.flag("--file-each", o.fileEach, "one file a layer, named OUT-NAME");
  command.add("--dpi", o.dpi, "of a PNG").within(1, 10'000).showsDefault();
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
