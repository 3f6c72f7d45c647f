#pragma once

#include <cstddef>
#include <string>
#include <vector>

#include "core/geometry/drawing.h"

namespace rim {

enum class FindingKind {
  OpenEnd,
  DoubleLine,
  StrokePair,
  SelfCrossing,
  Loop,
  Crossing,
  CoincidentNode,
  ZeroLength,
  Spike,
  Speck,
  Stray,
  Frame,
};
inline constexpr std::size_t kFindingKinds = 12;

/// A fault in a drawing: where, how large, in words, and what would mend it.
struct Finding {
  FindingKind kind = FindingKind::OpenEnd;
  Point at;                 ///< mm
  std::size_t outline = 0;  ///< index of the path
  std::size_t other = 0;    ///< a second path that takes part, else the same
  double sizeMm = 0;   ///< of a gap its width, of a double line its length, of what encloses something its larger side
  std::string text;    ///< a sentence in plain words
  std::string repair;  ///< "join", "meet", "one", "drop", "cut off", "split", "untangle", "merge"; empty: for a person
                       ///< to decide
};

/// As in the report: "open-end".
std::string nameOf(FindingKind kind);

/// The gap, size or length as a text: "0.31 mm".
std::string mmText(double mm);

}  // namespace rim
