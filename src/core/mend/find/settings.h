#pragma once

namespace rim::mend {

/// What a line drawn twice becomes (`--double`).
enum class DoubleRule {
  One,     ///< true repeats become one; the two edges of a stroke stay
  Outer,   ///< of the two edges of a stroke the outer one stays
  Inner,   ///< the inner one
  Centre,  ///< the line between
  Leave,   ///< nothing is done
};

/// How often a border is drawn that two closed outlines share in part (`--borders`).
enum class BorderRule {
  Twice,  ///< each outline keeps its own: for fills and parts with a gap to come
  Once,   ///< one outline gives it up and branches off from the other: for parts that are cut apart
};

/// What becomes of a path that crosses itself and encloses more than a loop on both sides (`--bow-ties`).
enum class BowTieRule {
  Split,     ///< it is parted where it crosses itself; all its lobes stay
  Untangle,  ///< two nodes in the wrong order are put right, which may move lines far; other crossings are split
  Leave,     ///< only loops are cut off
};

/// What counts as a fault and what is mended. Lengths in mm.
struct MendSettings {
  double gapMm = 0.5;           ///< open ends nearer than this are joined
  double doubleMm = 0.05;       ///< lines nearer than this all along are the same line; a laser's cut is wider
  double touchMm = 0.002;       ///< outlines that pass each other by less only touch
  double coincidentMm = 0.002;  ///< nodes nearer than this are one
  double loopMm = 0.5;          ///< a crossing that encloses less than this, the larger side, is a loop
  double speckMm = 0.5;         ///< outlines smaller than this, the larger side, are found as specks
  double invisibleMm = 0.1;     ///< a change smaller than this cannot be seen; it is safe
  double strokeMm = 1;          ///< edges nearer than this all along are found as the two sides of a stroke
  double hairMm = 0.3;          ///< such a pair is found among other outlines, too; else only where most are pairs
  DoubleRule doubles = DoubleRule::One;
  BorderRule borders = BorderRule::Twice;
  BowTieRule bowTies = BowTieRule::Split;
  double strokeWidthMm = 3;  ///< the widest stroke that outer, inner and centre take for one
  double smallerThanMm = 0;  ///< closed outlines whose larger side is below this are dropped
  bool dropFrame = false;    ///< drop an outline that only frames all the others
  bool dropStrays = false;   ///< drop leftovers far outside everything else
  double simplifyMm = 0;     ///< fewest nodes within this distance; 0: nodes stay

  friend bool operator==(const MendSettings&, const MendSettings&) = default;
};

}  // namespace rim::mend
