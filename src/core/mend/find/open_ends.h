#pragma once

#include <optional>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/geometry/box_index.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

class PieceIndex;

/// An end of an open path.
struct End {
  std::size_t path = 0;
  bool atStart = false;
  Point place;
  Point outward;  ///< unit vector, on along the path beyond its end

  friend bool operator==(const End& a, const End& b) { return a.path == b.path && a.atStart == b.atStart; }
};

/// Two ends that belong together.
struct EndPair {
  End a;
  End b;
  double gapMm = 0;
};

struct LonelyEnd {
  End end;
  std::optional<End> nearest;  ///< the nearest other end, however far
  double gapMm = 0;            ///< to it
};

struct OpenEnds {
  std::vector<EndPair> pairs;
  std::vector<LonelyEnd> lonely;
};

/// Lines that cross at a sharp angle end so many times farther apart than they run over each other.
inline constexpr double kOvershootReach = 3;

/// Ends that nothing is joined to, by place.
class LonelyEnds {
 public:
  /// The drawing is kept by reference.
  LonelyEnds(const Drawing& drawing, std::vector<End> ends);

  /// One of them with the nearest other one; the far end of the same line counts where that is more than a straight
  /// segment.
  LonelyEnd at(std::size_t i) const;

 private:
  const Drawing& drawing_;
  std::vector<End> ends_;
  BoxIndex index_;
};

/// The end of an open path.
End endOf(const Paths& paths, std::size_t path, bool atStart);

/// Pairs the ends of open paths that lie within `gapMm` of each other, or whose lines cross within that of both.
///
/// Two ends alone in one place are joined at once. Of the others the nearest two anywhere are joined first, so that an
/// end is never taken from a better partner; among equally near ones those that go on straightest. What hangs loose at
/// its other end is joined only after what can close, so that at a branching the closed outline stays closed. Ends on
/// one layer are preferred. Two ends that both lie within lines, one of them within a third path's
/// (mend/find/branches.h), are joined only where they meet. n log n for ends spread out.
OpenEnds pairEnds(const Drawing& drawing, const MendSettings& settings);

/// Open paths no longer than `gapMm` that nothing joins at either end: leftovers, too short to have been drawn. What
/// leads from one line to another (mend/find/branches.h) is a short border between them and none. `index` is the
/// paths'.
std::vector<std::size_t> scraps(const Paths& paths, const OpenEnds& ends, const MendSettings& settings,
                                const PieceIndex& index);

}  // namespace rim::mend
