#pragma once

#include <optional>
#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/refine/propose/proposal.h"

namespace rim::refine {

/// Which symmetry is looked for (`--symmetry`).
enum class SymmetryWish {
  Auto,    ///< a mirror when there is one, else a turn
  Mirror,  ///< about one axis
  Turn,    ///< about a centre
};

/// Whose shape counts (`--from`).
enum class SymmetryFrom {
  Best,  ///< the part that is made of the fewest segments
  Mean,  ///< of both, node by node, where both are made alike; else the best
  Left,
  Right,
  Lower,
  Upper,
};

/// A symmetry that a drawing nearly has.
struct Symmetry {
  int turns = 0;          ///< 0: a mirror; else how many times the same stands round the centre
  Point centre;           ///< of a mirror: a place on its axis
  double axisAngle = 0;   ///< radians, of a mirror's axis, 0..pi
  double farthestMm = 0;  ///< how far a place lies from where another should have its like, at most
};

/// The symmetry that a drawing (mm) nearly has: no place lies farther than `withinMm` from where its like should be.
/// Found by trying 180 axes through the centroid, or turns by a 2nd to a 12th, and bringing what fits best into place
/// by iterated closest points (P. Besl and N. McKay, "A method for registration of 3-D shapes", IEEE PAMI 14 (1992),
/// 239-256; with reflections here). None: it has none. Throws Cancelled.
std::optional<Symmetry> symmetryOf(const Drawing& drawing, SymmetryWish wish, double withinMm,
                                   const std::stop_token& stop = {});

/// The mirror square to another one, of a drawing that is exactly symmetric about that, which it nearly has as well.
/// None: no place along the axis will do.
std::optional<Symmetry> secondMirror(const Drawing& drawing, const Symmetry& first, double withinMm);

/// The drawing made exactly symmetric. Areas stay areas: what one half holds the other does. Throws Cancelled.
Drawing withSymmetry(const Drawing& drawing, const Symmetry& symmetry, SymmetryFrom from,
                     const std::stop_token& stop = {});

/// A drawing made symmetric, with the changes, and what about.
struct Symmetrized {
  Refined refined;
  std::vector<Symmetry> about;  ///< one axis or centre, or two axes; none: it has no such symmetry
};

/// Both: the drawing made symmetric as wished, about two axes where it has them; unchanged when it has no such
/// symmetry. Throws Cancelled.
Symmetrized madeSymmetric(const Drawing& drawing, SymmetryWish wish, SymmetryFrom from, double withinMm,
                          const std::stop_token& stop = {});

/// The same without what it is about.
Refined symmetrized(const Drawing& drawing, SymmetryWish wish, SymmetryFrom from, double withinMm,
                    const std::stop_token& stop = {});

}  // namespace rim::refine
