#pragma once

#include "core/drawing/drawing.h"
#include "core/geometry/overlap.h"
#include "core/mend/find/piece_index.h"

namespace rim::mend {

/// Tells where lines of a drawing go on straight beyond the end of a segment, as they do where outlines that crossed
/// were parted: two such lines that pass each other at a small angle, or meet in a needle, are no line drawn twice.
class StraightOn {
 public:
  /// Both are kept by reference. Places nearer than `coincidentMm` are one.
  StraightOn(const Drawing& drawing, const PieceIndex& index, double coincidentMm)
      : drawing_(drawing), index_(index), coincidentMm_(coincidentMm) {}

  /// Whether another segment of a path on the layer of `path` leads from `place` straight on along `way` (length 1).
  bool from(Point place, Point way, std::size_t path) const;

  /// Whether two straight segments that have a stretch in common only pass each other: they open by 0.003 radians or
  /// more, and at either end of the stretch they meet or both lines go on.
  bool onlyPass(const IndexedPiece& a, const IndexedPiece& b, const Overlap& stretch) const;

  /// Whether two straight segments of `path`, the one that leads out to a tip and the one that leads back, are part of
  /// lines that open by 0.003 radians or more and go on straight, both through the tip or both beyond the other ends.
  bool isNeedle(const Piece& out, const Piece& back, std::size_t path) const;

 private:
  /// Whether the line of a piece goes on beyond place t of it; `inward` > 0: the stretch lies at larger t.
  bool goesOn(const IndexedPiece& piece, double t, double inward) const;

  const Drawing& drawing_;
  const PieceIndex& index_;
  double coincidentMm_;
};

}  // namespace rim::mend
