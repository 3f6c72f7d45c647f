#pragma once

#include <optional>
#include <stop_token>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/mend/repair/join.h"

namespace rim::io {

/// How a drawing of unknown units or of many curves is to be read.
struct ReadOptions {
  std::optional<double> mmPerUnit;  ///< > 0; none: as the file says, else its format's usual unit
  double toleranceMm = 0.0005;      ///< ellipses and rational curves become cubics within this, > 0
  std::stop_token stop{};           ///< reading throws Cancelled when a stop is requested
};

/// A drawing as it was read.
struct ReadResult {
  Drawing drawing;                          ///< mm; open and closed paths as the file holds them
  bool unitKnown = true;                    ///< false: the file names no unit, and mmPerUnit was assumed
  double mmPerUnit = 1;                     ///< of the file's numbers
  std::vector<std::string> notes;           ///< a sentence for each kind of thing that was left out or assumed
  std::vector<mend::JoinedOutline> joined;  ///< outlines that the file holds in pieces
};

/// The most segments that a drawing may unfold to, and the largest file, in bytes, that is read.
inline constexpr std::size_t kMostSegments = 5'000'000;
inline constexpr std::size_t kLargestDrawingFile = 256'000'000;
/// The largest coordinate, in the file's own unit, that counts as a place.
inline constexpr double kLargestCoordinate = 1e7;
/// The farthest place of an outline, in mm, after all transforms: a thousand kilometres.
inline constexpr double kFarthestMm = 1e9;

}  // namespace rim::io
