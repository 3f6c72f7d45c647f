#include "core/trace/outline/room_beside.h"

#include <algorithm>

#include "core/geometry/segment_distance.h"

namespace rim::trace::outline {
namespace {

constexpr double kShare = 0.4;
/// Strands farther off leave more room than any line takes.
constexpr double kReachPx = 1.5;
/// A stretch of the same border is another strand when it lies this many times nearer than along the border.
constexpr double kTurnedBack = 3;

}  // namespace

RoomBeside::RoomBeside(const std::vector<contour::Border>& borders) : borders_(borders), grid_(borders, kReachPx) {}

std::vector<double> RoomBeside::of(std::size_t i, double mostPx) const {
  const contour::Border& border = borders_[i];
  std::vector<double> ways{0};
  for (std::size_t k = 0; k < border.size(); ++k)
    ways.push_back(ways.back() + distance(border[k], border[(k + 1) % border.size()]));
  std::vector<double> rooms;
  for (std::size_t k = 0; k < border.size(); ++k) {
    double room = mostPx / kShare;
    grid_.forEachNear(border[k], [&](const Edge& edge) {
      const double off = distanceToSegment(border[k], edge.a, edge.b);
      if (off >= room) return;
      if (edge.polyline == i) {
        // From the nearer end of the edge on, either way round.
        const auto along = [&](std::size_t node) {
          const double way = std::abs(ways[node] - ways[k]);
          return std::min(way, ways.back() - way);
        };
        if (kTurnedBack * off >= std::min(along(edge.index), along(edge.index + 1))) return;
      }
      room = off;
    });
    rooms.push_back(kShare * room);
  }
  return rooms;
}

}  // namespace rim::trace::outline
