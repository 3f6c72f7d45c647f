#include "core/trace/lines/stroke_lines.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/trace/fit/moments.h"
#include "core/trace/lines/meetings.h"
#include "core/trace/lines/split_by_width.h"
#include "core/trace/lines/stroke_tip.h"

namespace rim {
namespace {

/// Branches with a smaller residual go (medialAxis()).
constexpr double kPruning = 2;

/// The way on from each end of each track, numbered 2 x track + end.
struct Links {
  std::vector<std::optional<std::size_t>> partner;
  std::vector<std::vector<Point>> more;
  std::vector<std::optional<FreeEnd>> freeEnd;
};

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

Links linksOf(StrokeNet& net) {
  const std::size_t ends = 2 * net.tracks.size();
  Links links{std::vector<std::optional<std::size_t>>(ends), std::vector<std::vector<Point>>(ends),
              std::vector<std::optional<FreeEnd>>(ends)};
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

/// Follows tracks from one to the next.
class Follower {
 public:
  Follower(const std::vector<StrokeTrack>& tracks, const Links& links) : tracks_(tracks), links_(links) {
    for (const StrokeTrack& track : tracks) done_.push_back(track.area);
  }

  std::vector<StrokeLine> all() {
    std::vector<StrokeLine> lines;
    for (std::size_t end = 0; end < 2 * tracks_.size(); ++end) {
      if (!done_[end / 2] && !tracks_[end / 2].closed && !links_.partner[end]) lines.push_back(from(end));
    }
    for (std::size_t t = 0; t < tracks_.size(); ++t) {
      if (!done_[t]) lines.push_back(from(2 * t));
    }
    return lines;
  }

 private:
  void addTrack(StrokeLine& line, std::size_t entered) const {
    const StrokeTrack& track = tracks_[entered / 2];
    if (entered % 2 == 0)
      line.points.insert(line.points.end(), track.points.begin(), track.points.end());
    else
      line.points.insert(line.points.end(), track.points.rbegin(), track.points.rend());
    line.widths.insert(line.widths.end(), track.widths.begin(), track.widths.end());
  }

  void addMore(StrokeLine& line, std::size_t number, bool outward) const {
    const std::vector<Point>& more = links_.more[number];
    if (outward)
      line.points.insert(line.points.end(), more.begin(), more.end());
    else
      line.points.insert(line.points.end(), more.rbegin(), more.rend());
  }

  StrokeLine from(std::size_t first) {
    StrokeLine line;
    std::size_t entered = first;
    if (tracks_[first / 2].closed) {
      done_[first / 2] = true;
      addTrack(line, first);
      line.closed = true;
      return line;
    }
    if (!links_.partner[first]) {
      addMore(line, first, false);
      line.freeEnds[0] = links_.freeEnd[first];
    }
    while (true) {
      done_[entered / 2] = true;
      addTrack(line, entered);
      const std::size_t left = entered ^ 1U;
      addMore(line, left, true);
      if (!links_.partner[left]) {
        line.freeEnds[1] = links_.freeEnd[left];
        return line;
      }
      const std::size_t next = *links_.partner[left];
      addMore(line, next, false);
      if (next == first || done_[next / 2]) {
        line.closed = true;
        return line;
      }
      entered = next;
    }
  }

  const std::vector<StrokeTrack>& tracks_;
  const Links& links_;
  std::vector<bool> done_;
};

/// The line of ink that is hardly longer than wide: along its longest way, with round tips, as long as its area says.
StrokeLine dot(const Border& ring) {
  const Moments m = momentsOf(ring);
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
  const double root = extent * extent - 4 * k * std::abs(borderArea(ring));
  const double width = (extent - std::sqrt(std::max(0.0, root))) / (2 * k);
  const double half = std::max(kShortestLinePx, extent - width) / 2;
  const Point middle = m.mean + along * ((low + high) / 2);
  StrokeLine line{{middle - along * half, middle + along * half}, false, {std::min(width, extent)}, {}};
  for (std::size_t end = 0; end < 2; ++end) {
    const Point out = along * (end == 0 ? -1.0 : 1.0);
    const Point at = line.points[end];
    line.freeEnds[end] = FreeEnd{{{Primitive::Kind::Line, at, out, 0}, at, out}, middle + out * (extent / 2), width};
  }
  return line;
}

}  // namespace

StrokeNet strokeNet(const std::vector<const Border*>& rings) {
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

std::vector<StrokeLine> linesOf(StrokeNet net) {
  if (net.dot) return net.dotIsArea ? std::vector<StrokeLine>{} : std::vector{*net.dot};
  const Links links = linksOf(net);
  return Follower(net.tracks, links).all();
}

}  // namespace rim
