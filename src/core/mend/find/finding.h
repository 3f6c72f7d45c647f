#pragma once

#include <cstddef>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/geometry/units.h"

namespace rim::mend {

enum class FindingKind {
  Unjoined,
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
  LostDecision,
};
inline constexpr std::size_t kFindingKinds = 14;

/// A fault in a drawing: where, how large, in words, and what would mend it.
struct Finding {
  FindingKind kind = FindingKind::OpenEnd;
  Point at;  ///< mm
  OutlineId outline = OutlineId::None;
  OutlineId other = OutlineId::None;  ///< a second outline that takes part, else the same
  double sizeMm = 0;  ///< of a gap its width, of a double line its length, of what encloses something its larger side
  std::string words;  ///< a sentence in plain words, with "{}" in place of each length: see sentenceOf()
  std::vector<double> lengthsMm;  ///< in the order of the sentence
  std::string repair;  ///< "join", "bridge", "meet", "one", "drop", "cut off", "split", "untangle", "merge", "forget";
                       ///< empty: for a person to decide
};

/// Whether it is a crossing: of an outline with itself, as a loop too, or with another one.
bool isCrossing(const Finding& finding);

/// As in the report: "open-end".
std::string nameOf(FindingKind kind);

/// A gap, size or length as a text: "0.31 mm", "0.0122 in"; with a decimal point in every language.
std::string sizeText(double mm, Unit unit = Unit::Millimetre);

/// The finding's sentence with its lengths in the unit.
std::string sentenceOf(const Finding& finding, Unit unit = Unit::Millimetre);

}  // namespace rim::mend
