#include "core/io/export.h"

#include <algorithm>
#include <cctype>

#include "core/error.h"
#include "core/geometry/outermost.h"
#include "core/io/write_svg.h"

namespace rim {

FileKind fileKindOf(const std::filesystem::path& file) {
  std::string ending = file.extension().string();
  std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return std::tolower(c); });
  if (ending == ".svg") return FileKind::Svg;
  if (ending == ".dxf") return FileKind::Dxf;
  throw InputError("the ending says what to write: use .svg or .dxf.");
}

Drawing drawingFor(const Job& job, FileKind kind, const ExportSettings& settings) {
  constexpr double kShareOfTolerance = 1.0 / 6;
  const double toleranceMm = job.trace.tolerancePx * kShareOfTolerance * mmPerPixel(job);
  const CurveForm form = settings.curves.value_or(kind == FileKind::Svg ? CurveForm::Beziers : CurveForm::Arcs);
  Drawing drawing = drawingOf(job);
  const Box box = boxOf(drawing.paths);
  for (Path& path : drawing.paths) path = inForm(withOutermostNodes(path, box, toleranceMm, form), form, toleranceMm);
  return drawing;
}

void exportJob(const Job& job, const std::filesystem::path& file, const ExportSettings& settings) {
  const FileKind kind = fileKindOf(file);
  const Drawing drawing = drawingFor(job, kind, settings);
  const std::string note = settings.withOrigin ? job.origin : std::string();
  if (kind == FileKind::Svg) {
    writeSvg(drawing, file, note);
  } else {
    writeDxf(drawing, file, settings.dxf, note);
  }
}

}  // namespace rim
