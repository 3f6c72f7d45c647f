#include "core/io/dxf/read_dxf.h"

#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

#include <map>
#include <numbers>
#include <sstream>

#include "core/error.h"
#include "core/geometry/affine.h"
#include "core/geometry/arc.h"
#include "core/geometry/elliptic_arc.h"
#include "core/geometry/segment.h"
#include "core/geometry/spline.h"
#include "core/io/common/line_fault.h"
#include "core/io/dxf/dxf_blocks.h"
#include "core/io/dxf/dxf_groups.h"
#include "core/io/dxf/dxf_text.h"
#include "core/io/dxf/dxf_units.h"

namespace rim::io::dxf {
namespace {

using dxf::Block;
using dxf::Contents;
using dxf::LayerState;

constexpr double kRadians = std::numbers::pi / 180;

struct Direction {
  double x = 0, y = 0, z = 1;
};

/// What an entity is told with, kept until all of it is told.
struct Kept {
  std::string layer;
  bool onPaper = false;
  bool mirrored = false;
  bool tilted = false;
  int line = 0;
};
struct ReadVertex {
  Point place;
  double bulge = 0;
};
struct OpenPolyline : Kept {
  bool closed = false;
  bool mesh = false;
  std::vector<ReadVertex> vertices;
};
struct OpenSpline : Kept {
  Spline curve;
  bool closed = false;
  std::vector<Point> fits;
};

class Collector : public DL_CreationAdapter {
 public:
  Collector(Contents& contents, double tolerance) : contents_(contents), tolerance_(tolerance) {}

  void setVariableInt(const std::string& key, int value, int) override {
    if (key == "$INSUNITS") contents_.unitCode = value;
  }

  void addLayer(const DL_LayerData& data) override {
    constexpr int kFrozen = 1;
    LayerState state;
    state.look = layerOfColour(withDxfLetters(data.name), getAttributes().getColor(), getAttributes().getColor24());
    state.hidden = data.off || (data.flags & kFrozen) != 0 || getAttributes().getColor() < 0;
    contents_.layers[data.name] = state;
  }

  void addBlock(const DL_BlockData& data) override {
    finish();
    block_ = &contents_.blocks[data.name];
    *block_ = {{data.bpx, data.bpy}, {}, {}};
  }
  void endBlock() override {
    finish();
    block_ = &contents_.model;
  }

  void addLine(const DL_LineData& d) override { addPath({{d.x1, d.y1}, {Segment::line({d.x2, d.y2})}, false}, false); }

  void addArc(const DL_ArcData& d) override {
    if (!(d.radius > 0)) failAt(line(), "arc with radius 0");
    double sweep = std::fmod(d.angle2 - d.angle1, 360.0);
    if (sweep <= 0) sweep += 360;
    addEllipse({{d.cx, d.cy}, {d.radius, 0}, {0, d.radius}, d.angle1 * kRadians, sweep * kRadians}, true);
  }

  void addCircle(const DL_CircleData& d) override {
    if (!(d.radius > 0)) failAt(line(), "circle with radius 0");
    addEllipse({{d.cx, d.cy}, {d.radius, 0}, {0, d.radius}, 0, 2 * std::numbers::pi}, true);
  }

  void addEllipse(const DL_EllipseData& d) override {
    const Point major{d.mx, d.my};
    if (!(length(major) > 0) || !(d.ratio > 0)) failAt(line(), "ellipse without a size");
    double sweep = std::fmod(d.angle2 - d.angle1, 2 * std::numbers::pi);
    if (sweep <= 1e-12) sweep += 2 * std::numbers::pi;
    // An ellipse stands in world coordinates; its minor axis lies to the left of the major one as seen from the side
    // that the extrusion points to.
    const double side = mirrored() ? -d.ratio : d.ratio;
    addEllipse({{d.cx, d.cy}, major, leftNormal(major) * side, d.angle1, sweep}, false);
  }

  void addPolyline(const DL_PolylineData& d) override {
    constexpr int kMesh = 16 | 64;
    finish();
    polyline_.emplace();
    polyline_->closed = (d.flags & 1) != 0;
    polyline_->mesh = (d.flags & kMesh) != 0;
    polyline_->line = line();
    remember(*polyline_);
  }
  void addVertex(const DL_VertexData& d) override {
    if (polyline_) polyline_->vertices.push_back({{d.x, d.y}, d.bulge});
  }

  void addSpline(const DL_SplineData& d) override {
    finish();
    spline_.emplace();
    spline_->curve.degree = static_cast<int>(d.degree);
    spline_->closed = (d.flags & 1) != 0;
    spline_->line = line();
    remember(*spline_);
  }
  void addKnot(const DL_KnotData& d) override {
    if (spline_) spline_->curve.knots.push_back(d.k);
  }
  void addControlPoint(const DL_ControlPointData& d) override {
    if (!spline_) return;
    spline_->curve.controls.push_back({d.x, d.y});
    spline_->curve.weights.push_back(d.w);
  }
  void addFitPoint(const DL_FitPointData& d) override {
    if (spline_) spline_->fits.push_back({d.x, d.y});
  }
  void endEntity() override { finishSpline(); }  // a POLYLINE goes on after this with its vertices
  void endSequence() override { finish(); }

  void addInsert(const DL_InsertData& d) override {
    finish();
    if (onPaper()) return;
    constexpr int kMostCopies = 1'000'000;
    if (d.cols < 0 || d.rows < 0 || static_cast<double>(d.cols) * d.rows > kMostCopies) {
      failAt(line(), "block \"" + d.name + "\" repeated more than 1 000 000 times");
    }
    block_->inserts.push_back({d.name,
                               getAttributes().getLayer(),
                               {d.ipx, d.ipy},
                               d.sx,
                               d.sy,
                               d.angle,
                               d.cols,
                               d.rows,
                               d.colSp,
                               d.rowSp,
                               mirrored(),
                               line()});
  }

  /// Takes in what is still open; dxflib does not tell the end of every entity.
  void finish() {
    finishPolyline();
    finishSpline();
  }

 private:
  int line() { return std::max(0, getAttributes().getHandle()); }

  Direction extrusion() {
    const double* d = getExtrusion() ? getExtrusion()->getDirection() : nullptr;
    return d ? Direction{d[0], d[1], d[2]} : Direction{};
  }
  bool mirrored() { return extrusion().z < 0; }
  bool tilted() {
    const Direction e = extrusion();
    return std::abs(e.x) > 1e-6 * std::abs(e.z) || std::abs(e.y) > 1e-6 * std::abs(e.z);
  }
  bool onPaper() {
    if (!getAttributes().isInPaperSpace()) return false;
    ++contents_.onPaper;
    return true;
  }

  void remember(Kept& kept) {
    kept.layer = getAttributes().getLayer();
    kept.onPaper = getAttributes().isInPaperSpace();
    kept.mirrored = mirrored();
    kept.tilted = tilted();
  }

  /// Takes in a path of the entity that is being told; `inOwnPlane`: its numbers are turned over by a mirroring
  /// extrusion.
  void addPath(Path path, bool inOwnPlane) {
    finish();
    Kept kept;
    remember(kept);
    addPath(std::move(path), inOwnPlane, kept);
  }
  void addPath(Path path, bool inOwnPlane, const Kept& kept) {
    if (kept.onPaper) {
      ++contents_.onPaper;
    } else if (inOwnPlane && kept.tilted) {
      ++contents_.tilted;
    } else if (!path.segments.empty()) {
      // DXF reference, object coordinate system: an extrusion of (0, 0, -1) means x runs the other way.
      if (inOwnPlane && kept.mirrored) path = transformed(path, scale(-1, 1), tolerance_);
      block_->outlines.push_back({std::move(path), kept.layer});
    }
  }
  void addEllipse(const EllipticArc& arc, bool inOwnPlane) { addPath(pathOf(arc, tolerance_), inOwnPlane); }

  void finishPolyline() {
    if (!polyline_) return;
    OpenPolyline p = std::move(*polyline_);
    polyline_.reset();
    if (p.mesh) {
      ++contents_.leftOut["mesh"];
      return;
    }
    if (p.vertices.size() < 2) return;
    Path path{p.vertices.front().place, {}, p.closed};
    const std::size_t count = p.vertices.size();
    for (std::size_t i = 0; i + (p.closed ? 0 : 1) < count; ++i) {
      const Point to = p.vertices[(i + 1) % count].place;
      const double bulge = p.vertices[i].bulge;
      constexpr double kMostBulge = 1000;
      if (std::abs(bulge) > kMostBulge) failAt(p.line, "an arc that goes all the way round (bulge above 1000)");
      const Point from = segmentStart(path, path.segments.size());
      // The closing step of a polyline that ends where it began is nothing.
      if (i + 1 == count && to == from) break;
      path.segments.push_back(to == from ? Segment::line(to) : Segment::arc(to, bulge));
    }
    addPath(std::move(path), true, p);
  }

  void finishSpline() {
    if (!spline_) return;
    OpenSpline s = std::move(*spline_);
    spline_.reset();
    if (s.curve.controls.empty() && s.fits.size() >= 2) {
      addPath(throughPoints(s.fits, s.closed), false, s);
      return;
    }
    const bool even = std::all_of(s.curve.weights.begin(), s.curve.weights.end(),
                                  [&s](double w) { return w == s.curve.weights.front(); });
    if (even) s.curve.weights.clear();
    if (!isSound(s.curve)) failAt(s.line, "a spline whose knots, points and weights do not fit together");
    addPath(pathOf(s.curve, s.closed, tolerance_), false, s);
  }

  Contents& contents_;
  double tolerance_;
  Block* block_ = &contents_.model;
  std::optional<OpenPolyline> polyline_;
  std::optional<OpenSpline> spline_;
};

std::vector<std::string> notesOn(const Contents& contents, std::size_t hidden) {
  std::vector<std::string> notes;
  std::string kinds;
  for (const auto& [kind, count] : contents.leftOut) kinds += (kinds.empty() ? "" : ", ") + countOf(count, kind);
  if (!kinds.empty()) notes.push_back("Left out, as these are not outlines: " + kinds + ".");
  if (hidden > 0) notes.push_back("Left out, on layers that are off or frozen: " + countOf(hidden, "outlines") + ".");
  if (contents.onPaper > 0)
    notes.push_back("Left out, on the sheet (paper space): " + countOf(contents.onPaper, "entities") + ".");
  if (contents.tilted > 0)
    notes.push_back("Left out, tilted out of the drawing's plane: " + countOf(contents.tilted, "entities") + ".");
  return notes;
}

}  // namespace

ReadResult readDxf(std::string_view bytes, const ReadOptions& options) {
  CleanDxf clean = cleanDxf(dxfText(bytes), options.stop);
  Contents contents;
  contents.leftOut = std::move(clean.leftOut);
  std::istringstream stream(std::move(clean.text));
  Collector collector(contents, options.toleranceMm);
  DL_Dxf reader;
  if (options.stop.stop_requested()) throw Cancelled();
  if (!reader.in(stream, &collector)) throw InputError("this DXF cannot be read.");
  collector.finish();
  ReadResult result;
  const std::optional<double> own = mmPerDxfUnit(contents.unitCode);
  result.unitKnown = own.has_value() || options.mmPerUnit.has_value();
  result.mmPerUnit = options.mmPerUnit.value_or(own.value_or(1));
  const std::size_t hidden = dxf::unfold(contents, result.mmPerUnit, options.toleranceMm, result.drawing);
  mintIds(result.drawing);
  const Box box = boxOf(result.drawing);
  result.drawing.pageWidth = box.empty() ? 0 : std::max(0.0, box.high.x);
  result.drawing.pageHeight = box.empty() ? 0 : std::max(0.0, box.high.y);
  result.notes = notesOn(contents, hidden);
  return result;
}

}  // namespace rim::io::dxf
