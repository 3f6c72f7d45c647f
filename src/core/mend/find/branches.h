#pragma once

#include <functional>

#include "core/mend/find/open_ends.h"
#include "core/mend/find/piece_index.h"

namespace rim::mend {

/// Tells ends that branch off from another path's line from those that hang loose. A border that two outlines share and
/// that is drawn once ends like this at both sides: nothing is open there.
class Branches {
 public:
  /// Both are kept by reference. Places nearer than `coincidentMm` are one.
  Branches(const Paths& paths, const PieceIndex& index, double coincidentMm)
      : paths_(paths), index_(index), coincidentMm_(coincidentMm) {}

  /// Whether the end lies on the line of another path, its ends counted.
  bool onLine(const End& end) const { return lies(end, end.path, true); }

  /// Whether both ends of the path do: it parts an area, as a border between two inks does that is drawn once.
  bool partsAnArea(std::size_t path) const {
    return !paths_[path].closed && onLine(endOf(paths_, path, true)) && onLine(endOf(paths_, path, false));
  }

  /// Whether two ends that meet, of lines that part areas, do so where a third such line, or a closed one, leads
  /// elsewhere than theirs: three or more areas meet there, and nothing is open.
  bool atJunction(const End& one, const End& other) const;

  /// Whether an end lies, away from that path's own open ends, on the line of another path that is not `but` either.
  bool withinLine(const End& end, std::size_t but) const { return lies(end, but, false); }

 private:
  Branches(Paths&&, const PieceIndex&, double) = delete;
  void eachPieceAt(Point place, const std::function<void(const IndexedPiece&)>& visit) const;
  bool lies(const End& end, std::size_t but, bool endsCount) const;

  const Paths& paths_;
  const PieceIndex& index_;
  double coincidentMm_;
};

}  // namespace rim::mend
