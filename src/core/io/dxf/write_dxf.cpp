#include "core/io/dxf/write_dxf.h"

#include <dxflib/dl_dxf.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <fstream>
#include <memory>

#include "core/error.h"
#include "core/geometry/arc.h"
#include "core/geometry/circle.h"
#include "core/io/common/safe_file.h"
#include "core/io/dxf/dxf_layers.h"
#include "core/io/dxf/dxf_text.h"

namespace rim {
namespace {

constexpr int kInches = 1;        // $INSUNITS
constexpr int kMillimetres = 4;   // $INSUNITS
constexpr int kClosed = 1;        // polyline and spline flag
constexpr int kPlanarSpline = 8;  // spline flag
constexpr int kDegree = 3;

bool holdsCubic(const Path& path) {
  return std::any_of(path.segments.begin(), path.segments.end(),
                     [](const Segment& s) { return s.kind == SegmentKind::Cubic; });
}

/// A line break would end the comment and spoil the file.
std::string onOneLine(std::string text) {
  std::replace_if(
      text.begin(), text.end(), [](unsigned char c) { return c < 0x20; }, ' ');
  return text;
}

/// The library's writer, which brings the file to the disk after every number, without that: the numbers stay the same.
class QuickWriter : public DL_WriterA {
 public:
  using DL_WriterA::DL_WriterA;
  void dxfReal(int code, double value) const override {
    constexpr int kDecimals = 16;
    std::array<char, 400> digits{};
    char* end =
        std::to_chars(digits.data(), digits.data() + digits.size() - 1, value, std::chars_format::fixed, kDecimals).ptr;
    while (end[-1] == '0' && end[-2] != '.') --end;
    *end = '\0';
    dxfString(code, digits.data());
  }
};

class Writer {
 public:
  Writer(const std::string& file, DxfVersion version)
      : r12_(version == DxfVersion::R12),
        version_(r12_ ? DL_Codes::AC1009 : DL_Codes::AC1015),
        out_(std::make_unique<QuickWriter>(file.c_str(), version_)) {
    if (out_->openFailed()) throw WriteError("the file cannot be opened for writing.");
    // The library learns the version only when it opens a file itself.
    const std::unique_ptr<DL_WriterA> nowhere(dxf_.out("/dev/null", version_));
  }

  void write(const Drawing& drawing, const std::string& note) {
    if (!note.empty()) out_->comment(onOneLine(note).c_str());
    layers_ = dxfLayersOf(drawing, r12_);
    header(drawing);
    tables();
    if (!r12_) blocks();
    out_->sectionEntities();
    for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
      const Path& path = drawing.path(i);
      const std::string& layer = layers_[drawing.layers.empty() ? 0 : drawing.outlines[i].layer].name;
      if (const auto circle = circleOf(path)) {
        dxf_.writeCircle(*out_, DL_CircleData(circle->centre.x, circle->centre.y, 0.0, circle->radius), on(layer));
      } else if (holdsCubic(path)) {
        spline(path, layer);
      } else {
        polyline(path, layer);
      }
    }
    out_->sectionEnd();
    if (!r12_) {
      dxf_.writeObjects(*out_);
      dxf_.writeObjectsEnd(*out_);
    }
    out_->dxfEOF();
    out_->close();
  }

 private:
  void point(const char* name, Point p) {
    out_->dxfString(9, name);
    out_->dxfReal(10, p.x);
    out_->dxfReal(20, p.y);
    out_->dxfReal(30, 0.0);
  }

  void integer(const char* name, int value) {
    out_->dxfString(9, name);
    out_->dxfInt(70, value);
  }

  void header(const Drawing& drawing) {
    dxf_.writeHeader(*out_);
    const Box box = boxOf(pathsOf(drawing));
    integer("$INSUNITS", drawing.frame == Frame::Inches ? kInches : kMillimetres);
    integer("$MEASUREMENT", drawing.frame == Frame::Inches ? 0 : 1);
    point("$EXTMIN", box.empty() ? Point{} : box.low);
    point("$EXTMAX", box.empty() ? Point{drawing.pageWidth, drawing.pageHeight} : box.high);
    out_->sectionEnd();
  }

  void tables() {
    out_->sectionTables();
    if (!r12_) dxf_.writeVPort(*out_);
    out_->tableLinetypes(3);
    for (const char* name : {"BYBLOCK", "BYLAYER", "CONTINUOUS"}) {
      dxf_.writeLinetype(*out_, DL_LinetypeData(name, name, 0, 0, 0.0));
    }
    out_->tableEnd();
    constexpr int kBlack = 7;
    out_->tableLayers(static_cast<int>(layers_.size()) + 1);
    dxf_.writeLayer(*out_, DL_LayerData("0", 0), DL_Attributes("", kBlack, -1, "CONTINUOUS", 1.0));
    for (const DxfLayer& layer : layers_) {
      dxf_.writeLayer(*out_, DL_LayerData(inDxfLetters(layer.name), 0),
                      DL_Attributes("", layer.colour, layer.trueColour, -1, "CONTINUOUS"));
    }
    out_->tableEnd();
    if (!r12_) namedTables();
    out_->sectionEnd();
  }

  /// Tables that DXF 2000 asks for even when nothing in the drawing needs them.
  void namedTables() {
    out_->tableStyle(1);
    dxf_.writeStyle(*out_, DL_StyleData("Standard", 0, 2.5, 1.0, 0.0, 0, 2.5, "txt", ""));
    out_->tableEnd();
    dxf_.writeView(*out_);
    dxf_.writeUcs(*out_);
    out_->tableAppid(1);
    dxf_.writeAppid(*out_, "ACAD");
    out_->tableEnd();
    dxf_.writeDimStyle(*out_, 2.5, 1.25, 0.625, 0.625, 2.5);
    dxf_.writeBlockRecord(*out_);
    out_->tableEnd();
  }

  void blocks() {
    out_->sectionBlocks();
    for (const char* name : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
      dxf_.writeBlock(*out_, DL_BlockData(name, 0, 0.0, 0.0, 0.0));
      dxf_.writeEndBlock(*out_, name);
    }
    out_->sectionEnd();
  }

  static DL_Attributes on(const std::string& layer) { return {inDxfLetters(layer), 256, -1, "BYLAYER", 1.0}; }

  void polyline(const Path& path, const std::string& layer) {
    const auto count = static_cast<int>(nodeCount(path));
    dxf_.writePolyline(*out_, DL_PolylineData(count, 0, 0, path.closed ? kClosed : 0), on(layer));
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      vertex(segmentStart(path, i), path.segments[i].kind == SegmentKind::Arc ? path.segments[i].bulge : 0.0);
    }
    if (!path.closed) vertex(path.segments.empty() ? path.start : path.segments.back().end, 0);
    dxf_.writePolylineEnd(*out_);
  }

  void vertex(Point p, double bulge) { dxf_.writeVertex(*out_, DL_VertexData(p.x, p.y, 0.0, bulge)); }

  /// All segments as one B-spline: knots of multiplicity 3 keep every node a node.
  void spline(const Path& path, const std::string& layer) {
    const std::vector<Point> control = controlPoints(path);
    const auto pieces = (control.size() - 1) / kDegree;
    const auto knots = 3 * (pieces + 1) + 2;
    const int flags = (path.closed ? kClosed : 0) | kPlanarSpline;
    dxf_.writeSpline(*out_, DL_SplineData(kDegree, static_cast<int>(knots), static_cast<int>(control.size()), 0, flags),
                     on(layer));
    for (std::size_t i = 0; i < knots; ++i) {
      const std::size_t piece = i == 0 ? 0 : std::min((i - 1) / 3, pieces);
      dxf_.writeKnot(*out_, DL_KnotData(static_cast<double>(piece)));
    }
    for (const Point p : control) dxf_.writeControlPoint(*out_, DL_ControlPointData(p.x, p.y, 0.0, 1.0));
  }

  static std::vector<Point> controlPoints(const Path& path) {
    std::vector<Point> control{path.start};
    Point from = path.start;
    for (const Segment& s : path.segments) {
      if (s.kind == SegmentKind::Arc) {
        constexpr double kArcErrorMm = 1e-3;
        for (const Segment& c : cubicsFromArc(from, s, kArcErrorMm))
          control.insert(control.end(), {c.handle1, c.handle2, c.end});
      } else if (s.kind == SegmentKind::Cubic) {
        control.insert(control.end(), {s.handle1, s.handle2, s.end});
      } else {
        control.insert(control.end(), {lerp(from, s.end, 1.0 / 3), lerp(from, s.end, 2.0 / 3), s.end});
      }
      from = s.end;
    }
    return control;
  }

  bool r12_;
  DL_Codes::version version_;
  std::vector<DxfLayer> layers_;
  DL_Dxf dxf_;
  std::unique_ptr<QuickWriter> out_;
};

/// The library does not report a full disk; a file that ends as it should is complete.
void expectComplete(const std::filesystem::path& file) {
  std::ifstream in(file, std::ios::binary | std::ios::ate);
  std::string tail(4, ' ');
  if (in && in.tellg() > 4) {
    in.seekg(-4, std::ios::end);
    in.read(tail.data(), 4);
  }
  if (tail != "EOF\n") throw WriteError("the drawing could not be written: the disk may be full.");
}

}  // namespace

void writeDxf(const Drawing& drawing, const std::filesystem::path& file, DxfVersion version, const std::string& note) {
  if (version == DxfVersion::R12 && std::any_of(drawing.outlines.begin(), drawing.outlines.end(),
                                                [](const Outline& o) { return holdsCubic(o.path()); })) {
    throw InputError("DXF R12 has no curves. Use arcs or lines, or DXF 2000.");
  }
  writeBeside(file, [&drawing, version, &note](const std::filesystem::path& beside) {
    Writer(beside.string(), version).write(drawing, note);
    expectComplete(beside);
  });
}

}  // namespace rim
