#pragma once

#include <vector>

#include "core/drawing/drawing.h"

namespace rim::mend {

/// How far a path reaches, and how long it is, mm.
struct Extent {
  Box box;
  double lengthMm = 0;
};

std::vector<Extent> extentsOf(const Paths& paths);

/// Paths outside all the rest: farther from where 96 % of all line lies than three quarters of that place's diagonal,
/// or farther from the largest group of paths than its diagonal, where all such together are at most 5 % of the line.
/// `extents` are the paths'. n log n of paths; few segments are looked at.
std::vector<std::size_t> strays(const Paths& paths, const std::vector<Extent>& extents);
std::vector<std::size_t> strays(const Paths& paths);

/// The closed rectangle that only frames all the others, if there is one: it holds everything else, at least two
/// outlines. With `onlyOfParts` one that holds plain holes is no frame but a plate: at least one of the outlines in it
/// must hold another. `extents` are the paths'.
std::vector<std::size_t> frames(const Paths& paths, const std::vector<Extent>& extents, bool onlyOfParts);
std::vector<std::size_t> frames(const Paths& paths, bool onlyOfParts);

}  // namespace rim::mend
