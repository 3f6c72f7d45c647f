#pragma once

#include <span>
#include <vector>

#include "core/trace/split/split.h"

namespace rim::trace::outline {

/// Where two neighbouring pieces of a closed border meet.
struct Node {
  Point place;
  bool corner = false;
  Point tangent;      ///< smooth nodes: the unit tangent that both sides share
  bool held = false;  ///< a corner that is kept on the border
};

/// Pieces of a border with the nodes between them: nodes[k] is where pieces[k] begins. An open border has one
/// more, where the last piece ends.
struct Chain {
  std::vector<split::TrackPiece> pieces;
  std::vector<Node> nodes;
};

struct JoinLimits {
  double cornerDegrees = 20;  ///< a turn of this much or more is a corner
  double roundingPx = 1.2;    ///< how wide pixels and blur smear an edge; bounds how far a corner
                              ///< may lie beyond the rounded-off border
  double deviationPx = 0;     ///< standard deviation of the border's points; a corner may lie farther by noise
  /// Corners are not put beyond the border near these places: what lies opposite is too close.
  std::span<const Point> blunt;
};

/// Looks into what lies between the pieces of a track, save at the track's ends: where it is more
/// than the rounded-off tip of a corner, pieces of its own follow it, lines or one arc for a small round; a piece that
/// follows nothing but such a tip is dropped.
std::vector<split::TrackPiece> settlePieces(const split::Track& track, std::vector<split::TrackPiece> pieces,
                                            const JoinLimits& limits, const split::SplitLimits& split);

/// Puts the nodes. An open track's ends are where its outermost pieces come nearest to its outermost points. Where two
/// pieces turn by a corner's angle, the node is where both, prolonged, meet. Elsewhere the node is smooth: where a line
/// touches a circle, or two circles each other.
Chain joinPieces(const split::Track& track, std::vector<split::TrackPiece> pieces, const JoinLimits& limits);

/// How far, in px, the tip of a corner may lie beyond the border that is seen of it: pixels and blur eat a
/// wedge away up to where it is about as wide as they smear, and noise of `deviationPx` may eat more.
double mostRetreat(double turnRadians, double roundingPx, double deviationPx);

/// The corner angle for a readiness of 0 (never a corner) to 100 (every kink): 180 degrees at 0,
/// 20 at 50, 5 at 100.
double cornerDegreesFor(double readiness);

}  // namespace rim::trace::outline
