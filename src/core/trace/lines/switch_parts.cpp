#include "core/trace/lines/switch_parts.h"

#include <algorithm>
#include <limits>

namespace rim::trace::lines {
namespace {

/// A part of a net: one of its tracks, or its dot.
struct Part {
  StrokeNet* net = nullptr;
  std::size_t track = 0;
  double off = std::numeric_limits<double>::infinity();  ///< px beside its ink; negative within
  double width = 0;                                      ///< px
};

double offOf(const std::vector<Point>& points, double width, Point place) {
  double least = std::numeric_limits<double>::infinity();
  for (const Point p : points) least = std::min(least, distance(p, place));
  return least - width / 2;
}

Part nearestTo(std::vector<StrokeNet>& nets, Point place) {
  Part nearest;
  const auto consider = [&nearest](Part part) {
    if (part.off < nearest.off) nearest = part;
  };
  for (StrokeNet& net : nets) {
    if (net.dot) {
      const double width = net.dot->widths.front();
      consider({&net, 0, offOf(net.dot->points, width, place), width});
    }
    for (std::size_t t = 0; t < net.tracks.size(); ++t) {
      const double width = net.tracks[t].discWidth;
      consider({&net, t, offOf(net.tracks[t].points, width, place), width});
    }
  }
  return nearest;
}

void become(StrokeTrack& track, bool area) {
  track.switched = track.switched != (track.area != area);
  track.area = area;
}

void becomeDot(StrokeNet& net, bool area) {
  net.dotIsSwitched = net.dotIsSwitched != (net.dotIsArea != area);
  net.dotIsArea = area;
}

}  // namespace

void switchParts(std::vector<StrokeNet>& nets, const std::vector<PartSwitch>& switches) {
  constexpr double kBesidePx = 3;
  constexpr double kWidths = 0.6;  // tracks begin so far away from where they meet, or a little less
  for (const PartSwitch& one : switches) {
    const Part part = nearestTo(nets, one.at);
    if (part.off > std::max(kBesidePx, kWidths * part.width)) continue;
    StrokeNet& net = *part.net;
    if (net.dot) {
      becomeDot(net, !net.dotIsArea);
      continue;
    }
    const bool area = !net.tracks[part.track].area;
    if (!one.whole) become(net.tracks[part.track], area);
    for (StrokeTrack& track : net.tracks) {
      if (one.whole) become(track, area);
    }
  }
}

bool hasArea(const StrokeNet& net) {
  return net.dotIsArea ||
         std::any_of(net.tracks.begin(), net.tracks.end(), [](const StrokeTrack& t) { return t.area; });
}

}  // namespace rim::trace::lines
