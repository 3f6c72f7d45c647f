#include "core/io/receipt.h"

#include <algorithm>
#include <cmath>
#include <fstream>
#include <limits>
#include <map>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/geometry/nearest_on_paths.h"
#include "core/geometry/nesting.h"
#include "core/geometry/segment.h"
#include "core/io/arrange.h"
#include "core/io/dxf/dxf_layers.h"
#include "core/io/export.h"
#include "core/io/read_drawing.h"
#include "core/mend/find/inspect.h"

namespace rim::io {
namespace {

/// The version of a DXF, or that it is an SVG.
std::string formatOf(const std::filesystem::path& file) {
  if (drawingKindOf(file) == FileKind::Svg) return "SVG";
  std::ifstream in(file, std::ios::binary);
  std::string head(8000, '\0');
  in.read(head.data(), static_cast<std::streamsize>(head.size()));
  for (const auto& [code, name] :
       {std::pair("AC1009", "DXF R12"), std::pair("AC1015", "DXF 2000"), std::pair("AC1018", "DXF 2004"),
        std::pair("AC1021", "DXF 2007"), std::pair("AC1024", "DXF 2010"), std::pair("AC1027", "DXF 2013"),
        std::pair("AC1032", "DXF 2018")}) {
    if (head.find(code) != std::string::npos) return name;
  }
  return "DXF";
}

std::string unitOf(const ReadResult& read) {
  if (!read.unitKnown) return "none";
  for (const auto& [mm, name] : {std::pair(1.0, "mm"), std::pair(kMmPerInch, "in"), std::pair(10.0, "cm"),
                                 std::pair(1000.0, "m"), std::pair(304.8, "ft")}) {
    if (std::abs(read.mmPerUnit - mm) < 1e-9) return name;
  }
  return read.drawing.frame == Frame::Millimetres ? "mm" : "other";
}

/// Calls `visit` with places along a segment, from its start to its end.
template <class Visit>
void eachPlace(const Piece& piece, double stepMm, const Visit& visit) {
  constexpr double kMostSteps = 200;
  const auto steps = static_cast<int>(std::clamp(std::ceil(lengthOf(piece) / stepMm), 2.0, kMostSteps));
  for (int k = 0; k <= steps; ++k) visit(static_cast<double>(k) / steps);
}

/// How far two outlines of the same segments lie from each other at most, place for place, which is no less than their
/// distance; infinite when they are made of others.
double apart(const Path& a, const Path& b, double stepMm) {
  double most = std::numeric_limits<double>::infinity();
  if (a.closed != b.closed || a.segments.size() != b.segments.size()) return most;
  most = distance(a.start, b.start);
  for (std::size_t i = 0; i < a.segments.size(); ++i) {
    if (a.segments[i].kind != b.segments[i].kind) return std::numeric_limits<double>::infinity();
    const Piece p = pieceOf(a, i);
    const Piece q = pieceOf(b, i);
    eachPlace(p, stepMm, [&](double t) { most = std::max(most, distance(pointAt(p, t), pointAt(q, t))); });
  }
  return most;
}

/// The largest distance of the places of some outlines from another drawing.
double farthest(const std::vector<std::size_t>& which, const Drawing& from, const Drawing& to, double stepMm) {
  if (which.empty()) return 0;
  const NearestOnPaths paths(pathsOf(to));
  double most = 0;
  for (const std::size_t o : which) {
    for (std::size_t i = 0; i < from.path(o).segments.size(); ++i) {
      const Piece piece = pieceOf(from.path(o), i);
      eachPlace(piece, stepMm, [&](double t) { most = std::max(most, paths.distanceTo(pointAt(piece, t))); });
    }
  }
  return most;
}

std::string counted(std::size_t count, const std::string& one, const std::string& many) {
  return std::to_string(count) + " " + (count == 1 ? one : many);
}

std::map<std::string, std::size_t> layersOfNames(const Drawing& drawing) {
  std::map<std::string, std::size_t> names;
  for (const Outline& outline : drawing.outlines)
    ++names[drawing.layers.empty() ? std::string() : drawing.layers[outline.layer].name];
  return names;
}

/// What of another drawing the file does not have like that.
void compare(const Drawing& read, const Drawing& meant, Receipt& receipt) {
  const Counts is = receipt.counts;
  const Counts was = countsOf(pathsOf(meant));
  auto& remarks = receipt.remarks;
  if (is.outlines < was.outlines)
    remarks.push_back(counted(was.outlines - is.outlines, "outline is", "outlines are") + " missing.");
  if (is.outlines > was.outlines)
    remarks.push_back(counted(is.outlines - was.outlines, "outline", "outlines") + " more than there should be.");
  if (is.open > was.open)
    remarks.push_back(counted(is.open - was.open, "outline is", "outlines are") + " open that should be closed.");
  const Box meantBox = boxOf(meant);
  constexpr double kSameShare = 1e-4;
  const double size = distance(meantBox.low, meantBox.high);
  const double now = distance(receipt.boxMm.low, receipt.boxMm.high);
  if (!meantBox.empty() && size > 0 && std::abs(now / size - 1) > kSameShare)
    remarks.push_back("The scale differs: the file is " + std::to_string(now / size) + " times as large.");
  const auto there = layersOfNames(read);
  const bool isDxf = receipt.format.starts_with("DXF");
  const auto names = dxf::dxfLayersOf(meant, receipt.format == "DXF R12");  // what the format can hold of them
  for (std::size_t i = 0; i < meant.layers.size(); ++i) {
    const std::string& name = isDxf ? names[i].name : meant.layers[i].name;
    const bool used = std::any_of(meant.outlines.begin(), meant.outlines.end(),
                                  [i](const Outline& outline) { return outline.layer == i; });
    if (used && there.count(name) == 0) remarks.push_back("The layer \"" + name + "\" is missing.");
  }
  constexpr double kSteps = 400;
  receipt.deviationMm = deviationBetween(read, meant, std::max(0.05, size / kSteps));
  constexpr double kMostMm = 0.02;
  if (*receipt.deviationMm > kMostMm)
    remarks.push_back("It lies up to " + mend::sizeText(*receipt.deviationMm) + " from what it should be.");
}

/// How often lines of a pen cross each other in a drawing, as the pen did.
std::size_t meantCrossings(const Drawing& meant, const std::stop_token& stop) {
  const auto crossingsOf = [&stop](const Drawing& drawing) {
    const std::vector<mend::Finding> found = mend::inspectTracks(drawing, {}, stop);
    return static_cast<std::size_t>(std::count_if(found.begin(), found.end(), mend::isCrossing));
  };
  return crossingsOf(withoutStrokes(meant)) - crossingsOf(meant);
}

nlohmann::ordered_json placeJson(Point p) { return {p.x, p.y}; }

}  // namespace

double deviationBetween(const Drawing& a, const Drawing& b, double stepMm) {
  if (a.outlines.empty() != b.outlines.empty()) return std::numeric_limits<double>::infinity();
  if (a.outlines.empty()) return 0;
  // What is the same but for its last digits need not be looked for.
  constexpr double kSameMm = 1e-5;
  double most = 0;
  std::vector<std::size_t> ofA;
  std::vector<std::size_t> ofB;
  for (std::size_t i = 0; i < std::max(a.outlines.size(), b.outlines.size()); ++i) {
    const bool both = i < a.outlines.size() && i < b.outlines.size();
    const double here = both ? apart(a.path(i), b.path(i), stepMm) : std::numeric_limits<double>::infinity();
    if (here <= kSameMm) {
      most = std::max(most, here);
      continue;
    }
    if (i < a.outlines.size()) ofA.push_back(i);
    if (i < b.outlines.size()) ofB.push_back(i);
  }
  return std::max({most, farthest(ofA, a, b, stepMm), farthest(ofB, b, a, stepMm)});
}

Receipt receiptOf(const std::filesystem::path& file, const Drawing* against, const std::stop_token& stop) {
  ReadOptions options;
  options.stop = stop;
  const ReadResult read = readDrawing(file, options);
  const Drawing& drawing = read.drawing;
  Receipt receipt;
  receipt.file = file.filename().string();
  receipt.format = formatOf(file);
  receipt.unit = unitOf(read);
  receipt.counts = countsOf(pathsOf(drawing));
  receipt.boxMm = boxOf(drawing);
  for (const auto& [name, count] : layersOfNames(drawing)) receipt.layers.push_back({name, count});
  for (const mend::Finding& f : mend::inspectTracks(drawing, {}, stop)) {
    receipt.crossing += mend::isCrossing(f) ? 1 : 0;
    receipt.doubled += f.kind == mend::FindingKind::DoubleLine && !f.repair.empty() ? 1 : 0;
  }
  const Nesting nesting = nestingOf(pathsOf(drawing));
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i)
    receipt.freePieces += drawing.path(i).closed && nesting.depth[i] >= 2 && nesting.depth[i] % 2 == 0 ? 1 : 0;
  // Each layer is cut from a sheet of its own, so that the common borders of inks are no gaps.
  for (const auto& [name, sheet] : byLayer(drawing)) {
    const refine::ThinPlaces thin = refine::thinPlaces(sheet, stop);
    if (thin.web && (!receipt.thin.web || thin.web->mm < receipt.thin.web->mm)) receipt.thin.web = thin.web;
    if (thin.gap && (!receipt.thin.gap || thin.gap->mm < receipt.thin.gap->mm)) receipt.thin.gap = thin.gap;
  }
  auto& remarks = receipt.remarks;
  if (drawing.outlines.empty()) remarks.push_back("There are no outlines in it.");
  if (!read.unitKnown)
    remarks.push_back("The file names no unit; " +
                      std::string(receipt.format == "SVG" ? "96 px an inch" : "millimetres") + " were taken.");
  const bool openIsMeant = against != nullptr && countsOf(pathsOf(*against)).open >= receipt.counts.open;
  if (receipt.counts.open > 0 && !openIsMeant)
    remarks.push_back(counted(receipt.counts.open, "outline is", "outlines are") + " open.");
  if (!read.joined.empty())
    remarks.push_back(counted(read.joined.size(), "outline lies", "outlines lie") + " there in pieces.");
  if (receipt.doubled > 0) remarks.push_back(counted(receipt.doubled, "line is", "lines are") + " drawn twice.");
  const std::size_t meant = against == nullptr || receipt.crossing == 0 ? 0 : meantCrossings(*against, stop);
  if (receipt.crossing > meant)
    remarks.push_back("Outlines cross in " + counted(receipt.crossing, "place.", "places."));
  if (against != nullptr) compare(drawing, *against, receipt);
  receipt.clean = remarks.empty();
  return receipt;
}

std::string receiptJson(const Receipt& r) {
  nlohmann::ordered_json json;
  json["file"] = r.file;
  json["format"] = r.format;
  json["unit"] = r.unit;
  json["outlines"] = r.counts.outlines;
  json["closed"] = r.counts.closed;
  json["open"] = r.counts.open;
  json["doubled"] = r.doubled;
  json["crossing"] = r.crossing;
  json["nodes"] = r.counts.nodes;
  json["lines"] = r.counts.lines;
  json["arcs"] = r.counts.arcs;
  json["curves"] = r.counts.curves;
  json["box_mm"] = r.boxMm.empty()
                       ? nlohmann::ordered_json(nullptr)
                       : nlohmann::ordered_json{r.boxMm.low.x, r.boxMm.low.y, r.boxMm.high.x, r.boxMm.high.y};
  json["layers"] = nlohmann::ordered_json::array();
  for (const auto& layer : r.layers) json["layers"].push_back({{"name", layer.name}, {"outlines", layer.outlines}});
  // JSON knows no infinity: a drawing that is all missing has no distance.
  json["deviation_mm"] = r.deviationMm && std::isfinite(*r.deviationMm) ? nlohmann::ordered_json(*r.deviationMm)
                                                                        : nlohmann::ordered_json(nullptr);
  json["free_pieces"] = r.freePieces;
  const auto thin = [&json](const std::string& name, const std::optional<refine::Across>& across) {
    json[name + "_mm"] = across ? nlohmann::ordered_json(across->mm) : nlohmann::ordered_json(nullptr);
    json[name + "_at"] = across ? placeJson(across->at) : nlohmann::ordered_json(nullptr);
  };
  thin("smallest_gap", r.thin.gap);
  thin("thinnest_web", r.thin.web);
  json["clean"] = r.clean;
  json["remarks"] = r.remarks;
  return json.dump(2, ' ', false, nlohmann::json::error_handler_t::replace) + "\n";
}

std::string receiptText(const Receipt& r) {
  std::string text = r.file + ", " + r.format + ", unit " + r.unit + "\n";
  text += counted(r.counts.outlines, "outline", "outlines") + ": " + std::to_string(r.counts.closed) + " closed, " +
          std::to_string(r.counts.open) + " open; " + std::to_string(r.doubled) + " doubled, " +
          std::to_string(r.crossing) + " crossing\n";
  text += std::to_string(r.counts.nodes) + " nodes: " + std::to_string(r.counts.lines) + " lines, " +
          std::to_string(r.counts.arcs) + " arcs, " + std::to_string(r.counts.curves) + " curves\n";
  text += "size " + mend::sizeText(r.boxMm.width()) + " x " + mend::sizeText(r.boxMm.height()) + " (" +
          mend::sizeText(r.boxMm.width(), Unit::Inch) + " x " + mend::sizeText(r.boxMm.height(), Unit::Inch) + ")\n";
  if (r.deviationMm) text += "at most " + mend::sizeText(*r.deviationMm) + " from what was meant\n";
  text += counted(r.freePieces, "piece falls", "pieces fall") + " out of the sheet\n";
  if (r.thin.web) text += "thinnest web " + mend::sizeText(r.thin.web->mm) + "\n";
  if (r.thin.gap) text += "smallest gap " + mend::sizeText(r.thin.gap->mm) + "\n";
  for (const std::string& remark : r.remarks) text += "! " + remark + "\n";
  return text + (r.clean ? "clean\n" : "not clean\n");
}

}  // namespace rim::io
