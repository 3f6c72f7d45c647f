#include "core/trace/outline/keep_apart.h"

#include <cmath>
#include <map>
#include <optional>
#include <set>
#include <utility>

#include "core/for_all.h"
#include "core/trace/outline/cut_corners.h"
#include "core/trace/outline/fit_settings.h"
#include "core/trace/outline/guard.h"
#include "core/trace/outline/measured_at.h"
#include "core/trace/outline/outline_crossings.h"
#include "core/trace/outline/room_beside.h"
#include "core/trace/outline/within_picture.h"

namespace rim::trace::outline {
namespace {

// An outline that crosses has its corners there cut off, farther from their tips each time. Where that does not help it
// is fitted again: first with its corners there kept to the border, then with whole pieces there left as measured,
// farther round each time; at last only its border's own points near the crossings are taken, so that the rest stays
// what it is.
constexpr std::size_t kCutAttempts = 2;
constexpr std::size_t kBluntAttempts = 5;
constexpr std::size_t kFitAttempts = 9;
constexpr std::size_t kLineAttempts = 13;  ///< from here on it is a line of points
constexpr std::size_t kMostAttempts = 30;
constexpr double kCutPx[kCutAttempts] = {0.2, 0.5};
constexpr double kCutReachPx = 1.5;
/// A line of points leaves its border by no more than this, as one that is drawn by hand within half a pixel.
constexpr double kMostRoomPx = 0.45;
constexpr double kMeasuredReachPx = 4;

/// What is known of one outline that is on its way to being fitted.
struct Attempt {
  std::size_t number = 0;
  std::vector<Point> places;         ///< where it crossed
  std::vector<Point> crossedAsLine;  ///< the same since it is a line of points
  Path whole;                        ///< the outline before anything was done to it
  Path fitted;                       ///< what it is taken from once it is fitted no more
  double mostRoomPx = kMostRoomPx;   ///< by which it may leave its border once it is a line of points
};

/// A line of the border's points that leaves it by little; by no more than there is room beside it where it crossed
/// since, at last all round.
Path lineAlong(const contour::Border& border, const Attempt& attempt, std::vector<double> roomPx) {
  if (attempt.number >= kMostAttempts) return borderWithin(border, roomPx);
  constexpr double kReachPx = 6;
  for (std::size_t i = 0; i < border.size(); ++i) {
    const auto isNear = [&](Point place) { return distance(place, border[i]) <= kReachPx; };
    if (std::none_of(attempt.crossedAsLine.begin(), attempt.crossedAsLine.end(), isNear))
      roomPx[i] = attempt.mostRoomPx;
  }
  return borderWithin(border, roomPx);
}

/// What was fitted, with the border's own points near the places where it crossed, farther round each time; chords
/// between them leave the border by no more than there is room beside it.
Path measuredNearCrossings(const contour::Border& border, const Attempt& attempt, std::vector<double> roomPx) {
  if (attempt.number >= kLineAttempts) return lineAlong(border, attempt, std::move(roomPx));
  const auto step = static_cast<int>(attempt.number - kFitAttempts - 1);
  constexpr double kFirstReachPx = 2;
  return measuredAt(attempt.fitted, border, {attempt.places, std::ldexp(kFirstReachPx, 2 * step), std::move(roomPx)});
}

Path fitAt(const contour::Tones& tones, std::size_t i, const contour::Border& border, const FitTarget& target,
           const Attempt& attempt, const TraceSettings& settings, std::stop_token stop) {
  FitSettings fit = fitSettingsFor(tones, i, settings);
  fit.roundingPx = target.roundingPx;
  fit.gapPx = target.gapPx;
  fit.blunt = attempt.places;
  if (attempt.number <= kBluntAttempts)
    return fitOutline(target.points.empty() ? contour::measuredBorder(tones, i, border).points : target.points, fit,
                      stop);
  fit.measured = attempt.places;
  const auto step = static_cast<int>(attempt.number - kBluntAttempts - 1);
  fit.measuredReachPx = std::ldexp(kMeasuredReachPx, step);
  fit.measuredTolerancePx = attempt.number < kFitAttempts ? std::ldexp(settings.tolerancePx, -1 - step) : 0;
  return fitOutline(contour::measuredBorder(tones, i, border, fit.measured, 2 * fit.measuredReachPx).points, fit, stop);
}

/// Where a line of the border's points has fewer nodes, that is taken.
void takeFewerNodes(Path& outline, Attempt& attempt, const contour::Border& border, const std::vector<double>& roomPx) {
  Attempt asLine = attempt;
  asLine.number = kLineAttempts;
  Path line = lineAlong(border, asLine, roomPx);
  if (outline.segments.size() <= line.segments.size()) return;
  outline = std::move(line);
  attempt = std::move(asLine);
}

/// Outlines of many segments for which a line of their border's points, about as near to it as an outline may be, needs
/// fewer: grain and fibres, that no line or curve follows for long. Greys that tell more than borders are believed.
void takeLinesOfFewerNodes(std::vector<Path>& outlines, std::vector<Attempt>& attempts,
                           const std::vector<FitTarget>& targets, const std::vector<contour::Border>& borders,
                           double tolerancePx, const WorkControl& control) {
  constexpr std::size_t kMany = 60;
  constexpr double kShareForFewer = 1.25;
  const double roomPx = std::min(kMostRoomPx, kShareForFewer * tolerancePx);
  forAll(outlines.size(), {control.stop, {}}, [&](std::size_t i) {
    if (targets[i].settled || outlines[i].segments.size() <= kMany) return;
    attempts[i].mostRoomPx = roomPx;
    takeFewerNodes(outlines[i], attempts[i], borders[i], std::vector<double>(borders[i].size(), roomPx));
  });
}

/// Of the outlines that were fitted again those that leave their borders too far are held to them, where that makes no
/// new crossing.
void holdToBorders(std::vector<Path>& outlines, const contour::Tones& tones,
                   const std::vector<contour::Border>& borders, const std::vector<Attempt>& attempts,
                   const TraceSettings& settings, OutlineCrossings& crossings, const std::stop_token& stop) {
  std::map<std::size_t, Path> before;
  for (std::size_t i = 0; i < outlines.size(); ++i) {
    // What was left as measured on a jagged border has its jags, which the border that is fitted to has not.
    if (attempts[i].number == 0 || attempts[i].number >= kLineAttempts || tones.rough[i].jagged) continue;
    const contour::Border points = contour::measuredBorder(tones, i, borders[i]).points;
    Path held = guarded(outlines[i], points, guardLimitsFor(points, fitSettingsFor(tones, i, settings)));
    if (held == outlines[i]) continue;
    before[i] = std::exchange(outlines[i], withinPicture(std::move(held), tones.grey.size()));
    crossings.changed(i);
  }
  while (!before.empty()) {
    std::set<std::size_t> crossing;
    for (const Crossing& c : crossings.find(stop)) {
      if (before.count(c.polyline) != 0) crossing.insert(c.polyline);
    }
    if (crossing.empty()) return;
    for (const std::size_t i : crossing) {
      outlines[i] = before[i];
      before.erase(i);
      crossings.changed(i);
    }
  }
}

}  // namespace

void keepApart(std::vector<Path>& outlines, const std::vector<FitTarget>& targets, const contour::Tones& tones,
               const std::vector<contour::Border>& borders, const TraceSettings& settings, const WorkControl& control) {
  std::vector<Attempt> attempts(borders.size());
  if (!tones.greys) takeLinesOfFewerNodes(outlines, attempts, targets, borders, settings.tolerancePx, control);
  OutlineCrossings crossings(outlines);
  std::optional<RoomBeside> rooms;  // made when it is first needed
  while (true) {
    std::map<std::size_t, std::size_t> again;  // how often each outline crosses
    for (const Crossing& crossing : crossings.find(control.stop)) {
      Attempt& attempt = attempts[crossing.polyline];
      if (attempt.number >= kMostAttempts) continue;
      ++again[crossing.polyline];
      (attempt.number < kLineAttempts ? attempt.places : attempt.crossedAsLine).push_back(crossing.place);
    }
    if (again.empty()) break;
    std::vector<std::size_t> which;
    for (const auto& [i, count] : again) {
      which.push_back(i);
      Attempt& attempt = attempts[i];
      // So many crossings come from noise; fitting again for each of them would take minutes.
      attempt.number = count < kMostCrossingPlaces ? attempt.number + 1 : std::max(attempt.number + 1, kLineAttempts);
      if (attempt.whole.segments.empty()) attempt.whole = outlines[i];
      if (attempt.fitted.segments.empty() && attempt.number > kFitAttempts) attempt.fitted = outlines[i];
    }
    const auto isMeasured = [&attempts](std::size_t i) { return attempts[i].number > kBluntAttempts; };
    if (!rooms && std::any_of(which.begin(), which.end(), isMeasured)) rooms.emplace(borders);
    forAll(which.size(), {control.stop, {}}, [&](std::size_t k) {
      const std::size_t i = which[k];
      if (attempts[i].number <= kCutAttempts)
        outlines[i] =
            withCornersCut(attempts[i].whole, attempts[i].places, kCutReachPx, kCutPx[attempts[i].number - 1]);
      else
        outlines[i] = attempts[i].number > kFitAttempts
                          ? measuredNearCrossings(borders[i], attempts[i], rooms->of(i, kMostRoomPx))
                          : fitAt(tones, i, borders[i], targets[i], attempts[i], settings, control.stop);
      if (isMeasured(i) && attempts[i].number < kLineAttempts)
        takeFewerNodes(outlines[i], attempts[i], borders[i], rooms->of(i, kMostRoomPx));
      outlines[i] = withinPicture(std::move(outlines[i]), tones.grey.size());
      crossings.changed(i);
    });
  }
  if (!tones.greys) holdToBorders(outlines, tones, borders, attempts, settings, crossings, control.stop);
}

}  // namespace rim::trace::outline
