#include "core/mend/repair/middle_lines.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "core/drawing/nested.h"
#include "core/geometry/flatten.h"
#include "core/geometry/point_in_polygon.h"

namespace rim::mend {
namespace {

constexpr double kChordPx = 0.005;
constexpr double kTolerancePx = 0.15;
/// An area whose border is longer than this at that size is no stroke that anybody would wait for.
constexpr double kLongestBorderPx = 400'000;
constexpr double kLeastWidths = 4;

/// About how wide a stroke of this area and border is: exactly for a long one.
double widthBy(const std::vector<const Path*>& rings) {
  double area = std::abs(signedArea(*rings.front()));
  double length = 0;
  for (const Path* ring : rings) length += pathLength(*ring);
  for (std::size_t i = 1; i < rings.size(); ++i) area -= std::abs(signedArea(*rings[i]));
  return length > 0 ? 2 * std::max(0.0, area) / length : 0;
}

/// The rings as borders of ink, so large: the area lies at their left.
std::vector<trace::contour::Border> bordersOf(const std::vector<const Path*>& rings, double scale) {
  std::vector<trace::contour::Border> borders;
  for (std::size_t i = 0; i < rings.size(); ++i) {
    trace::contour::Border border = flatten(scaled(*rings[i], scale), kChordPx);
    if ((trace::contour::borderArea(border) > 0) != (i == 0)) std::reverse(border.begin(), border.end());
    borders.push_back(std::move(border));
  }
  return borders;
}

/// Whether the ink fills the corners of the tip that a line runs on to, too.
bool isFlat(const trace::lines::FreeEnd& end, Point pen, const PointInPolygon& ink) {
  constexpr double kBehindTip = 0.1;
  constexpr double kNearSide = 0.85;
  const Point along = trace::fit::tangentAt(end.on.shape, trace::fit::project(end.on.shape, end.inkTip));
  const Point way = dot(along, end.inkTip - pen) < 0 ? -along : along;
  const Point behind = end.inkTip - way * (kBehindTip * end.width / 2);
  const Point side = leftNormal(way) * (kNearSide * end.width / 2);
  return ink.has(behind + side) && ink.has(behind - side);
}

/// Round ends stay where the pen's middle stopped: nothing runs on from them.
void keepRoundEnds(trace::lines::StrokeLine& line, const PointInPolygon& ink) {
  for (std::size_t end = 0; end < 2; ++end) {
    if (!line.freeEnds[end]) continue;
    const Point pen = end == 0 ? line.points.front() : line.points.back();
    if (!isFlat(*line.freeEnds[end], pen, ink)) line.freeEnds[end].reset();
  }
}

/// Whether a pen drew these lines: each as wide all along, and all together long enough.
bool areStrokes(const std::vector<trace::lines::Centreline>& lines, double widest) {
  constexpr double kLeastShare = 0.6;
  constexpr double kMostShare = 1.6;
  double length = 0;
  double width = 0;
  for (const trace::lines::Centreline& line : lines) {
    const StrokeWidth& w = line.width;
    if (w.least < kLeastShare * w.usual || w.most > kMostShare * w.usual || w.usual > widest) return false;
    length += pathLength(line.path);
    width = std::max(width, w.usual);
  }
  return width > 0 && length >= kLeastWidths * width;
}

}  // namespace

std::vector<trace::lines::Centreline> middlesOf(const std::vector<const Path*>& rings, double widest,
                                                const std::stop_token& stop) {
  const double width = widthBy(rings);
  if (!(width > 0) || width > widest) return {};
  const double scale = kStrokePx / width;
  double length = 0;
  for (const Path* ring : rings) length += pathLength(*ring) * scale;
  if (length > kLongestBorderPx) return {};
  const std::vector<trace::contour::Border> borders = bordersOf(rings, scale);
  const WorkControl control{stop, {}};
  constexpr double kAny = std::numeric_limits<double>::infinity();
  std::vector<trace::lines::StrokeNet> nets =
      trace::lines::withTracks(trace::lines::strokeNets(borders, control), kAny, control);
  for (const trace::lines::StrokeNet& net : nets) {
    const auto wide = [&](const trace::lines::StrokeTrack& track) { return track.discWidth > widest * scale; };
    if (net.dot || std::any_of(net.tracks.begin(), net.tracks.end(), wide)) return {};
  }
  std::vector<trace::lines::StrokeLine> lines = trace::lines::linesOf(std::move(nets), {});
  const PointInPolygon ink(polygonThrough(borders.front()));
  for (trace::lines::StrokeLine& line : lines) keepRoundEnds(line, ink);
  trace::outline::FitSettings fit;
  fit.tolerancePx = kTolerancePx;
  std::vector<trace::lines::Centreline> fitted =
      trace::lines::fitStrokes(std::move(lines), fit, trace::StrokeEnds::Ink, control);
  for (trace::lines::Centreline& line : fitted) {
    line.path = scaled(line.path, 1 / scale);
    line.width = scaled(line.width, 1 / scale);
  }
  return fitted;
}

std::vector<trace::lines::Centreline> middleLinesOf(const std::vector<const Path*>& rings, double widest,
                                                    const std::stop_token& stop) {
  std::vector<trace::lines::Centreline> lines = middlesOf(rings, widest, stop);
  return areStrokes(lines, widest) ? lines : std::vector<trace::lines::Centreline>{};
}

Repaired strokesToMiddles(const Drawing& drawing, double widest, const std::set<OutlineId>& without,
                          const std::stop_token& stop) {
  std::map<std::size_t, std::vector<trace::lines::Centreline>>
      became;  // of areas' outlines, and nothing of their holes
  std::size_t count = 0;
  for (const std::vector<std::size_t>& area : areasOf(drawing)) {
    if (without.count(drawing.outlines[area.front()].id) != 0) continue;
    std::vector<const Path*> rings;
    for (const std::size_t place : area) rings.push_back(&drawing.path(place));
    std::vector<trace::lines::Centreline> lines = middleLinesOf(rings, widest, stop);
    if (lines.empty()) continue;
    for (const std::size_t place : area) became[place];
    became[area.front()] = std::move(lines);
    ++count;
  }
  Drawing out = emptyLike(drawing);
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const auto lines = became.find(i);
    if (lines == became.end()) {
      out.outlines.push_back(drawing.outlines[i]);
      continue;
    }
    const std::size_t first = out.outlines.size();
    std::vector<Path> paths;
    for (const trace::lines::Centreline& line : lines->second) paths.push_back(line.path);
    addParts(out, drawing.outlines[i], std::move(paths));
    for (std::size_t k = 0; k < lines->second.size(); ++k) out.outlines[first + k].stroke = lines->second[k].width;
  }
  return {std::move(out), count};
}

}  // namespace rim::mend
