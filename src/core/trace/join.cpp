#include "core/trace/join.h"

#include <numbers>

namespace rim {
namespace {

double degrees(double radians) { return radians * 180 / std::numbers::pi; }

/// How far the tip of a corner may lie beyond the border that is seen of it: pixels and blur eat
/// a wedge away up to where it is about as wide as they smear.
double mostRetreat(double turnRadians, double roundingPx) {
  const double halfOpening = (std::numbers::pi - std::abs(turnRadians)) / 2;
  return 0.5 + roundingPx / (2 * std::tan(std::max(halfOpening, 0.05)));
}

struct Meeting {
  Point place;
  double turn = 0;  ///< radians
};

/// The corner that two pieces make near the border's point `index`, if the border comes close
/// enough to it. The break itself may lie anywhere on the rounded-off tip.
std::optional<Meeting> cornerOf(const Primitive& a, const Primitive& b, const Track& track, std::size_t index,
                                double roundingPx) {
  const auto meet = meetingPoint(a, b, track.point(index));
  if (!meet) return std::nullopt;
  const double turn = angleBetween(tangentAt(a, *meet), tangentAt(b, *meet));
  const double reach = mostRetreat(turn, roundingPx);
  if (track.distanceNear(index, reach + 4 * roundingPx, *meet) > reach) return std::nullopt;
  return Meeting{*meet, turn};
}

Node smoothNode(const Primitive& a, const Primitive& b, Point near) {
  const bool lineA = a.kind == Primitive::Kind::Line;
  const bool lineB = b.kind == Primitive::Kind::Line;
  const Point onA = project(a, near);
  const Point onB = project(b, near);
  if (lineA && !lineB) return {onA, false, a.direction};
  if (lineB && !lineA) return {onB, false, b.direction};
  return {lerp(onA, onB, 0.5), false, unit(tangentAt(a, near) + tangentAt(b, near))};
}

Node nodeBetween(const Primitive& a, const Primitive& b, const Track& track, std::size_t index,
                 const JoinLimits& limits) {
  const Point near = track.point(index);
  const double turn = angleBetween(tangentAt(a, near), tangentAt(b, near));
  const bool linesOnly = a.kind == Primitive::Kind::Line && b.kind == Primitive::Kind::Line;
  if (std::abs(degrees(turn)) < limits.cornerDegrees && !linesOnly) return smoothNode(a, b, near);
  const auto corner = cornerOf(a, b, track, index, limits.roundingPx);
  const Point place = corner ? corner->place : lerp(project(a, near), project(b, near), 0.5);
  return {place, true, {}};
}

/// The index of the border's point in the middle of a piece.
std::size_t middleOf(const Track& track, const Piece& piece) {
  return track.indexAt((track.way(piece.from) + track.way(piece.to)) / 2);
}

/// Whether the piece only follows the rounded-off tip of the corner between its neighbours.
bool isRounding(const Track& track, const Piece& before, const Piece& piece, const Piece& after,
                const JoinLimits& limits) {
  const double way = track.way(piece.to) - track.way(piece.from);
  const auto longer = [&](const Piece& p) { return track.way(p.to) - track.way(p.from) > std::max(1.2 * way, 3.0); };
  if (way > 12 * limits.roundingPx || !longer(before) || !longer(after)) return false;
  const auto corner = cornerOf(before.primitive, after.primitive, track, middleOf(track, piece), limits.roundingPx);
  if (!corner || std::abs(degrees(corner->turn)) < limits.cornerDegrees) return false;
  // The border goes round inside the corner, and not farther from it than the rounding explains.
  const double reach = mostRetreat(corner->turn, limits.roundingPx) + limits.roundingPx + 1.0;
  return distance(track.point(piece.from), corner->place) < reach &&
         distance(track.point(piece.to), corner->place) < reach;
}

void dropRoundings(const Track& track, std::vector<Piece>& pieces, const JoinLimits& limits) {
  for (std::size_t k = 0; k < pieces.size() && pieces.size() > 2;) {
    const std::size_t n = pieces.size();
    Piece& before = pieces[(k + n - 1) % n];
    Piece& after = pieces[(k + 1) % n];
    if (!isRounding(track, before, pieces[k], after, limits)) {
      ++k;
      continue;
    }
    const std::size_t middle = middleOf(track, pieces[k]);
    if (k > 0) before.to = middle;
    if (k + 1 < n) after.from = middle;
    pieces.erase(pieces.begin() + static_cast<std::ptrdiff_t>(k));
  }
}

}  // namespace

Chain joinPieces(const Track& track, std::vector<Piece> pieces, const JoinLimits& limits) {
  dropRoundings(track, pieces, limits);
  Chain chain{std::move(pieces), {}};
  const std::size_t n = chain.pieces.size();
  for (std::size_t k = 0; k < n; ++k) {
    const Piece& before = chain.pieces[(k + n - 1) % n];
    const Piece& after = chain.pieces[k];
    chain.nodes.push_back(nodeBetween(before.primitive, after.primitive, track, after.from, limits));
  }
  return chain;
}

double cornerDegreesFor(double readiness) {
  const double r = std::clamp(readiness, 0.0, 100.0);
  // Straight lines in the logarithm: 180 to 20 to 5 degrees.
  return r < 50 ? 180 * std::pow(20.0 / 180, r / 50) : 20 * std::pow(5.0 / 20, (r - 50) / 50);
}

}  // namespace rim
