#pragma once

#include <functional>
#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/geometry/box_index.h"
#include "core/geometry/segment.h"

namespace rim::mend {

/// A segment of a drawing: which one, with its start and box.
struct IndexedPiece {
  std::size_t path = 0;
  std::size_t segment = 0;
  Piece piece;
  Box box;
};

/// All segments of some paths, found by place.
class PieceIndex {
 public:
  explicit PieceIndex(const Paths& paths);

  const std::vector<IndexedPiece>& pieces() const { return pieces_; }

  /// Calls `visit` with the position in pieces() of every piece whose box comes within `reach` of the box.
  void near(const Box& box, double reach, const std::function<void(std::size_t)>& visit) const {
    boxes_.near(box, reach, visit);
  }

  /// Calls `visit` with the positions i < j of all pairs of pieces whose boxes come within `reach` of each other, in
  /// order.
  /// Throws Cancelled when a stop is requested, InputError when there are more than 10 million, or 8 a piece.
  void pairs(double reach, const std::function<void(std::size_t, std::size_t)>& visit,
             const std::stop_token& stop = {}) const;

 private:
  std::vector<IndexedPiece> pieces_;
  BoxIndex boxes_;
};

}  // namespace rim::mend
