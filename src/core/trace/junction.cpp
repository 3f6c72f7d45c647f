#include "core/trace/junction.h"

#include <algorithm>
#include <vector>

namespace rim {
namespace {

constexpr int kRounds = 6;
/// A way that goes on is known better than a line prolonged.
constexpr double kThroughWeight = 30;
/// Where all lines are nearly parallel what is seen decides along them.
constexpr double kSeenWeight = 0.02;

/// Sums of the normal equations for lines (a place and a direction each).
struct Lines {
  double xx = 0, xy = 0, yy = 0, x = 0, y = 0;

  void add(Point place, Point direction, double weight) {
    const Point n = leftNormal(direction);
    const double at = dot(n, place);
    xx += weight * n.x * n.x;
    xy += weight * n.x * n.y;
    yy += weight * n.y * n.y;
    x += weight * n.x * at;
    y += weight * n.y * at;
  }
  void addPoint(Point place, double weight) {
    add(place, {1, 0}, weight);
    add(place, {0, 1}, weight);
  }
  Point solved() const {
    const double det = xx * yy - xy * xy;
    return {(x * yy - y * xy) / det, (xx * y - xy * x) / det};
  }
};

/// Where borders meet at a small angle what lies between them is thinner than a pixel for a long way.
double reachOf(const Meeting& meeting) {
  constexpr double kPixelPx = 1.5;
  constexpr double kMostPx = 14;
  std::vector<Point> directions;
  for (const Path* way : meeting.through) directions.push_back(tangentOn(*way, nearestOn(*way, meeting.seen)));
  for (const Meeting::Ray& ray : meeting.ends) directions.push_back(ray.direction);
  double sharpest = 1;
  for (std::size_t i = 0; i < directions.size(); ++i) {
    for (std::size_t k = i + 1; k < directions.size(); ++k)
      sharpest = std::min(sharpest, std::max(0.05, std::abs(cross(directions[i], directions[k]))));
  }
  return std::min(kMostPx, 1 + kPixelPx / sharpest);
}

}  // namespace

Point meetingPlace(const Meeting& meeting) {
  const double reachPx = reachOf(meeting);
  Point at = meeting.seen;
  for (int round = 0; round < kRounds; ++round) {
    Lines lines;
    lines.addPoint(meeting.seen, kSeenWeight);
    for (const Path* way : meeting.through) {
      const PathPlace near = nearestOn(*way, at);
      lines.add(near.place, tangentOn(*way, near), kThroughWeight);
    }
    for (const Meeting::Ray& ray : meeting.ends) lines.add(ray.place, ray.direction, 1);
    at = lines.solved();
    if (distance(at, meeting.seen) > reachPx) {
      at = meeting.seen;
      break;
    }
  }
  return meeting.through.empty() ? at : nearestOn(*meeting.through.front(), at).place;
}

}  // namespace rim
