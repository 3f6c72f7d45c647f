#pragma once

#include <vector>

#include "core/trace/split.h"

namespace rim {

/// Where two neighbouring pieces of a closed border meet.
struct Node {
  Point place;
  bool corner = false;
  Point tangent;  ///< smooth nodes: the unit tangent that both sides share
};

/// Pieces of a closed border with the nodes between them: nodes[k] is where pieces[k] begins.
struct Chain {
  std::vector<Piece> pieces;
  std::vector<Node> nodes;
};

struct JoinLimits {
  double cornerDegrees = 20;  ///< a turn of this much or more is a corner
  double roundingPx = 1.2;    ///< how wide pixels and blur smear an edge; bounds how far a corner
                              ///< may lie beyond the rounded-off border
};

/// Puts the nodes. Where two pieces turn by a corner's angle, the node is where both, prolonged,
/// meet. A short piece that only follows the rounding of a corner is dropped for the
/// corner that its neighbours make. Elsewhere the node is smooth.
Chain joinPieces(const Track& track, std::vector<Piece> pieces, const JoinLimits& limits);

/// The corner angle for a readiness of 0 (never a corner) to 100 (every kink): 180 degrees at 0,
/// 20 at 50, 5 at 100.
double cornerDegreesFor(double readiness);

}  // namespace rim
