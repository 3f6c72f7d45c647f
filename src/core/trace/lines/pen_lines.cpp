#include "core/trace/lines/pen_lines.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/segment_distance.h"
#include "core/median.h"
#include "core/trace/lines/join_stretches.h"
#include "core/trace/lines/switch_parts.h"
#include "core/trace/lines/track_points.h"

namespace rim::trace::lines {
namespace {

std::optional<double> seenWidth(const std::vector<PenStretch>& stretches) {
  std::vector<double> widths;
  for (const PenStretch& stretch : stretches) widths.insert(widths.end(), stretch.widths.begin(), stretch.widths.end());
  return widths.empty() ? std::nullopt : std::optional(medianOf(std::move(widths)));
}

std::vector<double> widthsOf(const StrokeNet& net) {
  std::vector<double> widths;
  for (const StrokeTrack& track : net.tracks) {
    if (!track.area) widths.insert(widths.end(), track.widths.begin(), track.widths.end());
  }
  return widths;
}

/// Where strokes lie side by side they seem wider than the pen is: by so much of it its width may be wrong.
constexpr double kWidthOff = 0.1;

/// The one width that most of them nearly are, if there is one.
std::optional<double> oneWidthOf(const std::vector<double>& widths) {
  if (widths.empty()) return {};
  const double width = medianOf(widths);
  constexpr double kAlike = 0.125;
  constexpr double kShare = 0.7;
  const auto alike =
      std::count_if(widths.begin(), widths.end(), [width](double w) { return std::abs(w - width) < kAlike * width; });
  constexpr double kLeastPx = 2.5;
  if (width < kLeastPx || static_cast<double>(alike) < kShare * static_cast<double>(widths.size())) return {};
  return width;
}

/// How far it is from each place to the nearest line, px; no more than `reach` is told. Of many strokes the places are
/// few and the points of lines millions, so the places are what is indexed.
std::vector<double> waysToLines(const std::vector<Point>& places, const std::vector<StrokeLine>& lines, double reach) {
  std::vector<double> ways(places.size(), reach);
  const BoxIndex index(boxesAt(places));
  for (const StrokeLine& line : lines) {
    const std::size_t count = line.points.size();
    for (std::size_t i = 1; i < count + (line.closed ? 1 : 0); ++i) {
      const Point a = line.points[i - 1];
      const Point b = line.points[i % count];
      const Box box{{std::min(a.x, b.x), std::min(a.y, b.y)}, {std::max(a.x, b.x), std::max(a.y, b.y)}};
      index.near(box, reach, [&](std::size_t place) {
        ways[place] = std::min(ways[place], distanceToSegment(places[place], a, b));
      });
    }
  }
  return ways;
}

}  // namespace

std::optional<double> penWidthOf(const StrokeNet& net) {
  return hasArea(net) ? std::nullopt : oneWidthOf(widthsOf(net));
}

std::optional<double> penWidthOf(const std::vector<StrokeNet>& nets) {
  std::vector<double> all;
  for (const StrokeNet& net : nets) {
    const std::vector<double> widths = widthsOf(net);
    all.insert(all.end(), widths.begin(), widths.end());
  }
  return oneWidthOf(all);
}

std::vector<StrokeLine> penLines(const MedialAxis& axis, double width) {
  // A width that is somewhat wrong puts what both edges show that much apart.
  constexpr double kSameFirst = 0.07;
  constexpr double kSame = 0.05;
  constexpr int kRounds = 4;
  constexpr double kSameWidth = 0.003;
  const BorderNearby border(axis);
  std::vector<PenStretch> stretches = penStretches(axis, border, width, kSameFirst);
  for (int round = 0; round < kRounds; ++round) {
    const double seen = seenWidth(stretches).value_or(width);
    if (round > 0 && std::abs(seen / width - 1) < kSameWidth) break;
    width = seen;
    stretches = penStretches(axis, border, width, kSame);
  }
  return joined(border, stretches, width);
}

Description described(const MedialAxis& axis, std::vector<StrokeLine> lines, double width) {
  const double most = width / 10;
  constexpr std::size_t kEnough = 20'000;
  const std::size_t every = 1 + axis.samples.size() / kEnough;
  std::vector<Point> places;
  for (std::size_t i = 0; i < axis.samples.size(); i += every) places.push_back(axis.samples[i].place);
  if (places.empty()) return {std::move(lines), most};
  const double widest = (1 + kWidthOff) * width / 2;
  const std::vector<double> away = waysToLines(places, lines, widest + most);
  const double half = std::clamp(medianOf(away), (1 - kWidthOff) * width / 2, widest);
  double sum = 0;
  for (const double a : away) sum += std::min(most, std::abs(a - half));
  return {std::move(lines), sum / static_cast<double>(away.size())};
}

Description truerOf(Description first, Description second) {
  // Of two that are about as true the one of fewer lines.
  constexpr double kLinePx = 0.004;
  constexpr double kBetter = 0.9;
  constexpr double kNothingPx = 0.003;
  const auto costOf = [](const Description& one) {
    return one.misfitPx + kLinePx * static_cast<double>(one.lines.size());
  };
  const bool better = costOf(second) + kNothingPx < kBetter * costOf(first);
  return better ? std::move(second) : std::move(first);
}

}  // namespace rim::trace::lines
