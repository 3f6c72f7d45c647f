#pragma once

#include <memory>
#include <optional>
#include <stop_token>
#include <unordered_map>
#include <vector>

#include "core/mend/find/aside.h"
#include "core/mend/find/inspected.h"
#include "core/mend/find/local_faults.h"
#include "core/mend/find/stroke_pairs.h"

namespace rim::mend {

/// An end that nothing is joined to, of the outline that it is kept with.
struct KnownEnd {
  bool atStart = false;
  bool isFault = true;
};

/// The stroke of which an outline is the inner edge.
struct KnownStroke {
  OutlineId outer = OutlineId::None;
  double widthMm = 0;
  std::vector<Point> unlike;
};

/// What is known of an outline: what hangs on it and on what lies near it, in words that hold however the list of
/// outlines changes elsewhere.
struct KnownOutline {
  Outline outline;
  Extent extent;
  std::vector<OutlineId> touching;  ///< mend/find/neighbours.h
  std::vector<OutlineId> ending;
  std::vector<Finding> faults;  ///< that name it first
  std::vector<KnownEnd> loose;
  std::optional<KnownStroke> stroke;
};

using KnownOutlines = std::vector<std::shared_ptr<const KnownOutline>>;

/// Invariant: `all` holds one for each outline of the drawing, in its order.
struct Inspected::State {
  MendSettings settings;
  std::size_t layers = 0;
  KnownOutlines all;
  OutlinePlaces places;  ///< of `all`
  std::vector<Finding> findings;
  std::size_t lookedAt = 0;
};

/// All that is to be known of a drawing's outlines, looked at from scratch.
KnownOutlines knownAnew(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop);

/// The same from what was known of a former state, and how many outlines were looked at for it; none when so many would
/// have to be that it is no use, or when the former state cannot tell.
struct KnownAgain {
  KnownOutlines all;
  std::size_t lookedAt = 0;
};
std::optional<KnownAgain> knownAgain(const Drawing& drawing, const OutlinePlaces& places, const MendSettings& settings,
                                     const Inspected::State& before, const std::stop_token& stop);

}  // namespace rim::mend
