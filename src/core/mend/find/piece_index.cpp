#include "core/mend/find/piece_index.h"

#include <algorithm>

#include "core/error.h"

namespace rim::mend {
namespace {

std::vector<IndexedPiece> piecesOf(const Paths& paths) {
  std::vector<IndexedPiece> pieces;
  for (std::size_t p = 0; p < paths.size(); ++p) {
    Point from = paths[p].start;
    for (std::size_t s = 0; s < paths[p].segments.size(); ++s) {
      const Piece piece{from, paths[p].segments[s]};
      pieces.push_back({p, s, piece, boxOf(piece)});
      from = piece.segment.end;
    }
  }
  return pieces;
}

[[noreturn]] void failForPairs() {
  throw InputError(
      "lines lie over each other in more than 10 000 000 pairs, the most that is looked at: this is no "
      "drawing of outlines.");
}

std::vector<Box> boxesOf(const std::vector<IndexedPiece>& pieces) {
  std::vector<Box> boxes;
  boxes.reserve(pieces.size());
  for (const IndexedPiece& p : pieces) boxes.push_back(p.box);
  return boxes;
}

}  // namespace

PieceIndex::PieceIndex(const Paths& paths) : pieces_(piecesOf(paths)), boxes_(boxesOf(pieces_)) {}

void PieceIndex::pairs(double reach, const std::function<void(std::size_t, std::size_t)>& visit,
                       const std::stop_token& stop) const {
  constexpr std::size_t kMostPairs = 10'000'000;
  constexpr std::size_t kMostOfEach = 8;
  const std::size_t most = std::max(kMostPairs, kMostOfEach * pieces_.size());
  std::size_t visited = 0;
  std::vector<std::size_t> partners;
  for (std::size_t i = 0; i < pieces_.size(); ++i) {
    constexpr std::size_t kAskEvery = 1024;
    if (i % kAskEvery == 0 && stop.stop_requested()) throw Cancelled();
    partners.clear();
    near(pieces_[i].box, reach, [&, i](std::size_t j) {
      if (i >= j) return;
      if (++visited > most) failForPairs();
      partners.push_back(j);
    });
    std::sort(partners.begin(), partners.end());
    for (const std::size_t j : partners) visit(i, j);
  }
}

}  // namespace rim::mend
