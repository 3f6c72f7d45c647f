#include "core/io/deliver.h"

#include <algorithm>

#include "core/io/arrange.h"
#include "core/io/print/print.h"

namespace rim::io {
namespace {

std::optional<PrintKind> printKindOf(const std::filesystem::path& file) {
  const std::string ending = endingOf(file);
  if (ending == ".pdf") return PrintKind::Pdf;
  if (ending == ".eps") return PrintKind::Eps;
  if (ending == ".png") return PrintKind::Png;
  return {};
}

/// A layer's name as a part of a file's name: what a path would be taken for is left out.
std::string fileName(const std::string& layer) {
  std::string name;
  for (const char c : layer) name += c == '/' || c == '\\' || c == '\0' || c == ':' ? '_' : c;
  if (name == "." || name == "..") name = "_";
  return name;
}

/// Whether outlines go into a file where they are, on their own layers.
bool isAsItLies(const job::Job& job, const job::ExportSettings& settings) {
  return settings.origin == job::OriginAt::Drawing && !settings.marginMm && !(settings.onStock && job.stock) &&
         !settings.byRole;
}

}  // namespace

bool isPrint(const std::filesystem::path& file) { return printKindOf(file).has_value(); }

std::string endingFor(job::FileFormat format) {
  switch (format) {
    case job::FileFormat::Dxf2000:
    case job::FileFormat::DxfR12:
      return ".dxf";
    case job::FileFormat::Svg:
      return ".svg";
    case job::FileFormat::Pdf:
      return ".pdf";
    case job::FileFormat::Eps:
      return ".eps";
    case job::FileFormat::Png:
      return ".png";
  }
  return ".dxf";
}

job::ExportSettings settingsFor(const job::FileWish& wish) {
  job::ExportSettings settings = wish.settings;
  settings.dxf = wish.format == job::FileFormat::DxfR12 ? job::DxfVersion::R12 : job::DxfVersion::Dxf2000;
  if (endingFor(wish.format) == ".dxf") {
    settings.marginMm.reset();
    settings.onStock = false;
  } else {
    settings.origin = job::OriginAt::Drawing;
  }
  return settings;
}

Drawing arranged(const Drawing& drawing, const job::ExportSettings& settings, const std::optional<job::Stock>& stock) {
  if (settings.byRole) {
    job::ExportSettings rest = settings;
    rest.byRole = false;
    return arranged(layeredByRole(drawing), rest, stock);
  }
  if (settings.onStock && stock) return onPage(drawing, job::boxOf(*stock));
  if (settings.marginMm) return onArtworkPage(drawing, *settings.marginMm);
  const bool ofStock = settings.ofStock && stock;
  return withOrigin(drawing, settings.origin, ofStock ? job::boxOf(*stock) : boxOf(drawing));
}

Drawing arrangedOf(const job::Job& job, const job::ExportSettings& settings, const std::set<OutlineId>& only) {
  const Drawing all = job::drawingOf(job);
  return arranged(only.empty() ? all : onlyOutlines(all, only), settings, job.stock);
}

Delivered deliver(const Drawing& drawing, const std::filesystem::path& file, const job::ExportSettings& settings,
                  double toleranceMm, const std::string& note) {
  if (const auto kind = printKindOf(file)) {
    const bool hasPage = drawing.pageWidth > 0 && drawing.pageHeight > 0;
    const Drawing page = hasPage ? onItsPage(drawing) : onArtworkPage(drawing, 1);
    print(page, file, *kind, {settings.filled.value_or(*kind == PrintKind::Png), settings.dpi});
    return {file, page};
  }
  const FileKind kind = fileKindOf(file);
  const Drawing formed = inFormFor(drawing, kind, settings, toleranceMm);
  writeDrawing(formed, file, settings, note, toleranceMm);
  return {file, asWritten(formed, kind)};
}

std::vector<Delivered> byLayerFiles(const Drawing& drawing, const std::filesystem::path& file) {
  std::vector<Delivered> files;
  std::vector<std::string> used;
  for (auto& [name, alone] : byLayer(drawing)) {
    const std::string stem = file.stem().string();
    std::string own = stem;
    if (!name.empty()) own += "-" + fileName(name);
    for (int k = 2; std::find(used.begin(), used.end(), own) != used.end(); ++k)
      own = stem + "-" + fileName(name) + "-" + std::to_string(k);
    used.push_back(own);
    files.push_back({file.parent_path() / (own + file.extension().string()), std::move(alone)});
  }
  return files;
}

std::vector<Delivered> deliverJob(const job::Job& job, const std::filesystem::path& file,
                                  const job::ExportSettings& settings, const DeliveryOf& what) {
  const bool all = !what.fileEach && what.only.empty();
  if (all && isAsItLies(job, settings) && !isPrint(file)) return {{file, exportJob(job, file, settings)}};
  const Drawing drawing = arrangedOf(job, settings, what.only);
  const std::string note = settings.withOrigin ? job.origin : std::string();
  std::vector<Delivered> files = what.fileEach ? byLayerFiles(drawing, file) : std::vector<Delivered>{{file, drawing}};
  for (Delivered& one : files) one = deliver(one.drawing, one.file, settings, exportToleranceMm(job, settings), note);
  return files;
}

std::string svgTextOf(const job::Job& job, const job::ExportSettings& settings) {
  const auto placed = [&] {
    if (isAsItLies(job, settings)) return writtenFor(job, FileKind::Svg, settings);
    const double toleranceMm = exportToleranceMm(job, settings);
    return asWritten(inFormFor(arrangedOf(job, settings), FileKind::Svg, settings, toleranceMm), FileKind::Svg);
  };
  return svgTextOf(placed(), settings, settings.withOrigin ? job.origin : std::string());
}

}  // namespace rim::io
