#include "core/io/print/print.h"

#include <cairo-pdf.h>
#include <cairo-ps.h>
#include <cairo.h>

#include <array>
#include <cmath>
#include <cstdio>
#include <fstream>
#include <sstream>

#include "core/error.h"
#include "core/geometry/curve_form.h"
#include "core/geometry/units.h"
#include "core/io/common/safe_file.h"

namespace rim::io {
namespace {

constexpr double kPointsPerMm = 72 / kMmPerInch;
constexpr double kHairlineMm = 0.1;

using Surface = std::unique_ptr<cairo_surface_t, void (*)(cairo_surface_t*)>;
using Context = std::unique_ptr<cairo_t, void (*)(cairo_t*)>;

void expectWell(cairo_status_t status) {
  if (status == CAIRO_STATUS_NO_MEMORY) throw InputError("there is not enough memory for this page.");
  if (status != CAIRO_STATUS_SUCCESS) throw WriteError("the drawing could not be written: the disk may be full.");
}

void addPath(cairo_t* context, const Path& path) {
  constexpr double kArcMm = 1e-4;
  const Path cubic = inForm(path, CurveForm::Beziers, kArcMm);
  cairo_move_to(context, cubic.start.x, cubic.start.y);
  for (const Segment& s : cubic.segments) {
    if (s.kind == SegmentKind::Cubic) {
      cairo_curve_to(context, s.handle1.x, s.handle1.y, s.handle2.x, s.handle2.y, s.end.x, s.end.y);
    } else {
      cairo_line_to(context, s.end.x, s.end.y);
    }
  }
  if (cubic.closed) cairo_close_path(context);
}

/// All outlines of one layer, filled or as lines.
void drawLayer(cairo_t* context, const Drawing& drawing, std::size_t layer, bool filled) {
  const Layer look = drawing.layers.empty() ? Layer{} : drawing.layers[layer];
  constexpr double kMost = 255;
  cairo_set_source_rgb(context, look.red / kMost, look.green / kMost, look.blue / kMost);
  const auto isArea = [](const Outline& outline) { return outline.path().closed && outline.stroke.usual == 0; };
  for (const bool areas : {true, false}) {
    cairo_new_path(context);
    for (const Outline& outline : drawing.outlines) {
      const bool here = drawing.layers.empty() || outline.layer == layer;
      if (here && isArea(outline) == areas) addPath(context, outline.path());
    }
    if (areas && filled) {
      cairo_fill(context);
    } else {
      cairo_stroke(context);
    }
  }
}

void draw(cairo_surface_t* surface, const Drawing& drawing, double unitsPerMm, bool filled) {
  const Context context(cairo_create(surface), &cairo_destroy);
  cairo_scale(context.get(), unitsPerMm, -unitsPerMm);
  cairo_translate(context.get(), 0, -drawing.pageHeight);
  cairo_set_fill_rule(context.get(), CAIRO_FILL_RULE_EVEN_ODD);
  cairo_set_line_width(context.get(), kHairlineMm);
  const std::size_t layers = std::max<std::size_t>(1, drawing.layers.size());
  for (std::size_t layer = 0; layer < layers; ++layer) drawLayer(context.get(), drawing, layer, filled);
  cairo_show_page(context.get());
  expectWell(cairo_status(context.get()));
}

void drawPng(const Drawing& drawing, const std::string& file, const PrintLook& look) {
  const double perMm = look.dpi / kMmPerInch;
  const double width = std::max(1.0, std::round(drawing.pageWidth * perMm));
  const double height = std::max(1.0, std::round(drawing.pageHeight * perMm));
  if (std::max(width, height) > kLargestPrintPx)
    throw InputError("the picture would be larger than 20 000 px; give a smaller --dpi.");
  const Surface surface(
      cairo_image_surface_create(CAIRO_FORMAT_RGB24, static_cast<int>(width), static_cast<int>(height)),
      &cairo_surface_destroy);
  expectWell(cairo_surface_status(surface.get()));
  {
    const Context white(cairo_create(surface.get()), &cairo_destroy);
    cairo_set_source_rgb(white.get(), 1, 1, 1);
    cairo_paint(white.get());
  }
  draw(surface.get(), drawing, perMm, look.filled);
  expectWell(cairo_surface_write_to_png(surface.get(), file.c_str()));
}

/// EPS as cairo writes it names the box of what is drawn, in whole points. Here the page counts, as in the other files,
/// and its exact box stands in a comment of its own (Adobe, DSC 3.0, %%HiResBoundingBox).
void addExactBox(const std::string& file, double width, double height) {
  std::ifstream in(file, std::ios::binary);
  std::stringstream text;
  text << in.rdbuf();
  std::string all = text.str();
  const std::size_t at = all.find("%%BoundingBox:");
  const std::size_t end = at == std::string::npos ? at : all.find('\n', at);
  if (end == std::string::npos || all.find("%%HiResBoundingBox:") != std::string::npos) return;
  std::array<char, 160> lines{};
  std::snprintf(lines.data(), lines.size(), "%%%%BoundingBox: 0 0 %.0f %.0f\n%%%%HiResBoundingBox: 0 0 %.6f %.6f\n",
                std::ceil(width - 1e-4), std::ceil(height - 1e-4), width, height);
  all.replace(at, end + 1 - at, lines.data());
  std::ofstream out(file, std::ios::binary | std::ios::trunc);
  out << all;
  if (!out.flush()) throw WriteError("the drawing could not be written: the disk may be full.");
}

void drawVectors(const Drawing& drawing, const std::string& file, PrintKind kind, bool filled) {
  const double width = drawing.pageWidth * kPointsPerMm;
  const double height = drawing.pageHeight * kPointsPerMm;
  {
    const Surface surface(kind == PrintKind::Pdf ? cairo_pdf_surface_create(file.c_str(), width, height)
                                                 : cairo_ps_surface_create(file.c_str(), width, height),
                          &cairo_surface_destroy);
    expectWell(cairo_surface_status(surface.get()));
    if (kind == PrintKind::Eps) cairo_ps_surface_set_eps(surface.get(), 1);
    // The same drawing gives the same bytes, whenever it is written.
    if (kind == PrintKind::Pdf)
      cairo_pdf_surface_set_metadata(surface.get(), CAIRO_PDF_METADATA_CREATE_DATE, "2000-01-01T00:00:00Z");
    draw(surface.get(), drawing, kPointsPerMm, filled);
    cairo_surface_finish(surface.get());
    expectWell(cairo_surface_status(surface.get()));
  }
  if (kind == PrintKind::Eps) addExactBox(file, width, height);
}

}  // namespace

void print(const Drawing& drawing, const std::filesystem::path& file, PrintKind kind, const PrintLook& look) {
  if (!(drawing.pageWidth > 0) || !(drawing.pageHeight > 0)) throw InputError("the page has no size.");
  writeBeside(file, [&](const std::filesystem::path& beside) {
    if (kind == PrintKind::Png) {
      drawPng(drawing, beside.string(), look);
    } else {
      drawVectors(drawing, beside.string(), kind, look.filled);
    }
  });
}

}  // namespace rim::io
