#include "core/trace/lines/pen_lines.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/nearest_on_paths.h"
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
  std::vector<Path> paths;
  for (const StrokeLine& line : lines) {
    if (line.points.size() >= 2) paths.push_back(pathThrough(line.points, line.closed));
  }
  const double most = width / 10;
  if (paths.empty()) return {std::move(lines), most};
  const NearestOnPaths nearest{Paths(paths)};
  constexpr std::size_t kEnough = 20'000;
  const std::size_t every = 1 + axis.samples.size() / kEnough;
  std::vector<double> away;
  for (std::size_t i = 0; i < axis.samples.size(); i += every)
    away.push_back(nearest.distanceTo(axis.samples[i].place));
  if (away.empty()) return {std::move(lines), 0};
  const double half = std::clamp(medianOf(away), (1 - kWidthOff) * width / 2, (1 + kWidthOff) * width / 2);
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
