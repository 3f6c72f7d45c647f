#include "core/io/dxf/write_dxf.h"

#include <algorithm>
#include <fstream>

#include "core/error.h"
#include "core/io/common/safe_file.h"
#include "core/io/dxf/dxf_entities.h"
#include "core/io/dxf/dxf_frame.h"
#include "core/io/dxf/dxf_layers.h"
#include "core/io/dxf/dxf_text.h"

namespace rim::io::dxf {
namespace {

constexpr int kInches = 1;       // $INSUNITS
constexpr int kMillimetres = 4;  // $INSUNITS

bool holdsCubic(const Outline& outline) {
  const auto& segments = outline.path().segments;
  return std::any_of(segments.begin(), segments.end(), [](const Segment& s) { return s.kind == SegmentKind::Cubic; });
}

/// A line break would end the comment and spoil the file.
std::string onOneLine(std::string text) {
  std::replace_if(
      text.begin(), text.end(), [](unsigned char c) { return c < 0x20; }, ' ');
  return text;
}

/// A millionth of a millimetre is nothing on any machine; inches get as much.
DxfTags tagsFor(const Drawing& drawing) { return DxfTags(drawing.frame == Frame::Inches ? 8 : 6); }

void addHeader(DxfTags& tags, const Drawing& drawing, bool r12, DxfTags::Handle seed) {
  const auto name = [&tags](const char* variable) { tags.text(9, variable); };
  const auto integer = [&](const char* variable, int value) {
    name(variable);
    tags.integer(70, value);
  };
  const auto point = [&](const char* variable, Point p) {
    name(variable);
    tags.point(10, p);
  };
  beginSection(tags, "HEADER");
  name("$ACADVER");
  tags.text(1, r12 ? "AC1009" : "AC1015");
  name("$DWGCODEPAGE");
  tags.text(3, "ANSI_1252");
  if (!r12) {
    name("$HANDSEED");
    tags.handle(5, seed);
  }
  integer("$INSUNITS", drawing.frame == Frame::Inches ? kInches : kMillimetres);
  integer("$MEASUREMENT", drawing.frame == Frame::Inches ? 0 : 1);
  const Box box = boxOf(drawing);
  point("$EXTMIN", box.empty() ? Point{} : box.low);
  point("$EXTMAX", box.empty() ? Point{drawing.pageWidth, drawing.pageHeight} : box.high);
  endSection(tags);
}

void addEntities(DxfTags& tags, const Drawing& drawing, const std::vector<DxfLayer>& layers, DxfPlace place) {
  beginSection(tags, "ENTITIES");
  for (const Outline& outline : drawing.outlines) {
    place.layer = inDxfLetters(layers[drawing.layers.empty() ? 0 : outline.layer].name);
    addEntity(tags, outline.path(), place);
  }
  endSection(tags);
}

/// All that stands behind the header.
DxfTags bodyOf(const Drawing& drawing, bool r12, double withinMm) {
  const double within = drawing.frame == Frame::Inches ? withinMm / kMmPerInch : withinMm;
  DxfTags tags = tagsFor(drawing);
  const std::vector<DxfLayer> layers = dxfLayersOf(drawing, r12);
  if (r12) {
    tablesOfR12(tags, layers);
    blocksOfR12(tags);
    addEntities(tags, drawing, layers, {true, 0, {}, within});
    return tags;
  }
  const DxfFrame frame(tags);
  frame.tables(tags, layers);
  frame.blocks(tags);
  addEntities(tags, drawing, layers, {false, frame.modelSpace, {}, within});
  frame.objects(tags);
  return tags;
}

}  // namespace

std::string dxfTextOf(const Drawing& drawing, job::DxfVersion version, const std::string& note, double withinMm) {
  const bool r12 = version == job::DxfVersion::R12;
  if (r12 && std::any_of(drawing.outlines.begin(), drawing.outlines.end(), holdsCubic))
    throw InputError("DXF R12 has no curves. Use arcs or lines, or DXF 2000.");
  const DxfTags body = bodyOf(drawing, r12, withinMm);
  DxfTags tags = tagsFor(drawing);
  if (!note.empty()) tags.text(999, inDxfLetters(onOneLine(note)));
  addHeader(tags, drawing, r12, body.seed());
  if (!r12) {
    beginSection(tags, "CLASSES");
    endSection(tags);
  }
  tags.add(body);
  tags.text(0, "EOF");
  return tags.all();
}

void writeDxf(const Drawing& drawing, const std::filesystem::path& file, job::DxfVersion version,
              const std::string& note, double withinMm) {
  const std::string text = dxfTextOf(drawing, version, note, withinMm);
  writeBeside(file, [&text](const std::filesystem::path& beside) {
    std::ofstream out(beside, std::ios::binary);
    if (!out) throw WriteError("the file cannot be opened for writing.");
    out << text;
    if (!out.flush()) throw WriteError("the drawing could not be written: the disk may be full.");
  });
}

}  // namespace rim::io::dxf
