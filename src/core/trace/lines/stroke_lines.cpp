#include "core/trace/lines/stroke_lines.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/trace/fit/moments.h"
#include "core/trace/lines/close_rings.h"
#include "core/trace/lines/end_to_end.h"
#include "core/trace/lines/follow_tracks.h"
#include "core/trace/lines/meetings.h"
#include "core/trace/lines/pen_lines.h"
#include "core/trace/lines/split_by_width.h"
#include "core/trace/lines/stroke_tip.h"
#include "core/trace/lines/switch_parts.h"

namespace rim::trace::lines {
namespace {

/// Branches with a smaller residual go (medialAxis()).
constexpr double kPruning = 2;

std::size_t endNumber(const Arm& arm) { return 2 * arm.track + arm.end; }

/// The arms of each junction that are lines, and whether any is an area.
struct JunctionArms {
  std::vector<Arm> arms;
  bool atArea = false;
};

std::vector<JunctionArms> armsAt(const StrokeNet& net) {
  std::vector<JunctionArms> all(net.graph.junctions.size());
  for (std::size_t t = 0; t < net.tracks.size(); ++t) {
    const StrokeTrack& track = net.tracks[t];
    const bool wide = track.area;
    for (std::size_t end = 0; end < 2; ++end) {
      const std::size_t junction = track.ends[end].junction;
      if (track.closed || junction == ChainEnd::kFree) continue;
      all[junction].atArea = all[junction].atArea || wide;
      if (!wide) all[junction].arms.push_back({t, end, continuationAt(track, end), track.width});
    }
  }
  return all;
}

TrackLinks linksOf(StrokeNet& net) {
  TrackLinks links(net.tracks.size());
  const std::vector<JunctionArms> junctions = armsAt(net);
  for (std::size_t t = 0; t < net.tracks.size(); ++t) {
    if (net.tracks[t].closed) continue;
    for (std::size_t end = 0; end < 2; ++end) {
      if (net.tracks[t].ends[end].junction == ChainEnd::kFree)
        links.freeEnd[2 * t + end] = endAtPen(net.axis, net.graph.chains[t], net.tracks[t], end);
    }
  }
  for (std::size_t j = 0; j < junctions.size(); ++j) {
    const std::vector<Arm>& arms = junctions[j].arms;
    if (junctions[j].atArea) {
      for (const Arm& arm : arms) links.freeEnd[endNumber(arm)] = FreeEnd{arm.on, arm.on.tip, arm.width, true};
      continue;
    }
    std::vector<ArmEnd> met = meet(net.axis, arms, net.graph.junctions[j]);
    for (std::size_t a = 0; a < met.size(); ++a) {
      const std::size_t number = endNumber(arms[a]);
      if (met[a].partner) links.partner[number] = endNumber(arms[*met[a].partner]);
      if (met[a].stop) cutTrackAt(net.tracks[arms[a].track], arms[a].end, *met[a].stop, arms[a].on.direction);
      links.more[number] = std::move(met[a].more);
    }
  }
  return links;
}

/// The lines that the tracks make; cuts them back where they meet.
std::vector<StrokeLine> linesOfTracks(StrokeNet& net) {
  const TrackLinks links = linksOf(net);
  return endToEnd(followed(net.tracks, links));
}

/// The line of ink that is hardly longer than wide: along its longest way, with round tips, as long as its area says.
StrokeLine dot(const contour::Border& ring) {
  const fit::Moments m = fit::momentsOf(ring);
  const double angle = 0.5 * std::atan2(2 * m.xy, m.xx - m.yy);
  const Point along{std::cos(angle), std::sin(angle)};
  double low = 0;
  double high = 0;
  for (const Point p : ring) {
    low = std::min(low, rim::dot(p - m.mean, along));
    high = std::max(high, rim::dot(p - m.mean, along));
  }
  // A stroke of width w and length l with round tips has the area w l + pi w^2 / 4 and is l + w long.
  const double extent = high - low;
  const double k = 1 - std::numbers::pi / 4;
  const double root = extent * extent - 4 * k * std::abs(contour::borderArea(ring));
  const double width = (extent - std::sqrt(std::max(0.0, root))) / (2 * k);
  const double half = std::max(kShortestLinePx, extent - width) / 2;
  const Point middle = m.mean + along * ((low + high) / 2);
  StrokeLine line{{middle - along * half, middle + along * half}, false, {std::min(width, extent)}, {}};
  for (std::size_t end = 0; end < 2; ++end) {
    const Point out = along * (end == 0 ? -1.0 : 1.0);
    const Point at = line.points[end];
    line.freeEnds[end] =
        FreeEnd{{{fit::Primitive::Kind::Line, at, out, 0}, at, out}, middle + out * (extent / 2), width};
  }
  return line;
}

/// The lines as a pen of this width would have drawn them, where that is truer.
Description orByPen(Description lines, const MedialAxis& axis, double width) {
  return truerOf(std::move(lines), described(axis, endToEnd(penLines(axis, width)), width));
}

/// What pens may have drawn a net's lines: one of its own width, and that of the whole drawing.
std::vector<double> pensOf(std::optional<double> own, std::optional<double> penPx) {
  constexpr double kSamePen = 0.08;
  const bool same = own && penPx && std::abs(*own / *penPx - 1) < kSamePen;
  std::vector<double> pens;
  if (own && !same) pens.push_back(*own);
  if (penPx) pens.push_back(*penPx);
  return pens;
}

}  // namespace

StrokeNet strokeNet(const std::vector<const contour::Border*>& rings) {
  StrokeNet net;
  net.axis = medialAxis(rings, kPruning);
  net.graph = strokeChains(net.axis);
  if (net.graph.chains.empty()) net.dot = dot(*rings.front());
  return net;
}

StrokeNet withTracks(StrokeNet net, double limitPx) {
  if (std::isfinite(limitPx)) net.graph = splitByWidth(std::move(net.graph), limitPx);
  for (const StrokeChain& chain : net.graph.chains) {
    net.tracks.push_back(trackOf(net.axis, chain));
    net.tracks.back().area = net.tracks.back().discWidth > limitPx;
  }
  if (net.dot) net.dotIsArea = net.dot->widths.front() > limitPx;
  return net;
}

std::vector<StrokeLine> linesOf(StrokeNet net, std::optional<double> penPx) {
  if (net.dot && net.dotIsArea) return {};
  std::vector<StrokeLine> lines = net.dot ? std::vector{*net.dot} : linesOfTracks(net);
  if (hasArea(net)) return lines;
  const std::vector<double> pens = pensOf(net.dot ? std::nullopt : penWidthOf(net), penPx);
  if (pens.empty()) return lines;
  Description best = described(net.axis, std::move(lines), pens.front());
  for (const double pen : pens) best = orByPen(std::move(best), net.axis, pen);
  // Where strokes lie side by side most of what is measured may be wider than the pen, and a pen that is too wide shows
  // nothing of its way. Among many strokes such places count for nothing.
  constexpr double kPoor = 0.004;
  constexpr double kThinner = 0.95;
  constexpr std::size_t kMany = 20'000;
  if (penPx && net.axis.samples.size() <= kMany && best.misfitPx >= kPoor * pens.back())
    best = orByPen(std::move(best), net.axis, kThinner * pens.back());
  return withRingsClosed(std::move(best.lines), pens.back());
}

}  // namespace rim::trace::lines
