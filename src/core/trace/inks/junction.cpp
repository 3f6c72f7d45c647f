#include "core/trace/inks/junction.h"

#include <algorithm>
#include <optional>
#include <vector>

#include "core/geometry/segment.h"

namespace rim::trace::inks {
namespace {

constexpr int kRounds = 6;
/// A way that goes on is known better than a line prolonged.
constexpr double kThroughWeight = 30;
/// Where all lines are nearly parallel what is seen decides along them.
constexpr double kSeenWeight = 0.001;
/// Ways that miss a place by less agree on it.
constexpr double kAgreePx = 0.5;
/// A segment this long is not turned by moving its end aside by more than this.
constexpr double kLongPx = 4;
constexpr double kMostTurnedPx = 0.3;

/// Where borders meet at a small angle what lies between them is thinner than a pixel for a long way.
double reachOf(const BordersMeeting& meeting) {
  constexpr double kPixelPx = 2.6;
  constexpr double kMostPx = 20;
  constexpr double kInBendPx = 1.5;
  if (meeting.bent) return kInBendPx;
  std::vector<Point> directions;
  for (const Path* way : meeting.through) directions.push_back(tangentOn(*way, nearestOn(*way, meeting.seen)));
  for (const MeetingLine& ray : meeting.ends) directions.push_back(ray.direction);
  double sharpest = 1;
  for (std::size_t i = 0; i < directions.size(); ++i) {
    for (std::size_t k = i + 1; k < directions.size(); ++k)
      sharpest = std::min(sharpest, std::max(0.05, std::abs(cross(directions[i], directions[k]))));
  }
  return std::min(kMostPx, 1 + kPixelPx / sharpest);
}

double worstOf(const std::vector<MeetingLine>& rays, Point place) {
  double worst = 0;
  for (const MeetingLine& ray : rays) worst = std::max(worst, offFrom(ray, place));
  return worst;
}

/// The place with the least squares; nothing where it is too far from what is seen.
std::optional<Point> solvedPlace(const BordersMeeting& meeting, const std::vector<MeetingLine>& ends, double reachPx) {
  Point at = meeting.seen;
  for (int round = 0; round < kRounds; ++round) {
    LineMeeting lines;
    lines.addPoint(meeting.seen, kSeenWeight);
    for (const Path* way : meeting.through) {
      const PathPlace near = nearestOn(*way, at);
      lines.add({near.place, tangentOn(*way, near)}, kThroughWeight);
    }
    for (const MeetingLine& ray : ends) lines.add(ray, 1);
    at = lines.place().value_or(meeting.seen);
    if (distance(at, meeting.seen) > reachPx) return std::nullopt;
  }
  return at;
}

/// Where the others meet when one of three or more does not point there, as when it has a corner just before the
/// junction: of all others that agree, what is nearest to what is seen.
std::optional<Point> placeWithoutOne(const BordersMeeting& meeting, double reachPx) {
  std::optional<Point> best;
  for (std::size_t k = 0; k < meeting.ends.size(); ++k) {
    std::vector<MeetingLine> others = meeting.ends;
    others.erase(others.begin() + static_cast<std::ptrdiff_t>(k));
    const auto place = solvedPlace(meeting, others, reachPx);
    if (!place || worstOf(others, *place) > kAgreePx) continue;
    if (!best || distance(*place, meeting.seen) < distance(*best, meeting.seen)) best = place;
  }
  return best;
}

/// The path brought to the place where it ends.
Path broughtToEnd(Path path, Point end) {
  const Piece last = pieceOf(path, path.segments.size() - 1);
  const Point direction = tangentAt(last, 1);
  const Point way = end - last.segment.end;
  const double aside = std::abs(cross(direction, way));
  const bool keepsItsLine = aside > kMostTurnedPx && dot(direction, way) > -aside && lengthOf(last) > kLongPx;
  if (!keepsItsLine) return withEnds(std::move(path), path.start, end);
  path.segments.push_back(Segment::line(end));
  return path;
}

}  // namespace

Point meetingPlace(const BordersMeeting& meeting) {
  const double reachPx = reachOf(meeting);
  std::optional<Point> at = solvedPlace(meeting, meeting.ends, reachPx);
  const bool agree = at && worstOf(meeting.ends, *at) <= kAgreePx;
  if (!agree && meeting.ends.size() + meeting.through.size() > 2) {
    if (const auto better = placeWithoutOne(meeting, reachPx)) at = better;
  }
  const Point place = at.value_or(meeting.seen);
  return meeting.through.empty() ? place : nearestOn(*meeting.through.front(), place).place;
}

Path broughtTo(const Path& path, Point start, Point end) {
  return reversed(broughtToEnd(reversed(broughtToEnd(path, end)), start));
}

}  // namespace rim::trace::inks
