#include "core/io/export.h"

#include <algorithm>
#include <cctype>

#include "core/error.h"
#include "core/geometry/circle.h"
#include "core/geometry/outermost.h"
#include "core/io/read_drawing.h"
#include "core/io/svg/write_svg.h"

namespace rim::io {

namespace {

std::optional<FileKind> kindByEnding(const std::filesystem::path& file) {
  const std::string ending = endingOf(file);
  if (ending == ".svg") return FileKind::Svg;
  if (ending == ".dxf") return FileKind::Dxf;
  return {};
}

Drawing inUnit(Drawing drawing, Unit unit) {
  return unit == Unit::Inch ? inFrame(drawing, Frame::Inches, 1 / kMmPerInch) : drawing;
}

svg::SvgLook lookOf(const job::ExportSettings& settings) {
  return {settings.filled, settings.strokesAsDrawn, settings.element};
}

void writeAsItIs(Drawing drawing, const std::filesystem::path& file, const job::ExportSettings& settings,
                 const std::string& note, double toleranceMm) {
  drawing = inUnit(std::move(drawing), settings.unit);
  if (fileKindOf(file) == FileKind::Svg) {
    svg::writeSvg(drawing, file, note, lookOf(settings));
  } else {
    dxf::writeDxf(drawing, file, settings.dxf, note, toleranceMm);
  }
}

}  // namespace

std::string endingOf(const std::filesystem::path& file) {
  std::string ending = file.extension().string();
  std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return std::tolower(c); });
  return ending;
}

Drawing onItsPage(Drawing drawing) {
  const Box box = boxOf(drawing);
  if (box.empty()) return drawing;
  constexpr double kRounded = 1e-6;
  const double size = std::max(box.width(), box.height());
  const bool outside = box.low.x < -kRounded || box.low.y < -kRounded;
  const bool onPage = box.high.x <= drawing.pageWidth + kRounded && box.high.y <= drawing.pageHeight + kRounded;
  const bool faraway = !onPage && std::max(box.low.x, box.low.y) > size;
  const bool unreadable = std::max(box.high.x, box.high.y) > kLargestCoordinate;
  const Point away = outside || faraway || unreadable ? -box.low : Point{};
  if (!(away == Point{})) drawing = moved(drawing, away);
  if (!(away == Point{}) || !onPage) {
    drawing.pageWidth = box.high.x + away.x;
    drawing.pageHeight = box.high.y + away.y;
  }
  return drawing;
}

FileKind fileKindOf(const std::filesystem::path& file) {
  if (const auto kind = kindByEnding(file)) return *kind;
  throw InputError("the ending says what to write: use .svg or .dxf.");
}

FileKind drawingKindOf(const std::filesystem::path& file) {
  if (const auto kind = kindByEnding(file)) return *kind;
  throw InputError("the ending says what a drawing is: .svg and .dxf are read.");
}

double exportToleranceMm(const job::Job& job, const job::ExportSettings& settings) {
  if (settings.toleranceMm > 0) return settings.toleranceMm;
  constexpr double kShareOfTolerance = 0.08;
  return job.trace.tolerancePx * kShareOfTolerance * job::mmPerPixel(job);
}

Drawing drawingFor(const job::Job& job, FileKind kind, const job::ExportSettings& settings) {
  return inFormFor(job::drawingOf(job), kind, settings, exportToleranceMm(job, settings));
}

Drawing inFormFor(Drawing drawing, FileKind kind, const job::ExportSettings& settings, double toleranceMm) {
  const CurveForm form = settings.curves.value_or(kind == FileKind::Svg ? CurveForm::Beziers : CurveForm::Arcs);
  const Box box = boxOf(drawing);
  for (Outline& outline : drawing.outlines) {
    // A circle stands in a DXF as such, whatever the rest is made of.
    if (kind == FileKind::Dxf && form == CurveForm::Beziers && circleOf(outline.path())) continue;
    outline = outline.with(inForm(withOutermostNodes(outline.path(), box, toleranceMm, form), form, toleranceMm));
  }
  for (Outline& outline : drawing.outlines) {
    if (kind == FileKind::Dxf && !circleOf(outline.path())) outline = outline.with(inQuarters(outline.path()));
  }
  return drawing;
}

Drawing asWritten(Drawing drawing, FileKind kind) {
  return kind == FileKind::Svg ? onItsPage(std::move(drawing)) : drawing;
}

Drawing writtenFor(const job::Job& job, FileKind kind, const job::ExportSettings& settings) {
  return asPlaced(job, drawingFor(job, kind, settings), kind);
}

Drawing asPlaced(const job::Job& job, Drawing drawing, FileKind kind) {
  const bool onPicture = !job.drawing && !job.refined;
  return onPicture ? drawing : asWritten(std::move(drawing), kind);
}

void writeDrawing(Drawing drawing, const std::filesystem::path& file, const job::ExportSettings& settings,
                  const std::string& note, double toleranceMm) {
  writeAsItIs(asWritten(std::move(drawing), fileKindOf(file)), file, settings, note, toleranceMm);
}

std::string svgTextOf(Drawing drawing, const job::ExportSettings& settings, const std::string& note) {
  return svg::svgText(inUnit(std::move(drawing), settings.unit), note, lookOf(settings));
}

Drawing exportJob(const job::Job& job, const std::filesystem::path& file, const job::ExportSettings& settings) {
  const Drawing drawing = writtenFor(job, fileKindOf(file), settings);
  writeAsItIs(drawing, file, settings, settings.withOrigin ? job.origin : std::string(),
              exportToleranceMm(job, settings));
  return drawing;
}

}  // namespace rim::io
